// Smaller copies of a frame, one for each size that some track asks for, however many tracks ask.

const MOST_SIZES = 4

export class PictureScaler {
  readonly #sheets = new Map<string, OffscreenCanvas>()

  /** A new frame of the given size; what does not fit its shape is cut off evenly on both sides. */
  scale(frame: VideoFrame, widthPx: number, heightPx: number): VideoFrame {
    const sheet = this.#sheet(widthPx, heightPx)
    // In main memory: what is drawn on a graphics card is gone when its process dies.
    const pen = sheet.getContext('2d', { alpha: false, willReadFrequently: true })!
    const { displayWidth, displayHeight } = frame
    const ratio = Math.max(widthPx / displayWidth, heightPx / displayHeight)
    const width = displayWidth * ratio
    const height = displayHeight * ratio
    pen.imageSmoothingQuality = 'medium'
    pen.drawImage(frame, (widthPx - width) / 2, (heightPx - height) / 2, width, height)
    return new VideoFrame(sheet, { timestamp: frame.timestamp })
  }

  #sheet(widthPx: number, heightPx: number): OffscreenCanvas {
    const key = `${widthPx}×${heightPx}`
    const known = this.#sheets.get(key)
    if (known !== undefined) return known
    if (this.#sheets.size >= MOST_SIZES) this.#sheets.clear()
    const made = new OffscreenCanvas(widthPx, heightPx)
    this.#sheets.set(key, made)
    return made
  }
}
