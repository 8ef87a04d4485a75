// Solves the soft edge of a matte from the colours on both sides of it. Straight alpha; colours of clear
// pixels must still be the camera's.
import { placesInCells, type Between } from '../filter/bilinear.ts'
import { CB_PER_BLUE, CR_PER_RED, LUMA_B, LUMA_G, LUMA_R } from '../colour/luma.ts'
import { clamp01 } from '../picture/float-picture.ts'
import { levelled } from './levels.ts'
import { PullPush } from './pull-push.ts'

/** Colours from here on are surely the presenter, up to there surely the backdrop. */
export const SURE_FRONT = 0.98
export const SURE_BACK = 0.02
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
/** Spans shorter than a hundredth say nothing. */
const LEAST_SPAN_SQUARED = 1e-4

export interface EdgeLevels {
  /** Opacity, solved or not, up to `black` becomes 0, from `white` on 1. */
  readonly black: number
  readonly white: number
  /** 0 keeps the key's own opacity, 1 takes the solved one. */
  readonly amount: number
}

/**
 * For pictures of one size. With F the presenter's colour spread from where it is sure, and B the backdrop's:
 * α = (C − B)·(F − B) / |F − B|² in Y'CbCr (BT.709), where the key is unsure, or sure and bordering on what is unsure; there the
 * colour becomes (C − (1 − α)·B) / α, the compositing equation (Porter & Duff 1984) solved for F.
 */
export class EdgeSolver {
  readonly #widthPx: number
  readonly #heightPx: number
  readonly #front: PullPush
  readonly #back: PullPush
  readonly #columns: Between
  readonly #rows: Between
  /** 0 surely backdrop, 1 unsure, 2 surely presenter. */
  readonly #classes: Uint8Array
  /** Whether any of the three pixels about this one in its row is unsure or the presenter. */
  readonly #rowNear: Uint8Array

  constructor(widthPx: number, heightPx: number) {
    this.#widthPx = widthPx
    this.#heightPx = heightPx
    const columns = Math.ceil(widthPx / CELL_PX)
    const rows = Math.ceil(heightPx / CELL_PX)
    this.#front = new PullPush(columns, rows)
    this.#back = new PullPush(columns, rows)
    this.#columns = placesInCells(widthPx, CELL_PX)
    this.#rows = placesInCells(heightPx, CELL_PX)
    this.#classes = new Uint8Array(widthPx * heightPx)
    this.#rowNear = new Uint8Array(widthPx * heightPx)
  }

  /** Solves in place, values 0..1. Where one of the sides is nowhere sure there is nothing to solve by; levels apply all the same. */
  solve(data: Float64Array, levels: EdgeLevels): void {
    this.#classify(data)
    this.#gather(data)
    const front = this.#front.run()
    const back = this.#back.run()
    for (let y = 0; y < this.#heightPx; y += 1) {
      if (front !== null && back !== null) this.#solveRow(data, levels, front, back, y)
      else this.#levelRow(data, levels, y)
    }
  }

  #classify(data: Float64Array): void {
    const classes = this.#classes
    for (let i = 0, at = 3; i < classes.length; i += 1, at += 4) {
      const alpha = data[at]!
      classes[i] = alpha >= SURE_FRONT ? 2 : alpha <= SURE_BACK ? 0 : 1
    }
    const width = this.#widthPx
    const near = this.#rowNear
    for (let y = 0; y < this.#heightPx; y += 1) {
      const row = y * width
      for (let x = 0; x < width; x += 1) {
        const i = row + x
        near[i] = classes[i]! | (x > 0 ? classes[i - 1]! : 0) | (x < width - 1 ? classes[i + 1]! : 0)
      }
    }
  }

  /** Whether every pixel of the 3 × 3 about this one is surely the backdrop. */
  #isBack(i: number, y: number): boolean {
    const near = this.#rowNear
    const width = this.#widthPx
    return near[i] === 0 && (y === 0 || near[i - width] === 0) && (y === this.#heightPx - 1 || near[i + width] === 0)
  }

  #isFront(i: number, x: number, y: number): boolean {
    const { widthPx: width, heightPx: height } = { widthPx: this.#widthPx, heightPx: this.#heightPx }
    for (let dy = y > 0 ? -1 : 0; dy <= (y < height - 1 ? 1 : 0); dy += 1) {
      for (let dx = x > 0 ? -1 : 0; dx <= (x < width - 1 ? 1 : 0); dx += 1) if (this.#classes[i + dy * width + dx] !== 2) return false
    }
    return true
  }

  #levelRow(data: Float64Array, { black, white }: EdgeLevels, y: number): void {
    const end = (y + 1) * this.#widthPx * 4
    for (let at = y * this.#widthPx * 4 + 3; at < end; at += 4) data[at] = levelled(data[at]!, black, white)
  }

  #gather(data: Float64Array): void {
    const width = this.#widthPx
    const front = this.#front.sums
    const back = this.#back.sums
    front.data.fill(0)
    back.data.fill(0)
    for (let y = 0; y < this.#heightPx; y += SAMPLE_STEP) {
      const cellRow = Math.floor(y / CELL_PX) * front.columns
      for (let x = 0; x < width; x += SAMPLE_STEP) {
        const i = y * width + x
        const kind = this.#classes[i]!
        if (kind === 1) continue
        if (kind === 0 ? !this.#isBack(i, y) : !this.#isFront(i, x, y)) continue
        const sums = kind === 0 ? back.data : front.data
        const to = (cellRow + Math.floor(x / CELL_PX)) * 4
        sums[to]! += data[i * 4]!
        sums[to + 1]! += data[i * 4 + 1]!
        sums[to + 2]! += data[i * 4 + 2]!
        sums[to + 3]! += 1
      }
    }
  }

  #solveRow(data: Float64Array, levels: EdgeLevels, front: Float32Array, back: Float32Array, y: number): void {
    const width = this.#widthPx
    const { amount, black, white } = levels
    const top = this.#rows.below[y]! * this.#front.sums.columns
    const bottom = this.#rows.above[y]! * this.#front.sums.columns
    const shareY = this.#rows.share[y]!
    for (let x = 0; x < width; x += 1) {
      const i = y * width + x
      const isRim = this.#classes[i] === 2
      if ((isRim && this.#isFront(i, x, y)) || this.#isBack(i, y)) {
        data[i * 4 + 3] = levelled(data[i * 4 + 3]!, black, white)
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
      const at = i * 4
      const red = data[at]!
      const green = data[at + 1]!
      const blue = data[at + 2]!
      const along = projection(red - backRed, green - backGreen, blue - backBlue, spanRed, spanGreen, spanBlue)
      const solved = clamp01(isRim ? along / RIM_WHITE : along)
      const alpha = levelled(amount * solved + (1 - amount) * data[at + 3]!, black, white)
      data[at + 3] = alpha
      const divisor = alpha > LEAST_OPACITY ? alpha : LEAST_OPACITY
      const rest = 1 - alpha
      data[at] = clamp01((red - rest * backRed) / divisor)
      data[at + 1] = clamp01((green - rest * backGreen) / divisor)
      data[at + 2] = clamp01((blue - rest * backBlue) / divisor)
    }
  }
}

/** Share of the way along a span that a difference reaches, both taken to Y'CbCr. */
function projection(dr: number, dg: number, db: number, sr: number, sg: number, sb: number): number {
  const dy = LUMA_R * dr + LUMA_G * dg + LUMA_B * db
  const sy = LUMA_R * sr + LUMA_G * sg + LUMA_B * sb
  const dcb = (db - dy) * CB_PER_BLUE
  const scb = (sb - sy) * CB_PER_BLUE
  const dcr = (dr - dy) * CR_PER_RED
  const scr = (sr - sy) * CR_PER_RED
  const length = sy * sy + scb * scb + scr * scr
  return (dy * sy + dcb * scb + dcr * scr) / (length > LEAST_SPAN_SQUARED ? length : LEAST_SPAN_SQUARED)
}
