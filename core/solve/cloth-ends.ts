// Where the cloth ends at either side, or a lamp stand cuts it off from the presenter: what a crop should take away.
import type { Rgb } from '../colour/hex.ts'
import { CB_PER_BLUE, CR_PER_RED, luma709 } from '../colour/luma.ts'
import type { RgbaPicture } from '../picture/picture.ts'

/** Percent of the picture's width to cut off at each side; 0 where the cloth, or an earlier crop, reaches the side. */
export interface ClothEnds {
  readonly left: number
  readonly right: number
}

const STEP = 2
/** A column is cloth when so much of it is: a table or an arm may hide the rest. */
const CLOTH_SHARE = 0.5
/** A slanting edge is followed inwards until a column is as much cloth as the best one beside it, but for this share. */
const WHOLE = 0.97
const SLANT_SHARE = 0.08
/** Chroma along the cloth's, of its own strength, that counts as cloth however it is lit. */
const LIKE_CLOTH = 0.35
/** Columns of grain or creases within cloth that are not its end, and a strip of it that counts, in shares of the width. */
const GAP_SHARE = 0.006
const RUN_SHARE = 0.02
/** Nobody wants more cut off than this. */
const MOST_PERCENT = 35
const MARGIN_PERCENT = 0.5

/** Share of a column that is cloth; null for one that was cropped away. */
type Column = number | null

/** Follows the cloth from the presenter outwards. Null when neither side needs a crop, or when it cannot be told. */
export function clothEnds(picture: RgbaPicture, cloth: Rgb): ClothEnds | null {
  const columns = clothColumns(picture, cloth)
  const middle = presenterColumn(columns)
  const left = sideEnd(columns, middle, -1)
  const right = sideEnd(columns, middle, 1)
  if (left === null || right === null || left + right === 0 || Math.max(left, right) > MOST_PERCENT) return null
  return { left, right }
}

function clothColumns({ widthPx, heightPx, data }: RgbaPicture, cloth: Rgb): Column[] {
  const luma = luma709(...cloth)
  const keyCb = (cloth[2] - luma) * CB_PER_BLUE
  const keyCr = (cloth[0] - luma) * CR_PER_RED
  const strength = keyCb * keyCb + keyCr * keyCr
  const columns: Column[] = []
  for (let x = 0; x < widthPx; x += STEP) {
    let seen = 0
    let like = 0
    for (let y = 0; y < heightPx; y += STEP) {
      const at = (y * widthPx + x) * 4
      if (data[at + 3]! < 128) continue
      seen += 1
      const red = data[at]! / 255
      const blue = data[at + 2]! / 255
      const y709 = luma709(red, data[at + 1]! / 255, blue)
      const along = ((blue - y709) * CB_PER_BLUE * keyCb + (red - y709) * CR_PER_RED * keyCr) / strength
      if (along > LIKE_CLOTH) like += 1
    }
    columns.push(seen === 0 ? null : like / seen)
  }
  return columns
}

const isCloth = (column: Column | undefined) => column !== null && column !== undefined && column >= CLOTH_SHARE

/** The middle of what stands before the cloth: the centre of the widest run without cloth that has cloth at both sides; else the middle. */
function presenterColumn(columns: readonly Column[]): number {
  const first = columns.findIndex(isCloth)
  const last = columns.findLastIndex(isCloth)
  let best = { from: Math.floor(columns.length / 2), length: 0 }
  let from = -1
  for (let i = first; i >= 0 && i <= last; i += 1) {
    if (!isCloth(columns[i]) && from < 0) from = i
    if (isCloth(columns[i]) && from >= 0) {
      if (i - from > best.length) best = { from, length: i - from }
      from = -1
    }
  }
  return best.from + Math.floor(best.length / 2)
}

/** Percent to cut off at one side; null when there is no cloth. */
function sideEnd(columns: readonly Column[], middle: number, way: -1 | 1): number | null {
  const last = lastClothColumn(columns, middle, way)
  if (last === null) return null
  const beside = Array.from({ length: Math.round(columns.length * SLANT_SHARE) }, (_, i) => columns[last - way * i] ?? 0)
  const whole = Math.max(...beside) * WHOLE
  const end = last - way * beside.findIndex((share) => share >= whole)
  const outside = way === -1 ? columns.slice(0, end) : columns.slice(end + 1)
  const shown = outside.filter((column) => column !== null).length
  // One column more or less is the picture's own edge.
  if (shown <= 1) return 0
  return Math.ceil(((outside.length / columns.length) * 100 + MARGIN_PERCENT) * 2) / 2
}

/** From the presenter to one side: the last column of the cloth that begins beside the presenter. */
function lastClothColumn(columns: readonly Column[], middle: number, way: -1 | 1): number | null {
  const gap = Math.max(1, Math.round(columns.length * GAP_SHARE))
  const run = Math.max(2, Math.round(columns.length * RUN_SHARE))
  let end: number | null = null
  let length = 0
  let missed = 0
  for (let i = middle; i >= 0 && i < columns.length; i += way) {
    if (isCloth(columns[i])) {
      length += 1
      missed = 0
      end = i
    } else if (end !== null) {
      missed += 1
      if (missed <= gap) continue
      if (length >= run) break
      // Too thin to be the cloth: a gap between arm and body.
      end = null
      length = 0
    }
  }
  return end
}
