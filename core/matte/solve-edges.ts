// Solves the soft edge of a matte from the colours on both sides of it. Straight alpha; colours of clear
// pixels must still be the camera's.
import { placesInCells, type Between } from '../filter/bilinear.ts'
import { CB_PER_BLUE, CR_PER_RED, LUMA_B, LUMA_G, LUMA_R } from '../colour/luma.ts'
import { clamp01 } from '../picture/float-picture.ts'
import { levelled } from './levels.ts'
import { PullPush } from './pull-push.ts'

/**
 * Opacity at which a pixel begins to count as surely the presenter, and from which it counts in full; as surely the backdrop, the
 * same distances from clear. Between them it counts by share: with a single threshold, a rounding of the picture by one code would
 * move whole parts of the matte.
 */
export const SURE_FROM = 0.92
export const SURE_FRONT = 0.98
/**
 * A pixel that the key takes for surely the presenter, but that borders on one it does not, is solved, too: a key sees little of a
 * backdrop that shows through by a tenth. Solved opacity from here on is opaque there, so that grain makes no holes in a solid edge.
 */
export const RIM_WHITE = 0.8
/** Every second pixel of every second row is enough to know a colour by. */
export const SAMPLE_STEP = 2
export const CELL_PX = 8
/** Below this opacity, dividing by it would only amplify noise. */
const LEAST_OPACITY = 0.1

export interface EdgeLevels {
  /** Opacity, solved or not, up to `black` becomes 0, from `white` on 1. */
  readonly black: number
  readonly white: number
  /** 0 keeps the key's own opacity, 1 takes the solved one. */
  readonly amount: number
}

/** Lengths of the span between both colours, squared: up to the first the solved opacity counts for nothing, from the second on in full. */
export const SPAN_FROM = 1e-3
export const SPAN_FULL = 1e-2
/** A colour that lies this far beside the span, squared and in shares of the span's square, is trusted by half. */
export const ASIDE = 0.6

/** How surely a pixel is the presenter, 0..1, by its opacity. As surely it is the backdrop by what it lacks of being opaque. */
export function sureness(alpha: number): number {
  return clamp01((alpha - SURE_FROM) / (SURE_FRONT - SURE_FROM))
}

/** How much a pixel's colour counts for its side, 0..1: only the surest do, or the other side would bleed into it. */
export function sampleWeight(surely: number): number {
  return clamp01(6 * surely - 5)
}

/**
 * For pictures of one size. With F the presenter's colour spread from where it is sure, and B the backdrop's:
 * α = (C − B)·(F − B) / |F − B|² in Y'CbCr (BT.709), as far as the key is unsure, or sure and bordering on what is unsure; there the
 * colour becomes (C − (1 − α)·B) / α, the compositing equation (Porter & Duff 1984) solved for F. All weights rise without a step, so
 * that a small difference in the picture makes a small one in the matte.
 */
export class EdgeSolver {
  readonly #widthPx: number
  readonly #heightPx: number
  readonly #front: PullPush
  readonly #back: PullPush
  readonly #columns: Between
  readonly #rows: Between
  /** How surely all of the 3 × 3 about a pixel is the presenter, and the backdrop. */
  readonly #surelyFront: Float64Array
  readonly #surelyBack: Float64Array
  readonly #least: Float64Array
  readonly #most: Float64Array

  constructor(widthPx: number, heightPx: number) {
    this.#widthPx = widthPx
    this.#heightPx = heightPx
    const columns = Math.ceil(widthPx / CELL_PX)
    const rows = Math.ceil(heightPx / CELL_PX)
    this.#front = new PullPush(columns, rows)
    this.#back = new PullPush(columns, rows)
    this.#columns = placesInCells(widthPx, CELL_PX)
    this.#rows = placesInCells(heightPx, CELL_PX)
    const plane = () => new Float64Array(widthPx * heightPx)
    this.#surelyFront = plane()
    this.#surelyBack = plane()
    this.#least = plane()
    this.#most = plane()
  }

  /** Solves in place, values 0..1. Where one of the sides is nowhere sure there is nothing to solve by; levels apply all the same. */
  solve(data: Float64Array, levels: EdgeLevels): void {
    this.#judge(data)
    this.#gather(data)
    const front = this.#front.run()
    const back = this.#back.run()
    const trust = front === null || back === null ? 0 : this.#front.trust * this.#back.trust
    for (let y = 0; y < this.#heightPx; y += 1) {
      if (front !== null && back !== null) this.#solveRow(data, levels, trust, front, back, y)
      else this.#levelRow(data, levels, y)
    }
  }

  #judge(data: Float64Array): void {
    const width = this.#widthPx
    const height = this.#heightPx
    const alphaAt = (x: number, y: number) => data[(y * width + Math.min(width - 1, Math.max(0, x))) * 4 + 3]!
    for (let i = 0; i < width * height; i += 1) {
      const x = i % width
      const y = (i - x) / width
      this.#least[i] = Math.min(alphaAt(x - 1, y), alphaAt(x, y), alphaAt(x + 1, y))
      this.#most[i] = Math.max(alphaAt(x - 1, y), alphaAt(x, y), alphaAt(x + 1, y))
    }
    for (let i = 0; i < width * height; i += 1) {
      const above = i < width ? i : i - width
      const below = i < (height - 1) * width ? i + width : i
      this.#surelyFront[i] = sureness(Math.min(this.#least[above]!, this.#least[i]!, this.#least[below]!))
      this.#surelyBack[i] = sureness(1 - Math.max(this.#most[above]!, this.#most[i]!, this.#most[below]!))
    }
  }

  #levelRow(data: Float64Array, { black, white }: EdgeLevels, y: number): void {
    const end = (y + 1) * this.#widthPx * 4
    for (let at = y * this.#widthPx * 4 + 3; at < end; at += 4) data[at] = levelled(data[at]!, black, white)
  }

  #gather(data: Float64Array): void {
    const width = this.#widthPx
    this.#front.sums.data.fill(0)
    this.#back.sums.data.fill(0)
    for (let y = 0; y < this.#heightPx; y += SAMPLE_STEP) {
      const cellRow = Math.floor(y / CELL_PX) * this.#front.sums.columns
      for (let x = 0; x < width; x += SAMPLE_STEP) {
        const i = y * width + x
        const to = (cellRow + Math.floor(x / CELL_PX)) * 4
        addWeighted(this.#front.sums.data, to, data, i * 4, sampleWeight(this.#surelyFront[i]!))
        addWeighted(this.#back.sums.data, to, data, i * 4, sampleWeight(this.#surelyBack[i]!))
      }
    }
  }

  #solveRow(data: Float64Array, levels: EdgeLevels, trust: number, front: Float32Array, back: Float32Array, y: number): void {
    const width = this.#widthPx
    const { amount, black, white } = levels
    const top = this.#rows.below[y]! * this.#front.sums.columns
    const bottom = this.#rows.above[y]! * this.#front.sums.columns
    const shareY = this.#rows.share[y]!
    for (let x = 0; x < width; x += 1) {
      const i = y * width + x
      const at = i * 4
      const key = data[at + 3]!
      const unsure = trust * (1 - Math.max(this.#surelyFront[i]!, this.#surelyBack[i]!))
      if (unsure === 0) {
        data[at + 3] = levelled(key, black, white)
        continue
      }
      const left = this.#columns.below[x]!
      const right = this.#columns.above[x]!
      const shareX = this.#columns.share[x]!
      const a = (top + left) * 3
      const b = (top + right) * 3
      const c = (bottom + left) * 3
      const d = (bottom + right) * 3
      const wa = (1 - shareX) * (1 - shareY)
      const wb = shareX * (1 - shareY)
      const wc = (1 - shareX) * shareY
      const wd = shareX * shareY
      const backRed = back[a]! * wa + back[b]! * wb + back[c]! * wc + back[d]! * wd
      const backGreen = back[a + 1]! * wa + back[b + 1]! * wb + back[c + 1]! * wc + back[d + 1]! * wd
      const backBlue = back[a + 2]! * wa + back[b + 2]! * wb + back[c + 2]! * wc + back[d + 2]! * wd
      const spanRed = front[a]! * wa + front[b]! * wb + front[c]! * wc + front[d]! * wd - backRed
      const spanGreen = front[a + 1]! * wa + front[b + 1]! * wb + front[c + 1]! * wc + front[d + 1]! * wd - backGreen
      const spanBlue = front[a + 2]! * wa + front[b + 2]! * wb + front[c + 2]! * wc + front[d + 2]! * wd - backBlue
      const red = data[at]!
      const green = data[at + 1]!
      const blue = data[at + 2]!
      const { share, confidence } = along(red - backRed, green - backGreen, blue - backBlue, spanRed, spanGreen, spanBlue)
      const weight = unsure * confidence
      const solved = clamp01(share / (1 - sureness(key) * (1 - RIM_WHITE)))
      const alpha = levelled(key + amount * weight * (solved - key), black, white)
      data[at + 3] = alpha
      const divisor = Math.max(LEAST_OPACITY, alpha)
      const rest = 1 - alpha
      data[at] = red + weight * (clamp01((red - rest * backRed) / divisor) - red)
      data[at + 1] = green + weight * (clamp01((green - rest * backGreen) / divisor) - green)
      data[at + 2] = blue + weight * (clamp01((blue - rest * backBlue) / divisor) - blue)
    }
  }
}

function addWeighted(sums: Float32Array, to: number, data: Float64Array, at: number, weight: number): void {
  if (weight === 0) return
  for (let channel = 0; channel < 3; channel += 1) sums[to + channel]! += weight * data[at + channel]!
  sums[to + 3]! += weight
}

/**
 * Share of the way along a span that a difference reaches, both taken to Y'CbCr; and how much that says, 0..1: little where the span is
 * short, and where the difference points elsewhere, since then no mixture of the two sides makes this colour.
 */
function along(dr: number, dg: number, db: number, sr: number, sg: number, sb: number): { readonly share: number; readonly confidence: number } {
  const dy = LUMA_R * dr + LUMA_G * dg + LUMA_B * db
  const sy = LUMA_R * sr + LUMA_G * sg + LUMA_B * sb
  const dcb = (db - dy) * CB_PER_BLUE
  const scb = (sb - sy) * CB_PER_BLUE
  const dcr = (dr - dy) * CR_PER_RED
  const scr = (sr - sy) * CR_PER_RED
  const squared = sy * sy + scb * scb + scr * scr
  const length = Math.max(SPAN_FROM, squared)
  const share = (dy * sy + dcb * scb + dcr * scr) / length
  const aside = (dy * dy + dcb * dcb + dcr * dcr - share * share * squared) / (length * ASIDE)
  return { share, confidence: clamp01((squared - SPAN_FROM) / (SPAN_FULL - SPAN_FROM)) / (1 + aside * aside) }
}
