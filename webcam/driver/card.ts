import { drawHoldingCard } from '../../core/card/holding-card.ts'

/** The still that a meeting sees while no live picture arrives. */
export class Card {
  readonly #widthPx: number
  readonly #heightPx: number
  readonly #pixels: Uint8ClampedArray<ArrayBuffer>

  /** Drawn once and kept as bytes: a canvas goes blank when the graphics process dies. */
  constructor(widthPx: number, heightPx: number) {
    this.#widthPx = widthPx
    this.#heightPx = heightPx
    const canvas = document.createElement('canvas')
    canvas.width = widthPx
    canvas.height = heightPx
    const pen = canvas.getContext('2d', { willReadFrequently: true })
    if (pen !== null) drawHoldingCard(pen, widthPx, heightPx, 'Back in a moment', '', 'system-ui, sans-serif')
    this.#pixels = pen?.getImageData(0, 0, widthPx, heightPx).data ?? new Uint8ClampedArray(widthPx * heightPx * 4).fill(40)
  }

  /** A new frame of it, as of now; the caller closes it. */
  frame(): VideoFrame {
    const timestamp = Math.round(performance.now() * 1000)
    return new VideoFrame(this.#pixels, { format: 'RGBX', codedWidth: this.#widthPx, codedHeight: this.#heightPx, timestamp })
  }
}
