// Films with see-through parts, or with pixels that are not square: put together on a canvas by the demuxer's own sink.
import { CanvasSink, type InputVideoTrack } from 'mediabunny'
import type { ClipPicture, MovingPictures, PlayedPart, TakeBuffer } from './moving-pictures.ts'

type Drawn = Awaited<ReturnType<CanvasSink['getCanvas']>>

export class DrawnFilm implements MovingPictures {
  readonly durationUs: number
  readonly cutOff = null
  readonly #sink: CanvasSink
  #part: PlayedPart = { fromUs: 0, toUs: 0, loops: true }
  #lap = 0
  #turn = 0
  #pictures: AsyncGenerator<Drawn, void, unknown> | null = null

  constructor(track: InputVideoTrack, durationUs: number) {
    this.durationUs = durationUs
    this.#sink = new CanvasSink(track, { alpha: true, poolSize: 2 })
  }

  seek(part: PlayedPart): void {
    this.#turn += 1
    this.#part = part
    this.#lap = 0
    void this.#pictures?.return()
    this.#pictures = this.#begin()
  }

  async skip(): Promise<number | null> {
    const turn = this.#turn
    const next = await this.#pictures?.next()
    return next === undefined || next.done === true || !next.value || turn !== this.#turn ? null : next.value.timestamp * 1e6
  }

  async next(take: TakeBuffer): Promise<ClipPicture | null> {
    const turn = this.#turn
    for (;;) {
      if (this.#pictures === null) return null
      const { value, done } = await this.#pictures.next()
      if (turn !== this.#turn) return null
      if (done !== true && value) return { lap: this.#lap, mediaUs: Math.max(this.#part.fromUs, value.timestamp * 1e6), picture: pictureOf(value.canvas, take) }
      if (!this.#part.loops) return null
      this.#lap += 1
      this.#pictures = this.#begin()
    }
  }

  close(): void {
    this.#turn += 1
    void this.#pictures?.return()
    this.#pictures = null
  }

  #begin(): AsyncGenerator<Drawn, void, unknown> {
    return this.#sink.canvases(this.#part.fromUs / 1e6, this.#part.toUs / 1e6)
  }
}

function pictureOf(canvas: HTMLCanvasElement | OffscreenCanvas, take: TakeBuffer): ClipPicture['picture'] {
  const { width: widthPx, height: heightPx } = canvas
  const pen = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D | null
  if (pen === null) throw new Error('this browser refused a 2-D canvas')
  const data = take(widthPx * heightPx * 4)
  data.set(pen.getImageData(0, 0, widthPx, heightPx).data)
  return { format: 'rgba', widthPx, heightPx, data }
}
