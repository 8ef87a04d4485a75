/** Counts VideoFrames from making or receiving to closing, so that a leak shows as a number. */
export class FrameLedger {
  #open = 0

  /** Frames not closed yet. */
  get open(): number {
    return this.#open
  }

  /** Notes a frame that this side now owns. */
  take(frame: VideoFrame): VideoFrame {
    this.#open += 1
    return frame
  }

  /** Closes a frame that was taken. */
  close(frame: VideoFrame): void {
    frame.close()
    this.#open -= 1
  }

  /** Notes that another owner has a taken frame and will close it. */
  handOver(): void {
    this.#open -= 1
  }
}
