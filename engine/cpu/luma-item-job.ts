// An item that is uncovered where another picture is dark: its mask changes with every frame of the transition.
import { LUMA_B, LUMA_G, LUMA_R } from '../../core/colour/luma.ts'
import type { LumaReveal } from '../../core/composite/coverage.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import type { Item } from '../../core/plan/frame-plan.ts'
import type { HeapCanvas } from './heap-canvas.ts'
import { ItemJob, type JobPicture, type JobTools } from './item-job.ts'
import type { Kept } from './surface-store.ts'
import type { HeapPicture } from './treatments.ts'

/** Entries of the table from lumas to shares. */
const SHARES = 256

/** The picture that uncovers an item. */
export interface Veil {
  /** Names what it shows now. */
  readonly key: () => string
  readonly picture: () => HeapPicture
}

export class LumaItemJob extends ItemJob {
  readonly #tools: JobTools
  readonly #reveal: LumaReveal
  readonly #veil: Veil
  /** What a luma uncovers, 0..255. */
  readonly #shares = new Uint8Array(SHARES)
  #lumas: Kept | null = null

  constructor(tools: JobTools, item: Item, reveal: LumaReveal, veil: Veil) {
    super(tools, { ...item, coverage: { ...item.coverage, reveal: null } }, false)
    this.#tools = tools
    this.#reveal = reveal
    this.#veil = veil
    for (let luma = 0; luma < SHARES; luma += 1) {
      this.#shares[luma] = Math.round(255 * Math.min(1, Math.max(0, (reveal.level - luma / 255) * reveal.slope + 0.5)))
    }
  }

  /** The node of the plan that uncovers the item. */
  get veilNode(): number {
    return this.#reveal.node
  }

  override run(picture: JobPicture | null, base: HeapCanvas, out: HeapCanvas, clip: PixelRect): void {
    this.#lumas = this.#lumasNow()
    super.run(picture, base, out, clip)
  }

  /** Thins each row by what the other picture uncovers of it. */
  protected override thin(line: number, y: number, left: number, right: number): number {
    const { heap, veil, thin } = this.#tools
    const { bounds } = this.item
    const count = right - left
    // The table lies before the row that it makes.
    const mask = veil.at((count + SHARES) / 4 + 1)
    heap.bytes.set(this.#shares, mask)
    const from = this.#lumas!.block.at + (y - bounds.top) * (bounds.right - bounds.left) + left - bounds.left
    heap.kernels.mapBytes(from, mask + SHARES, count, mask)
    const to = thin.at(count)
    heap.kernels.thinRow(line, mask + SHARES, to, count)
    return to
  }

  /** The lumas of the bounds' pixels; worked out again only for another picture. */
  #lumasNow(): Kept {
    const { surfaces } = this.#tools.treatments
    const { left, top, right, bottom } = this.item.bounds
    const { a, b, c, d, e, f } = this.#reveal.toNode
    const key = `lumas ${left},${top},${right},${bottom} ${a},${b},${c},${d},${e},${f} ${this.#veil.key()}`
    const known = surfaces.find(key)
    if (known !== undefined) return known
    const picture = this.#veil.picture()
    const kept = surfaces.keep(key, Math.max(1, (right - left) * (bottom - top)), null)
    this.#write(picture, kept.block.at)
    return kept
  }

  #write({ at, widthPx, heightPx }: HeapPicture, to: number): void {
    const { bytes } = this.#tools.heap
    const { left, top, right, bottom } = this.item.bounds
    const { a, b, c, d, e, f } = this.#reveal.toNode
    const lumaAt = (x: number, y: number) => {
      const pixel = at + (y * widthPx + x) * 4
      return bytes[pixel]! * LUMA_R + bytes[pixel + 1]! * LUMA_G + bytes[pixel + 2]! * LUMA_B
    }
    let next = to
    for (let y = top; y < bottom; y += 1) {
      for (let x = left; x < right; x += 1) {
        const atX = Math.min(widthPx - 1, Math.max(0, a * (x + 0.5) + c * (y + 0.5) + e - 0.5))
        const atY = Math.min(heightPx - 1, Math.max(0, b * (x + 0.5) + d * (y + 0.5) + f - 0.5))
        const near = Math.floor(atX)
        const above = Math.floor(atY)
        const far = Math.min(widthPx - 1, near + 1)
        const below = Math.min(heightPx - 1, above + 1)
        const upper = lumaAt(near, above) * (1 - atX + near) + lumaAt(far, above) * (atX - near)
        const lower = lumaAt(near, below) * (1 - atX + near) + lumaAt(far, below) * (atX - near)
        bytes[next] = Math.round(upper * (1 - atY + above) + lower * (atY - above))
        next += 1
      }
    }
  }
}
