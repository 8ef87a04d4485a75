// Spreads colours that are known here and there over the whole picture: sums are pulled up a pyramid
// of halves, then pushed down, each level filling only what the finer one does not know (Gortler et al. 1996).

/** Colour sums in cells: red, green, blue and weight in samples per cell. */
export interface CellSums {
  readonly columns: number
  readonly rows: number
  readonly data: Float32Array
}

/** So many samples make a cell trust its own mean fully. */
export const FULL_TRUST = 6
/** So many samples in the whole picture make all that is known trusted fully. */
export const FULL_KNOWLEDGE = 64

/** Levels of one size, reused from frame to frame. */
export class PullPush {
  readonly sums: CellSums
  readonly #levels: { readonly columns: number; readonly rows: number; readonly sums: Float32Array; readonly colours: Float32Array }[] = []

  constructor(columns: number, rows: number) {
    let width = columns
    let height = rows
    for (;;) {
      this.#levels.push({ columns: width, rows: height, sums: new Float32Array(width * height * 4), colours: new Float32Array(width * height * 3) })
      if (width === 1 && height === 1) break
      width = (width + 1) >> 1
      height = (height + 1) >> 1
    }
    this.sums = { columns, rows, data: this.#levels[0]!.sums }
  }

  /** How far all that is known is trusted, 0..1, after `run`: little that is known anywhere must not count like much. */
  get trust(): number {
    return Math.min(1, this.#levels.at(-1)!.sums[3]! / FULL_KNOWLEDGE)
  }

  /** The spread colours, three a cell, of what `sums.data` holds; null when no cell holds anything. */
  run(): Float32Array | null {
    for (let level = 1; level < this.#levels.length; level += 1) this.#pull(level)
    const top = this.#levels.at(-1)!
    const count = top.sums[3]!
    if (count === 0) return null
    for (let channel = 0; channel < 3; channel += 1) top.colours[channel] = top.sums[channel]! / count
    for (let level = this.#levels.length - 2; level >= 0; level -= 1) this.#push(level)
    return this.#levels[0]!.colours
  }

  #pull(level: number): void {
    const fine = this.#levels[level - 1]!
    const coarse = this.#levels[level]!
    coarse.sums.fill(0)
    for (let y = 0; y < fine.rows; y += 1) {
      for (let x = 0; x < fine.columns; x += 1) {
        const from = (y * fine.columns + x) * 4
        const to = ((y >> 1) * coarse.columns + (x >> 1)) * 4
        for (let channel = 0; channel < 4; channel += 1) coarse.sums[to + channel]! += fine.sums[from + channel]!
      }
    }
  }

  #push(level: number): void {
    const fine = this.#levels[level]!
    const coarse = this.#levels[level + 1]!
    for (let y = 0; y < fine.rows; y += 1) {
      const atY = Math.min(coarse.rows - 1, Math.max(0, (y + 0.5) / 2 - 0.5))
      const top = Math.floor(atY)
      const bottom = Math.min(coarse.rows - 1, top + 1)
      const shareY = atY - top
      for (let x = 0; x < fine.columns; x += 1) {
        const atX = Math.min(coarse.columns - 1, Math.max(0, (x + 0.5) / 2 - 0.5))
        const left = Math.floor(atX)
        const right = Math.min(coarse.columns - 1, left + 1)
        const shareX = atX - left
        const cell = y * fine.columns + x
        const count = fine.sums[cell * 4 + 3]!
        const trust = count >= FULL_TRUST ? 1 : count / FULL_TRUST
        for (let channel = 0; channel < 3; channel += 1) {
          const upper =
            coarse.colours[(top * coarse.columns + left) * 3 + channel]! * (1 - shareX) + coarse.colours[(top * coarse.columns + right) * 3 + channel]! * shareX
          const lower =
            coarse.colours[(bottom * coarse.columns + left) * 3 + channel]! * (1 - shareX) +
            coarse.colours[(bottom * coarse.columns + right) * 3 + channel]! * shareX
          const guess = upper * (1 - shareY) + lower * shareY
          const own = count > 0 ? fine.sums[cell * 4 + channel]! / count : 0
          fine.colours[cell * 3 + channel] = trust * own + (1 - trust) * guess
        }
      }
    }
  }
}
