// Measures a sound track as a meeting receives it.

/** How long the loudest sample stays shown. */
const WINDOW_MS = 1000

export class SoundFigures {
  readonly #track: MediaStreamTrack
  /** Hears every block: its samples, both sides mixed; null: nobody does. */
  onBlock: ((samples: Float32Array, atMs: number) => void) | null = null
  #peaks: { readonly atMs: number; readonly peak: number }[] = []

  constructor(track: MediaStreamTrack) {
    this.#track = track
    void this.#readAll()
  }

  /** The loudest sample of the last second, in dB under full scale. */
  get peakDb(): number {
    const since = performance.now() - WINDOW_MS
    const peak = this.#peaks.reduce((loudest, { atMs, peak }) => (atMs >= since ? Math.max(loudest, peak) : loudest), 0)
    return 20 * Math.log10(peak)
  }

  stop(): void {
    this.#track.stop()
  }

  async #readAll(): Promise<void> {
    const reader = new MediaStreamTrackProcessor({ track: this.#track as MediaStreamAudioTrack }).readable.getReader()
    for (;;) {
      const { done, value: data } = await reader.read()
      if (done || data === undefined) return
      const atMs = Date.now()
      const samples = new Float32Array(data.numberOfFrames)
      // Measuring must cost next to nothing: only a recording asks for every sample.
      const mixed = this.onBlock === null ? null : new Float32Array(data.numberOfFrames)
      let peak = 0
      for (let planeIndex = 0; planeIndex < data.numberOfChannels; planeIndex += 1) {
        data.copyTo(samples, { planeIndex, format: 'f32-planar' })
        for (let i = 0; i < samples.length; i += 1) {
          peak = Math.max(peak, Math.abs(samples[i]!))
          if (mixed !== null) mixed[i]! += samples[i]! / data.numberOfChannels
        }
      }
      data.close()
      if (mixed !== null) this.onBlock?.(mixed, atMs)
      this.#peaks.push({ atMs: performance.now(), peak })
      if (this.#peaks.length > 400) this.#peaks.splice(0, 200)
    }
  }
}
