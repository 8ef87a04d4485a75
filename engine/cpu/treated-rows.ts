// A source whose rows are treated when they are read; the whole picture is never stored.
import type { Picture } from '../../core/picture/picture.ts'
import type { Run } from '../../core/steps/chain.ts'
import { spaceOf } from './chain-runner.ts'
import type { ColourMemo } from './colour-memo.ts'
import type { RowSpace } from './row-blender.ts'
import type { RowTreater } from './row-treater.ts'
import type { RowPicture } from './scaled-rows.ts'
import type { TableCache } from './table-cache.ts'

export interface TreatingTools {
  readonly rows: RowTreater
  readonly tables: TableCache
}

/** Rows of one picture; the last that were read are at hand. */
export class TreatedRows implements RowPicture {
  readonly widthPx: number
  readonly heightPx: number
  readonly #rows: RowTreater
  readonly #picture: Picture
  readonly #pictureAt: number
  readonly #run: Run
  readonly #memo: ColourMemo | null
  readonly #columns: readonly [number, number]
  readonly #lines: readonly number[]
  /** Which row lies in each line. */
  readonly #held: number[]
  /** When each was asked for. */
  readonly #used: number[]
  #asked = 0

  /** `columns`: the first that is read and the one after the last. `spaces`: room for as many rows as are read at once, that nobody else writes meanwhile. */
  constructor({ rows, tables }: TreatingTools, picture: Picture, pictureAt: number, run: Run, columns: readonly [number, number], spaces: readonly RowSpace[]) {
    this.widthPx = picture.widthPx
    this.heightPx = picture.heightPx
    this.#rows = rows
    this.#picture = picture
    this.#pictureAt = pictureAt
    this.#run = run
    this.#memo = tables.tableOf(run, spaceOf(picture), 'premultiplied')
    this.#columns = columns
    this.#lines = spaces.map((space) => space.at(picture.widthPx))
    this.#held = spaces.map(() => -1)
    this.#used = spaces.map(() => 0)
  }

  rowAt(y: number): number {
    const held = this.#held.indexOf(y)
    const slot = held >= 0 ? held : this.#used.indexOf(Math.min(...this.#used))
    this.#used[slot] = this.#asked += 1
    const line = this.#lines[slot]!
    if (held < 0) {
      const [first, end] = this.#columns
      this.#rows.treat(this.#picture, this.#pictureAt, this.#memo, this.#run.keep, y, line, 'premultiplied', first, end)
      this.#held[slot] = y
    }
    return line
  }
}
