// AssemblyScript: planes of one fine number a pixel, blurred, spread and put back.
import { byteOf, packedOf } from './packed'

/** Luma of BT.709 in 1/64 of a code, as 16-bit; runs into slack. */
export function lumaRow(pixels: usize, out: usize, count: i32): void {
  // 0.2126, 0.7152, 0.0722 of 2^14; sums of pairs are taken per pixel, so the result of 2^14 is shifted to 2^6.
  const weights = i16x8(3483, 11718, 1183, 0, 3483, 11718, 1183, 0)
  const half = i32x4.splat(128)
  for (let i = 0; i < count; i += 8) {
    const first = v128.load(pixels + (i << 2))
    const second = v128.load(pixels + (i << 2) + 16)
    const a = i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(first), weights)
    const b = i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(first), weights)
    const c = i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(second), weights)
    const d = i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(second), weights)
    const low = i32x4.add(v128.shuffle<i32>(a, b, 0, 2, 4, 6), v128.shuffle<i32>(a, b, 1, 3, 5, 7))
    const high = i32x4.add(v128.shuffle<i32>(c, d, 0, 2, 4, 6), v128.shuffle<i32>(c, d, 1, 3, 5, 7))
    v128.store(out + (i << 1), i16x8.narrow_i32x4_u(i32x4.shr_u(i32x4.add(low, half), 8), i32x4.shr_u(i32x4.add(high, half), 8)))
  }
}

/** Alpha in 1/64 of a code, as 16-bit. */
export function alphaToFine(pixels: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) store<u16>(out + (i << 1), <u16>(load<u8>(pixels + (i << 2), 3) << 6))
}

/** Sets alpha from 1/64 of a code, rounded. */
export function fineToAlpha(fine: usize, pixels: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) store<u8>(pixels + (i << 2), <u8>min<u32>(255, (<u32>load<u16>(fine + (i << 1)) + 32) >>> 6), 3)
}

/** Where a row is not clear: the first such pixel, and from bit 16 the pixel after the last; −1 when all are opaque, 0 when all are clear. */
export function alphaSpan(pixels: usize, count: i32): i32 {
  const mask = i32x4.splat(0xff000000)
  let first = -1
  let last = -1
  let isOpaque = true
  let i = 0
  for (; i + 4 <= count; i += 4) {
    const alphas = v128.and(v128.load(pixels + (i << 2)), mask)
    if (isOpaque && !i32x4.all_true(i32x4.eq(alphas, mask))) isOpaque = false
    if (!v128.any_true(alphas)) continue
    if (first < 0) first = i
    last = i + 4
  }
  for (; i < count; i += 1) {
    const alpha = load<u8>(pixels + (i << 2), 3)
    if (alpha != 255) isOpaque = false
    if (alpha == 0) continue
    if (first < 0) first = i
    last = i + 1
  }
  return isOpaque ? -1 : first < 0 ? 0 : first | (last << 16)
}

/** Luma (1/64 of a code) times opacity into `weighted`, and opacity of 2^14 into `shares`; runs into slack. */
export function weighRow(pixels: usize, luma: usize, weighted: usize, shares: usize, count: i32): void {
  for (let i = 0; i < count; i += 8) {
    const low = i32x4.shr_u(v128.load(pixels + (i << 2)), 24)
    const high = i32x4.shr_u(v128.load(pixels + (i << 2) + 16), 24)
    const alpha = i16x8.narrow_i32x4_u(low, high)
    // 255 · 257 = 65535, so that full opacity is all but 2^15 and 2^14.
    const full = i16x8.add(i16x8.shl(alpha, 8), alpha)
    v128.store(weighted + (i << 1), i16x8.q15mulr_sat_s(v128.load(luma + (i << 1)), i16x8.shr_u(full, 1)))
    v128.store(shares + (i << 1), i16x8.shr_u(full, 2))
  }
}

/** Luma times blurred shares of 2^14. */
export function shareRow(luma: usize, shares: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 8) {
    v128.store(out + (i << 1), i16x8.q15mulr_sat_s(v128.load(luma + (i << 1)), i16x8.shl(v128.load(shares + (i << 1)), 1)))
  }
}

/** A row of 16-bit values convolved with `2·radius + 1` weights of 2^15; `row` must have `radius` values of room at both sides. */
export function blurAcross(row: usize, out: usize, count: i32, taps: usize, radius: i32): void {
  const first = load<u16>(row)
  const last = load<u16>(row + ((count - 1) << 1))
  for (let k = 1; k <= radius; k += 1) {
    store<u16>(row - (k << 1), first)
    store<u16>(row + ((count - 1 + k) << 1), last)
  }
  // Weights are symmetric, so that two values share one multiplication; values up to 2^14 can be added first.
  const middle = v128.load16_splat(taps + (radius << 1))
  for (let i = 0; i < count; i += 8) {
    const at = row + (i << 1)
    let sum = i16x8.q15mulr_sat_s(v128.load(at), middle)
    for (let k = 1; k <= radius; k += 1) {
      const pair = i16x8.add(v128.load(at - (k << 1)), v128.load(at + (k << 1)))
      sum = i16x8.add(sum, i16x8.q15mulr_sat_s(pair, v128.load16_splat(taps + ((radius - k) << 1))))
    }
    v128.store(out + (i << 1), sum)
  }
}

/** The same downwards: `rows` holds the addresses of 2·radius + 1 rows. */
export function blurDown(rows: usize, out: usize, count: i32, taps: usize, radius: i32): void {
  const middle = v128.load16_splat(taps + (radius << 1))
  const centre = <usize>load<u32>(rows + (radius << 2))
  for (let i = 0; i < count; i += 8) {
    let sum = i16x8.q15mulr_sat_s(v128.load(centre + (i << 1)), middle)
    for (let k = 1; k <= radius; k += 1) {
      const above = <usize>load<u32>(rows + ((radius - k) << 2))
      const below = <usize>load<u32>(rows + ((radius + k) << 2))
      const pair = i16x8.add(v128.load(above + (i << 1)), v128.load(below + (i << 1)))
      sum = i16x8.add(sum, i16x8.q15mulr_sat_s(pair, v128.load16_splat(taps + ((radius - k) << 1))))
    }
    v128.store(out + (i << 1), sum)
  }
}

/**
 * Adds amount · (|luma − blurred| − threshold, with its sign) to red, green and blue; values in 1/64 of a code, `amount`
 * of 2^13. `luma` has room for seven values more; pixels beyond `count` stay as they are.
 */
export function sharpenRow(pixels: usize, luma: usize, blurred: usize, out: usize, count: i32, amount: i32, threshold: i32): void {
  const limit = i16x8.splat(<i16>threshold)
  const weight = i16x8.splat(<i16>amount)
  const colours = i32x4.splat(0xffffff)
  const zero = i16x8.splat(0)
  const half = i16x8.splat(8)
  // The last group may reach into the next row, which has no detail yet.
  for (let i = count; i < ((count + 7) & ~7); i += 1) store<u16>(luma + (i << 1), load<u16>(blurred + (i << 1)))
  for (let i = 0; i < count; i += 8) {
    const detail = i16x8.sub(v128.load(luma + (i << 1)), v128.load(blurred + (i << 1)))
    const size = i16x8.max_s(zero, i16x8.sub(i16x8.abs(detail), limit))
    const signed = v128.bitselect(i16x8.neg(size), size, i16x8.lt_s(detail, zero))
    // 1/64 codes · amount / 4 = 1/16 codes: q15 takes 2^15 off, amount holds 2^13.
    const add = i16x8.shr_s(i16x8.add(i16x8.q15mulr_sat_s(signed, weight), half), 4)
    sharpenFour(pixels + (i << 2), out + (i << 2), v128.shuffle<i16>(add, add, 0, 0, 0, 0, 1, 1, 1, 1), v128.shuffle<i16>(add, add, 2, 2, 2, 2, 3, 3, 3, 3), colours)
    sharpenFour(pixels + (i << 2) + 16, out + (i << 2) + 16, v128.shuffle<i16>(add, add, 4, 4, 4, 4, 5, 5, 5, 5), v128.shuffle<i16>(add, add, 6, 6, 6, 6, 7, 7, 7, 7), colours)
  }
}

// @ts-ignore: decorator
@inline
function sharpenFour(pixels: usize, out: usize, low: v128, high: v128, colours: v128): void {
  const four = v128.load(pixels)
  const result = i8x16.narrow_i16x8_u(i16x8.add(i16x8.extend_low_i8x16_u(four), low), i16x8.add(i16x8.extend_high_i8x16_u(four), high))
  v128.store(out, v128.bitselect(result, four, colours))
}

/** Largest or smallest 16-bit value within ±radius of a row; `row` as in blurAcross. */
export function extremeAcross(row: usize, out: usize, count: i32, radius: i32, isLargest: bool): void {
  const first = load<u16>(row)
  const last = load<u16>(row + ((count - 1) << 1))
  for (let k = 1; k <= radius; k += 1) {
    store<u16>(row - (k << 1), first)
    store<u16>(row + ((count - 1 + k) << 1), last)
  }
  for (let i = 0; i < count; i += 8) {
    let best = v128.load(row + (i << 1))
    for (let k = -radius; k <= radius; k += 1) {
      const other = v128.load(row + ((i + k) << 1))
      best = isLargest ? i16x8.max_u(best, other) : i16x8.min_u(best, other)
    }
    v128.store(out + (i << 1), best)
  }
}

/** The same downwards. */
export function extremeDown(rows: usize, out: usize, count: i32, radius: i32, isLargest: bool): void {
  for (let i = 0; i < count; i += 8) {
    let best = v128.load(<usize>load<u32>(rows) + (i << 1))
    for (let k = 1; k <= 2 * radius; k += 1) {
      const other = v128.load(<usize>load<u32>(rows + (k << 2)) + (i << 1))
      best = isLargest ? i16x8.max_u(best, other) : i16x8.min_u(best, other)
    }
    v128.store(out + (i << 1), best)
  }
}

/** a + (b − a)·share of two rows of 16-bit values; share of 2^15. */
export function mixFine(a: usize, b: usize, out: usize, count: i32, share: i32): void {
  const weight = i16x8.splat(<i16>share)
  for (let i = 0; i < count; i += 8) {
    const from = v128.load(a + (i << 1))
    v128.store(out + (i << 1), i16x8.add(from, i16x8.q15mulr_sat_s(i16x8.sub(v128.load(b + (i << 1)), from), weight)))
  }
}

/** Alpha through a table of 256 bytes. */
export function alphaTable(pixels: usize, count: i32, table: usize): void {
  const keepsEnds = load<u8>(table) == 0 && load<u8>(table, 255) == 255
  for (let i = 0; i < count; i += 1) {
    if (keepsEnds && (i & 3) == 0 && i + 4 <= count) {
      const alphas = v128.and(v128.load(pixels + (i << 2)), i32x4.splat(0xff000000))
      const isEnd = v128.or(i32x4.eq(alphas, i32x4.splat(0xff000000)), i32x4.eq(alphas, i32x4.splat(0)))
      if (i32x4.all_true(isEnd)) {
        i += 3
        continue
      }
    }
    store<u8>(pixels + (i << 2), load<u8>(table + <usize>load<u8>(pixels + (i << 2), 3)), 3)
  }
}

