// A source whose rows are cleaned when somebody reads them; the whole picture is never written.
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

/** Rows of one picture; the last two that were read are at hand. */
export class TreatedRows implements RowPicture {
  readonly widthPx: number
  readonly heightPx: number
  readonly #rows: RowTreater
  readonly #picture: Picture
  readonly #pictureAt: number
  readonly #run: Run
  readonly #memo: ColourMemo | null
  readonly #columns: readonly [number, number]
  readonly #lines: readonly [number, number]
  /** Which row lies in each line. */
  readonly #held: [number, number] = [-1, -1]
  #lastUsed: 0 | 1 = 1

  /** `columns`: the first that is read and the one after the last. `spaces`: room for two rows that nobody else writes meanwhile. */
  constructor(
    { rows, tables }: TreatingTools,
    picture: Picture,
    pictureAt: number,
    run: Run,
    columns: readonly [number, number],
    spaces: readonly [RowSpace, RowSpace],
  ) {
    this.widthPx = picture.widthPx
    this.heightPx = picture.heightPx
    this.#rows = rows
    this.#picture = picture
    this.#pictureAt = pictureAt
    this.#run = run
    this.#memo = tables.tableOf(run, spaceOf(picture), 'premultiplied')
    this.#columns = columns
    this.#lines = [spaces[0].at(picture.widthPx), spaces[1].at(picture.widthPx)]
  }

  rowAt(y: number): number {
    const held = this.#held[0] === y ? 0 : this.#held[1] === y ? 1 : null
    const slot = held ?? (this.#lastUsed === 0 ? 1 : 0)
    this.#lastUsed = slot
    const line = this.#lines[slot]
    if (held === null) {
      const [first, end] = this.#columns
      this.#rows.treat(this.#picture, this.#pictureAt, this.#memo, this.#run.keep, y, line, 'premultiplied', first, end)
      this.#held[slot] = y
    }
    return line
  }
}
