// Draws the strokes of surfaces: told what changed, it says what looks different.
import { StrokesCanvas, strokePicture, type DrawnPicture } from '../../core/drawing/strokes-canvas.ts'
import type { Stroke } from '../../core/drawing/stroke.ts'

/** What is to be seen on a surface. */
export interface StrokesRequest {
  /** Names the surface. */
  readonly key: string
  readonly widthPx: number
  readonly heightPx: number
  /** Strokes that the painter does not have, or has otherwise. */
  readonly put: readonly Stroke[]
  /** Ids of those drawn as one picture, from the lowest to the topmost; null: as before. */
  readonly lasting: readonly string[] | null
  /** Ids of those that are pictures of their own. */
  readonly alone: readonly string[]
}

export interface StrokesAnswer {
  readonly key: string
  /** Undefined: as before. Null: nothing. */
  readonly lasting: DrawnPicture | null | undefined
  /** Of strokes that were put and are pictures of their own. */
  readonly alone: readonly (readonly [id: string, drawn: DrawnPicture | null])[]
}

interface Painted {
  readonly canvas: StrokesCanvas
  strokes: ReadonlyMap<string, Stroke>
}

export class StrokePainter {
  readonly #surfaces = new Map<string, Painted>()

  /** Paints what a request changes. A surface without strokes is forgotten. */
  paint({ key, widthPx, heightPx, put, lasting, alone }: StrokesRequest): StrokesAnswer {
    const surface = this.#surfaceFor(key, widthPx, heightPx)
    const strokes = new Map([...surface.strokes, ...put.map((stroke) => [stroke.id, stroke] as const)])
    const found = (ids: readonly string[]) => ids.flatMap((id) => strokes.get(id) ?? [])
    const isChanged = lasting !== null && surface.canvas.show(found(lasting))
    const kept = lasting === null ? [...strokes.values()] : [...found(lasting), ...found(alone)]
    surface.strokes = new Map(kept.map((stroke) => [stroke.id, stroke]))
    if (kept.length === 0) this.#surfaces.delete(key)
    return {
      key,
      lasting: isChanged ? surface.canvas.picture() : undefined,
      alone: put.filter(({ id }) => alone.includes(id)).map((stroke) => [stroke.id, strokePicture(stroke, widthPx, heightPx)] as const),
    }
  }

  #surfaceFor(key: string, widthPx: number, heightPx: number): Painted {
    const known = this.#surfaces.get(key)
    if (known?.canvas.widthPx === widthPx && known.canvas.heightPx === heightPx) return known
    const made: Painted = { canvas: new StrokesCanvas(widthPx, heightPx), strokes: known?.strokes ?? new Map() }
    this.#surfaces.set(key, made)
    return made
  }
}
