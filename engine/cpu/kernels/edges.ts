// AssemblyScript, compiled into kernels.wasm beside kernels.ts. The soft edge of a matte solved from the colours on
// both sides of it: the loops of core/matte/solve-edges.ts. Packed RGBA, straight alpha, red in the low byte.

import { byteOf, packedOf } from './packed'

/** Bytes of alpha of a row of packed pixels; runs into slack. */
export function alphaBytes(pixels: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 16) {
    const at = pixels + (i << 2)
    const low = v128.shuffle<u8>(v128.load(at), v128.load(at + 16), 3, 7, 11, 15, 19, 23, 27, 31, 0, 0, 0, 0, 0, 0, 0, 0)
    const high = v128.shuffle<u8>(v128.load(at + 32), v128.load(at + 48), 3, 7, 11, 15, 19, 23, 27, 31, 0, 0, 0, 0, 0, 0, 0, 0)
    v128.store(out + i, v128.shuffle<u8>(low, high, 0, 1, 2, 3, 4, 5, 6, 7, 16, 17, 18, 19, 20, 21, 22, 23))
  }
}

/** Largest (isLargest) or smallest byte of three in a row; needs one byte of room at both sides. */
export function extremeOfThree(row: usize, out: usize, count: i32, isLargest: bool): void {
  store<u8>(row - 1, load<u8>(row))
  store<u8>(row + count, load<u8>(row + count - 1))
  for (let i = 0; i < count; i += 16) {
    const middle = v128.load(row + i)
    const left = v128.load(row + i - 1)
    const right = v128.load(row + i + 1)
    v128.store(out + i, isLargest ? i8x16.max_u(middle, i8x16.max_u(left, right)) : i8x16.min_u(middle, i8x16.min_u(left, right)))
  }
}

/**
 * How surely all of a pixel's neighbours are the presenter (`isFront`; three rows of the least opacity) or the backdrop (rows of the
 * largest), 0..255: `sureness` of core/matte/solve-edges.ts, which is 16⅔ · (opacity − 234.6) in codes.
 */
export function surelyRow(above: usize, row: usize, below: usize, out: usize, count: i32, isFront: bool): void {
  const slope = i16x8.splat(67)
  const start = i16x8.splat(15716)
  for (let i = 0; i < count; i += 16) {
    const middle = v128.load(row + i)
    const upper = v128.load(above + i)
    const lower = v128.load(below + i)
    const code = isFront ? i8x16.min_u(middle, i8x16.min_u(upper, lower)) : v128.not(i8x16.max_u(middle, i8x16.max_u(upper, lower)))
    const low = i16x8.shr_s(i16x8.sub(i16x8.mul(i16x8.extend_low_i8x16_u(code), slope), start), 2)
    const high = i16x8.shr_s(i16x8.sub(i16x8.mul(i16x8.extend_high_i8x16_u(code), slope), start), 2)
    v128.store(out + i, i8x16.narrow_i16x8_u(low, high))
  }
}

/**
 * Adds the colours of every second pixel of a row, weighted by `sampleWeight` of core/matte/solve-edges.ts of how surely they are wanted
 * (0..255), to cells of eight: four floats a cell.
 */
export function gatherRow(pixels: usize, surely: usize, count: i32, sums: usize): void {
  for (let i = 0; i < count; i += 8) {
    const eight = load<u64>(surely + i)
    if (eight == 0) continue
    let sum = f32x4.splat(0)
    for (let k = 0; k < 8 && i + k < count; k += 2) {
      const weight = (<i32>load<u8>(surely + i + k)) * 6 - 1275
      if (weight <= 0) continue
      const packed = v128.load32_zero(pixels + ((i + k) << 2))
      const colour = f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(packed)))
      sum = f32x4.add(sum, f32x4.mul(f32x4.replace_lane(colour, 3, 1), f32x4.splat(<f32>weight / 255)))
    }
    const cell = sums + ((i >>> 3) << 4)
    v128.store(cell, f32x4.add(v128.load(cell), sum))
  }
}

/**
 * Solves the pixels of a row as far as they are neither surely the presenter (`inside`, 0..255) nor surely the backdrop (`back`), and as
 * far as both sides are trusted (`trust`, 0..1); what is solved on the presenter's rim counts as opaque from `rim` on. `front` and
 * `behind` are rows of cells, four floats each, already mixed between two; `cells` and `shares` place each pixel. Opacity passes through
 * the levels `black` and `white`; that of sure pixels through `levels`, the same as a table of 256 bytes.
 */
export function solveEdgeRow(
  pixels: usize, back: usize, inside: usize, count: i32, trust: f32, front: usize, behind: usize,
  cells: usize, shares: usize, lastCell: i32, levels: usize, black: f32, white: f32, rim: f32, amount: f32,
): void {
  // Equal ends make a step.
  const span = white > black ? <f32>1 / (white - black) : <f32>1e6
  const keepsEnds = load<u8>(levels) == 0 && load<u8>(levels, 255) == 255
  for (let i = 0; i < count; i += 1) {
    if (keepsEnds && (i & 7) == 0 && i + 8 <= count) {
      const first = v128.load(pixels + (i << 2))
      const second = v128.load(pixels + (i << 2) + 16)
      const opaque = i32x4.splat(0xff000000)
      if (load<u64>(back + i) == 0xffffffffffffffff && !v128.any_true(v128.and(v128.or(first, second), opaque))) {
        i += 7
        continue
      }
      if (load<u64>(inside + i) == 0xffffffffffffffff && i32x4.all_true(i32x4.eq(v128.and(v128.and(first, second), opaque), opaque))) {
        i += 7
        continue
      }
    }
    const at = pixels + (i << 2)
    const oldAlpha = <i32>load<u8>(at, 3)
    const surely = max<i32>(<i32>load<u8>(inside + i), <i32>load<u8>(back + i))
    if (surely == 255) {
      store<u8>(at, load<u8>(levels + <usize>oldAlpha), 3)
      continue
    }
    const left = load<i32>(cells + (i << 2))
    const right = min(lastCell, left + 1)
    const shareX = v128.load32_splat(shares + (i << 2))
    const frontLeft = v128.load(front + (<usize>left << 4))
    const backLeft = v128.load(behind + (<usize>left << 4))
    const frontColour = f32x4.add(frontLeft, f32x4.mul(f32x4.sub(v128.load(front + (<usize>right << 4)), frontLeft), shareX))
    const backColour = f32x4.add(backLeft, f32x4.mul(f32x4.sub(v128.load(behind + (<usize>right << 4)), backLeft), shareX))
    const packed = v128.load32_zero(at)
    const colour = f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(packed)))
    const away = f32x4.sub(colour, backColour)
    const whole = f32x4.sub(frontColour, backColour)
    const dr = f32x4.extract_lane(away, 0)
    const dg = f32x4.extract_lane(away, 1)
    const db = f32x4.extract_lane(away, 2)
    const sr = f32x4.extract_lane(whole, 0)
    const sg = f32x4.extract_lane(whole, 1)
    const sb = f32x4.extract_lane(whole, 2)
    // Luma of BT.709 and its colour differences.
    const dy = <f32>0.2126 * dr + <f32>0.7152 * dg + <f32>0.0722 * db
    const sy = <f32>0.2126 * sr + <f32>0.7152 * sg + <f32>0.0722 * sb
    const dcb = (db - dy) * <f32>0.5389092
    const scb = (sb - sy) * <f32>0.5389092
    const dcr = (dr - dy) * <f32>0.6350013
    const scr = (sr - sy) * <f32>0.6350013
    // From 10⁻³ to 10⁻² of full scale squared, the span between both colours begins to say something.
    const squared = sy * sy + scb * scb + scr * scr
    const unsure: f32 = <f32>(<i32>255 - surely) / 255
    const size = max<f32>(65.025, squared)
    const share = (dy * sy + dcb * scb + dcr * scr) / size
    const aside = (dy * dy + dcb * dcb + dcr * dcr - share * share * squared) / (size * <f32>0.6)
    const weight: f32 = trust * unsure * max<f32>(0, min<f32>(1, (squared - 65.025) / 585.225)) / (1 + aside * aside)
    const key = <f32>oldAlpha / 255
    const rimShare = max<f32>(0, min<f32>(1, (<f32>oldAlpha - 234.6) / 15.3))
    const along = share / (1 - rimShare * (1 - rim))
    const mixed = key + amount * weight * (max<f32>(0, min<f32>(1, along)) - key)
    const alpha = max<f32>(0, min<f32>(1, (mixed - black) * span))
    const stretch = f32x4.splat(<f32>1 / max<f32>(0.1, alpha))
    const unmixed = f32x4.mul(f32x4.sub(colour, f32x4.mul(backColour, f32x4.splat(<f32>1 - alpha))), stretch)
    const clipped = f32x4.max(f32x4.splat(0), f32x4.min(f32x4.splat(255), unmixed))
    const result = f32x4.add(colour, f32x4.mul(f32x4.sub(clipped, colour), f32x4.splat(weight)))
    store<u32>(at, (packedOf(result) & 0xffffff) | (byteOf(alpha * <f32>255) << 24))
  }
}

/** Sums of 2 × 2 cells of four floats, fewer at odd borders (core/matte/pull-push.ts). */
export function pullCells(fine: usize, fineColumns: i32, fineRows: i32, coarse: usize): void {
  const columns = (fineColumns + 1) >> 1
  for (let y = 0; y < fineRows; y += 2) {
    const upper = fine + (<usize>(y * fineColumns) << 4)
    const lower = upper + (<usize>fineColumns << 4)
    const hasLower = y + 1 < fineRows
    for (let x = 0; x < fineColumns; x += 2) {
      const at = <usize>x << 4
      let sum = v128.load(upper + at)
      if (hasLower) sum = f32x4.add(sum, v128.load(lower + at))
      if (x + 1 < fineColumns) {
        sum = f32x4.add(sum, v128.load(upper + at + 16))
        if (hasLower) sum = f32x4.add(sum, v128.load(lower + at + 16))
      }
      v128.store(coarse + (<usize>((y >> 1) * columns + (x >> 1)) << 4), sum)
    }
  }
}

/** The mean of the only cell of the coarsest level; false when it holds nothing. */
export function topCell(sums: usize, colours: usize): bool {
  const sum = v128.load(sums)
  const count = f32x4.extract_lane(sum, 3)
  if (count == 0) return false
  v128.store(colours, f32x4.div(sum, f32x4.splat(count)))
  return true
}

/** Colours of a level: its own means as far as they are trusted, else those of the coarser level between its cells. */
export function pushCells(sums: usize, columns: i32, rows: i32, coarse: usize, colours: usize): void {
  const coarseColumns = (columns + 1) >> 1
  const coarseRows = (rows + 1) >> 1
  for (let y = 0; y < rows; y += 1) {
    const atY = max<f32>(0, min<f32>(<f32>(coarseRows - 1), (<f32>y + 0.5) / 2 - 0.5))
    const top = <i32>atY
    const bottom = min(coarseRows - 1, top + 1)
    const shareY = f32x4.splat(atY - <f32>top)
    const upper = coarse + (<usize>(top * coarseColumns) << 4)
    const lower = coarse + (<usize>(bottom * coarseColumns) << 4)
    for (let x = 0; x < columns; x += 1) {
      const cell = <usize>(y * columns + x) << 4
      const sum = v128.load(sums + cell)
      const count = f32x4.extract_lane(sum, 3)
      if (count >= FULL_TRUST) {
        v128.store(colours + cell, f32x4.div(sum, f32x4.splat(count)))
        continue
      }
      const atX = max<f32>(0, min<f32>(<f32>(coarseColumns - 1), (<f32>x + 0.5) / 2 - 0.5))
      const left = <i32>atX
      const right = min(coarseColumns - 1, left + 1)
      const shareX = f32x4.splat(atX - <f32>left)
      const above = between(v128.load(upper + (<usize>left << 4)), v128.load(upper + (<usize>right << 4)), shareX)
      const below = between(v128.load(lower + (<usize>left << 4)), v128.load(lower + (<usize>right << 4)), shareX)
      const guess = between(above, below, shareY)
      const own = count > 0 ? f32x4.div(sum, f32x4.splat(count)) : guess
      v128.store(colours + cell, between(guess, own, f32x4.splat(count / FULL_TRUST)))
    }
  }
}

/** So many samples make a cell trust its own mean fully. */
const FULL_TRUST: f32 = 6

// @ts-ignore: decorator
@inline
function between(a: v128, b: v128, share: v128): v128 {
  return f32x4.add(a, f32x4.mul(f32x4.sub(b, a), share))
}

/**
 * Backdrop light in four packed pixels (core/steps/spill/reference.ts), in shares of the backdrop. `meter` holds six floats for
 * codes: red, green, blue along the backdrop's direction, then across it.
 */
// @ts-ignore: decorator
@inline
function spillOfFour(four: v128, meter: usize): v128 {
  const byte = i32x4.splat(255)
  const red = f32x4.convert_i32x4_u(v128.and(four, byte))
  const green = f32x4.convert_i32x4_u(v128.and(i32x4.shr_u(four, 8), byte))
  const blue = f32x4.convert_i32x4_u(v128.and(i32x4.shr_u(four, 16), byte))
  const along = f32x4.add(
    f32x4.add(f32x4.mul(red, v128.load32_splat(meter)), f32x4.mul(green, v128.load32_splat(meter + 4))),
    f32x4.mul(blue, v128.load32_splat(meter + 8)),
  )
  const across = f32x4.add(
    f32x4.add(f32x4.mul(red, v128.load32_splat(meter + 12)), f32x4.mul(green, v128.load32_splat(meter + 16))),
    f32x4.mul(blue, v128.load32_splat(meter + 20)),
  )
  return f32x4.max(f32x4.splat(0), f32x4.sub(along, f32x4.abs(across)))
}

/** How surely pixels are the presenter with less than `spilt` of the backdrop in them, 0..255; runs into slack. */
export function unspiltRow(pixels: usize, surely: usize, count: i32, spilt: f32, meter: usize): void {
  const zero = f32x4.splat(0)
  const one = f32x4.splat(1)
  const perSpilt = f32x4.splat(<f32>1 / spilt)
  for (let i = 0; i < count; i += 4) {
    const four = v128.load(pixels + (i << 2))
    const clean = f32x4.max(zero, f32x4.sub(one, f32x4.mul(spillOfFour(four, meter), perSpilt)))
    const alpha = f32x4.convert_i32x4_u(i32x4.shr_u(four, 24))
    const front = f32x4.max(zero, f32x4.min(one, f32x4.mul(f32x4.sub(alpha, f32x4.splat(234.6)), f32x4.splat(1 / 15.3))))
    const code = i32x4.trunc_sat_f32x4_u(f32x4.add(f32x4.mul(f32x4.mul(clean, front), f32x4.splat(255)), f32x4.splat(0.5)))
    v128.store32_lane(surely + i, v128.shuffle<u8>(code, code, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12), 0)
  }
  for (let i = count; i < ((count + 7) & ~7); i += 1) store<u8>(surely + i, 0)
}

/**
 * Takes backdrop light off a row and puts the presenter's own light in its place. `own` is a row of cells of four floats in
 * codes; `key` holds red, green, blue of the backdrop in codes; `amount` how much; `keyLuma` its luma in codes, or 0 where brightness need not stay.
 */
export function edgeSpillRow(
  pixels: usize, count: i32, own: usize, cells: usize, shares: usize, lastCell: i32, meter: usize, key: usize, amount: f32, keyLuma: f32,
): void {
  const backdrop = v128.load(key)
  for (let i = 0; i < count; i += 1) {
    const at = pixels + (i << 2)
    if ((i & 3) == 0 && i + 4 <= count) {
      const four = v128.load(at)
      const isThere = v128.any_true(v128.andnot(four, i32x4.splat(0xffffff)))
      if (!isThere || !v128.any_true(f32x4.gt(spillOfFour(four, meter), f32x4.splat(0)))) {
        i += 3
        continue
      }
    }
    const one = v128.load32_zero(at)
    if (load<u8>(at, 3) == 0) continue
    const share = amount * f32x4.extract_lane(spillOfFour(one, meter), 0)
    if (share == 0) continue
    const left = load<i32>(cells + (i << 2))
    const right = min(lastCell, left + 1)
    let light = between(v128.load(own + (<usize>left << 4)), v128.load(own + (<usize>right << 4)), v128.load32_splat(shares + (i << 2)))
    if (keyLuma > 0) {
      const luma = <f32>0.2126 * f32x4.extract_lane(light, 0) + <f32>0.7152 * f32x4.extract_lane(light, 1) + <f32>0.0722 * f32x4.extract_lane(light, 2)
      light = f32x4.mul(light, f32x4.splat(keyLuma / max<f32>(0.02 * 255, luma)))
    }
    const colour = f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(one)))
    const cleaned = f32x4.add(colour, f32x4.mul(f32x4.sub(light, backdrop), f32x4.splat(share)))
    store<u32>(at, (packedOf(cleaned) & 0xffffff) | (load<u32>(at) & 0xff000000))
  }
}
