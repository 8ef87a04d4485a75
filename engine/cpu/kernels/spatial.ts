// AssemblyScript, compiled into kernels.wasm beside kernels.ts. Loops of work that looks at a pixel's place or
// neighbours. Packed RGBA, straight alpha unless a name says otherwise, red in the low byte, sRGB-encoded.

import { byteOf, noteMiss, packedOf, placeOf, placesOfFour } from './packed'

const CLEAR: u32 = 1

// @ts-ignore: decorator
@inline
function scaled(value: u32, weight: u32): u32 {
  const product = value * weight + 128
  return (product + (product >>> 8)) >>> 8
}

/** The entries at four places. */
// @ts-ignore: decorator
@inline
function entriesOf(table: usize, places: v128): v128 {
  let entries = v128.load32_zero(table + (<usize>i32x4.extract_lane(places, 0) << 2))
  entries = v128.load32_lane(table + (<usize>i32x4.extract_lane(places, 1) << 2), entries, 1)
  entries = v128.load32_lane(table + (<usize>i32x4.extract_lane(places, 2) << 2), entries, 2)
  return v128.load32_lane(table + (<usize>i32x4.extract_lane(places, 3) << 2), entries, 3)
}

/** A table of straight entries applied to `count` straight pixels; their own alpha thins that of the entry. Returns misses. */
export function treatStraightRow(table: usize, source: usize, count: i32, line: usize, missing: usize): i32 {
  let misses = 0
  for (let i = 0; i < count; i += 1) {
    if ((i & 3) == 0 && i + 4 <= count) {
      const four = v128.load(source + (i << 2))
      const entries = entriesOf(table, placesOfFour(v128.and(four, i32x4.splat(0xffffff))))
      const isOpaque = i32x4.all_true(i32x4.eq(v128.and(four, i32x4.splat(0xff000000)), i32x4.splat(0xff000000)))
      if (isOpaque && i32x4.all_true(entries)) {
        v128.store(line + (i << 2), entries)
        i += 3
        continue
      }
    }
    const pixel = load<u32>(source + (i << 2))
    const code = placeOf(pixel & 0xffffff)
    const entry = load<u32>(table + (<usize>code << 2))
    if (entry == 0) {
      noteMiss(missing, misses, code, line + (i << 2))
      misses += 1
    }
    const alpha = pixel >>> 24
    // A pixel without an entry keeps its alpha until fillStraight comes.
    store<u32>(line + (i << 2), entry == 0 ? alpha << 24 : alpha == 255 ? entry : (entry & 0xffffff) | (scaled(entry >>> 24, alpha) << 24))
  }
  return misses
}

/** Writes the pixels that treatStraightRow listed, now that their entries are there. */
export function fillStraight(table: usize, missing: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const entry = load<u32>(table + (<usize>load<u32>(missing + (i << 3)) << 2))
    const target = <usize>load<u32>(missing + (i << 3), 4)
    store<u32>(target, (entry & 0xffffff) | (scaled(entry >>> 24, load<u32>(target) >>> 24) << 24))
  }
}

/** Colours multiplied by alpha; what is clear becomes nothing. `out` may be `source`. */
export function premultiplyRow(source: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    if ((i & 3) == 0 && i + 4 <= count) {
      // Four opaque or four clear pixels at once: most of a picture.
      const four = v128.load(source + (i << 2))
      const alphas = v128.and(four, i32x4.splat(0xff000000))
      if (i32x4.all_true(i32x4.eq(alphas, i32x4.splat(0xff000000)))) {
        v128.store(out + (i << 2), four)
        i += 3
        continue
      }
      if (!v128.any_true(alphas)) {
        v128.store(out + (i << 2), i32x4.splat(0))
        i += 3
        continue
      }
    }
    const pixel = load<u32>(source + (i << 2))
    const alpha = pixel >>> 24
    if (alpha == 255) store<u32>(out + (i << 2), pixel)
    else if (alpha == 0) store<u32>(out + (i << 2), 0)
    else {
      let low = (pixel & 0xff00ff) * alpha + 0x800080
      low = ((low + ((low >>> 8) & 0xff00ff)) >>> 8) & 0xff00ff
      let green = ((pixel >>> 8) & 255) * alpha + 128
      green = ((green + (green >>> 8)) >>> 8) & 255
      store<u32>(out + (i << 2), low | (green << 8) | (alpha << 24))
    }
  }
}

/** The inverse of premultiplyRow, as near as bytes allow. */
export function unpremultiplyRow(source: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    if ((i & 3) == 0 && i + 4 <= count) {
      const four = v128.load(source + (i << 2))
      if (i32x4.all_true(i32x4.eq(v128.and(four, i32x4.splat(0xff000000)), i32x4.splat(0xff000000)))) {
        v128.store(out + (i << 2), four)
        i += 3
        continue
      }
    }
    const pixel = load<u32>(source + (i << 2))
    const alpha = pixel >>> 24
    if (alpha == 255) store<u32>(out + (i << 2), pixel)
    else if (alpha == 0) store<u32>(out + (i << 2), CLEAR)
    else {
      const half = alpha >>> 1
      const red = min<u32>(255, ((pixel & 255) * 255 + half) / alpha)
      const green = min<u32>(255, (((pixel >>> 8) & 255) * 255 + half) / alpha)
      const blue = min<u32>(255, (((pixel >>> 16) & 255) * 255 + half) / alpha)
      store<u32>(out + (i << 2), red | (green << 8) | (blue << 16) | (alpha << 24))
    }
  }
}

/** Alpha × across[i] × down. `across` holds 32-bit floats. */
export function fadeRow(pixels: usize, count: i32, across: usize, down: f32): void {
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(pixels + (i << 2))
    const alpha = byteOf(<f32>(pixel >>> 24) * load<f32>(across + (i << 2)) * down)
    store<u32>(pixels + (i << 2), (pixel & 0xffffff) | (alpha << 24))
  }
}

/**
 * Keys a row on an uneven cloth (core/steps/chroma-key/field.ts) into `out`, which is not `pixels`. `gains` holds a 16-bit
 * gain of 2^13 for each pixel. Lists places without an entry; returns how many. Reads into slack.
 */
export function fieldKeyRow(pixels: usize, out: usize, count: i32, table: usize, missing: usize, gains: usize): i32 {
  let misses = 0
  const colours = i32x4.splat(0xffffff)
  for (let i = 0; i < count; i += 4) {
    const four = v128.load(pixels + (i << 2))
    const even = evened(four, v128.load64_zero(gains + (i << 1)))
    const entries = entriesOf(table, placesOfFour(v128.and(even, colours)))
    const isOpaque = i32x4.all_true(i32x4.eq(v128.andnot(four, colours), i32x4.splat(0xff000000)))
    const isKept = i32x4.all_true(i32x4.eq(v128.and(v128.xor(entries, even), colours), i32x4.splat(0)))
    // Where the key leaves colours alone, only its opacity is taken.
    if (isOpaque && isKept && i32x4.all_true(entries) && i + 4 <= count) {
      v128.store(out + (i << 2), v128.bitselect(four, entries, colours))
      continue
    }
    const last = min(count, i + 4)
    for (let k = i; k < last; k += 1) {
      if (!keyOne(pixels + (k << 2), out + (k << 2), table, gains + (k << 1))) {
        const place = placeOf(<u32>i32x4.extract_lane(evened(v128.load32_zero(pixels + (k << 2)), v128.load16_splat(gains + (k << 1))), 0) & 0xffffff)
        noteMiss(missing, misses, place, out + (k << 2))
        misses += 1
      }
    }
  }
  return misses
}

/** Four pixels times their gains, rounded and clipped; alpha is of no use. */
// @ts-ignore: decorator
@inline
function evened(four: v128, gains: v128): v128 {
  const half = i16x8.splat(16)
  const low = i16x8.q15mulr_sat_s(i16x8.shl(i16x8.extend_low_i8x16_u(four), 7), v128.shuffle<i16>(gains, gains, 0, 0, 0, 0, 1, 1, 1, 1))
  const high = i16x8.q15mulr_sat_s(i16x8.shl(i16x8.extend_high_i8x16_u(four), 7), v128.shuffle<i16>(gains, gains, 2, 2, 2, 2, 3, 3, 3, 3))
  return i8x16.narrow_i16x8_u(i16x8.shr_s(i16x8.add(low, half), 5), i16x8.shr_s(i16x8.add(high, half), 5))
}

/** Keys one pixel; false when its entry is missing. */
function keyOne(from: usize, to: usize, table: usize, gainAt: usize): bool {
  const pixel = load<u32>(from)
  const even = <u32>i32x4.extract_lane(evened(v128.load32_zero(from), v128.load16_splat(gainAt)), 0) & 0xffffff
  const entry = load<u32>(table + (<usize>placeOf(even) << 2))
  if (entry == 0) return false
  const alpha = scaled(entry >>> 24, pixel >>> 24)
  const back = <f32>8192 / <f32>load<i16>(gainAt)
  const red = byteOf(<f32>(pixel & 255) + <f32>(<i32>(entry & 255) - <i32>(even & 255)) * back)
  const green = byteOf(<f32>((pixel >>> 8) & 255) + <f32>(<i32>((entry >>> 8) & 255) - <i32>((even >>> 8) & 255)) * back)
  const blue = byteOf(<f32>((pixel >>> 16) & 255) + <f32>(<i32>((entry >>> 16) & 255) - <i32>((even >>> 16) & 255)) * back)
  store<u32>(to, red | (green << 8) | (blue << 16) | (alpha << 24))
  return true
}

/**
 * One step towards the frame before (core/steps/denoise/cpu.ts), in place: `time` of 256, `noise` in codes.
 * `bytes` is a multiple of 16 or runs into slack.
 */
export function steadyRow(pixels: usize, before: usize, bytes: i32, time: i32, noise: i32): void {
  const limit = i8x16.splat(<i8>min(255, 2 * noise))
  const full = i8x16.splat(<i8>min(255, noise))
  // w = time · min(noise, max(0, limit − |d|)) / noise, in 1/256.
  const perCode = i16x8.splat(<i16>((time << 6) / noise))
  const colours = i32x4.splat(0xffffff)
  for (let i = 0; i < bytes; i += 16) {
    const value = v128.load(pixels + i)
    const old = v128.load(before + i)
    const difference = v128.or(i8x16.sub_sat_u(value, old), i8x16.sub_sat_u(old, value))
    const room = i8x16.min_u(full, i8x16.sub_sat_u(limit, difference))
    const low = steadyHalf(i16x8.extend_low_i8x16_u(value), i16x8.extend_low_i8x16_u(old), i16x8.extend_low_i8x16_u(room), perCode)
    const high = steadyHalf(i16x8.extend_high_i8x16_u(value), i16x8.extend_high_i8x16_u(old), i16x8.extend_high_i8x16_u(room), perCode)
    v128.store(pixels + i, v128.bitselect(i8x16.narrow_i16x8_u(low, high), value, colours))
  }
}

// @ts-ignore: decorator
@inline
function steadyHalf(value: v128, old: v128, room: v128, perCode: v128): v128 {
  // room ≤ 24 codes and perCode ≤ 64·230/noise keep both products within 16 bits; the weight is of 2^14.
  const weight = i16x8.mul(room, perCode)
  const step = i16x8.q15mulr_sat_s(i16x8.shl(i16x8.sub(old, value), 4), i16x8.shl(weight, 1))
  return i16x8.add(value, i16x8.shr_s(i16x8.add(step, i16x8.splat(8)), 4))
}

/** Each colour drawn to its like neighbours: `space` of 256, `limit` in codes. Rows may be the same for missing ones. */
export function sigmaRow(above: usize, row: usize, below: usize, out: usize, count: i32, space: i32, limit: i32): void {
  const most = i8x16.splat(<i8>min(255, limit))
  const share = i16x8.splat(<i16>(space << 5))
  const colours = i32x4.splat(0xffffff)
  const bytes = count << 2
  for (let i = 0; i < bytes; i += 16) {
    const value = v128.load(row + i)
    const up = likeOf(value, v128.load(above + i), most)
    const down = likeOf(value, v128.load(below + i), most)
    const left = likeOf(value, i == 0 ? v128.shuffle<u8>(value, value, 0, 1, 2, 3, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11) : v128.load(row + i - 4), most)
    const right = likeOf(value, v128.load(row + i + 4), most)
    const low = sigmaHalf(
      i16x8.extend_low_i8x16_u(value), i16x8.extend_low_i8x16_u(up), i16x8.extend_low_i8x16_u(down),
      i16x8.extend_low_i8x16_u(left), i16x8.extend_low_i8x16_u(right), share,
    )
    const high = sigmaHalf(
      i16x8.extend_high_i8x16_u(value), i16x8.extend_high_i8x16_u(up), i16x8.extend_high_i8x16_u(down),
      i16x8.extend_high_i8x16_u(left), i16x8.extend_high_i8x16_u(right), share,
    )
    v128.store(out + i, v128.bitselect(i8x16.narrow_i16x8_u(low, high), value, colours))
  }
  // The last pixel has itself for a right neighbour, which the loop above could not know.
  const at = (count - 1) << 2
  const pixel = load<u32>(row + at)
  let fixed = pixel & 0xff000000
  for (let channel = 0; channel < 3; channel += 1) {
    const value = <i32>load<u8>(row + at + channel)
    const sum = near(value, load<u8>(above + at + channel), limit) + near(value, load<u8>(below + at + channel), limit) +
      near(value, load<u8>(row + max(0, at - 4) + channel), limit) + value
    const drawn = (value << 2) * 256 + space * (sum - (value << 2))
    fixed |= (<u32>((drawn + 512) >> 10) & 255) << (channel << 3)
  }
  store<u32>(out + at, fixed)
}

function near(value: i32, other: i32, limit: i32): i32 {
  return abs(other - value) <= limit ? other : value
}

// @ts-ignore: decorator
@inline
function likeOf(value: v128, other: v128, most: v128): v128 {
  const difference = v128.or(i8x16.sub_sat_u(value, other), i8x16.sub_sat_u(other, value))
  return v128.bitselect(other, value, i8x16.le_u(difference, most))
}

// @ts-ignore: decorator
@inline
function sigmaHalf(value: v128, up: v128, down: v128, left: v128, right: v128, share: v128): v128 {
  const sum = i16x8.add(i16x8.add(up, down), i16x8.add(left, right))
  const away = i16x8.sub(sum, i16x8.shl(value, 2))
  // away is four times the way to go; share is of 2^13: (away << 2) · share / 2^15 = away · space / 2^8 · 4 / 16.
  const step = i16x8.q15mulr_sat_s(i16x8.shl(away, 4), share)
  return i16x8.add(value, i16x8.shr_s(i16x8.add(step, i16x8.splat(8)), 4))
}

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
 * of 2^13. Runs into slack.
 */
export function sharpenRow(pixels: usize, luma: usize, blurred: usize, out: usize, count: i32, amount: i32, threshold: i32): void {
  const limit = i16x8.splat(<i16>threshold)
  const weight = i16x8.splat(<i16>amount)
  const colours = i32x4.splat(0xffffff)
  const zero = i16x8.splat(0)
  const half = i16x8.splat(8)
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

/**
 * The person's opacity in a row (core/matte/person-mask.ts), one byte a pixel. `gains` and `offsets` are rows of
 * floats already mixed between two mask rows; `cells` and `shares` place each pixel.
 */
export function personRow(pixels: usize, out: usize, count: i32, gains: usize, offsets: usize, cells: usize, shares: usize, lastCell: i32, low: f32, high: f32): void {
  const scale = <f32>1 / (high - low)
  let i = 0
  while (i < count) {
    const left = load<i32>(cells + (i << 2))
    const right = min(lastCell, left + 1)
    const gainLeft = load<f32>(gains + (left << 2))
    const gainRight = load<f32>(gains + (right << 2))
    const offsetLeft = load<f32>(offsets + (left << 2))
    const offsetRight = load<f32>(offsets + (right << 2))
    const least = min(offsetLeft + min<f32>(0, gainLeft), offsetRight + min<f32>(0, gainRight))
    const most = max(offsetLeft + max<f32>(0, gainLeft), offsetRight + max<f32>(0, gainRight))
    if (least >= high || most <= low) {
      // All pixels between these two cells are alike, whatever their luma.
      const value: u8 = least >= high ? 255 : 0
      while (i < count && load<i32>(cells + (i << 2)) == left) {
        store<u8>(out + i, value)
        i += 1
      }
      continue
    }
    while (i < count && load<i32>(cells + (i << 2)) == left) {
      const share = load<f32>(shares + (i << 2))
      const pixel = load<u32>(pixels + (i << 2))
      const luma = (<f32>0.2126 * <f32>(pixel & 255) + <f32>0.7152 * <f32>((pixel >>> 8) & 255) + <f32>0.0722 * <f32>((pixel >>> 16) & 255)) / <f32>255
      const gain = gainLeft + (gainRight - gainLeft) * share
      const offset = offsetLeft + (offsetRight - offsetLeft) * share
      const t = max<f32>(0, min<f32>(1, (gain * luma + offset - low) * scale))
      store<u8>(out + i, <u8>byteOf(t * t * (<f32>3 - <f32>2 * t) * <f32>255))
      i += 1
    }
  }
}

/** a + (b − a)·share of `count` floats; runs into slack. */
export function mixFloats(a: usize, b: usize, out: usize, count: i32, share: f32): void {
  const weight = f32x4.splat(share)
  for (let i = 0; i < count; i += 4) {
    const from = v128.load(a + (i << 2))
    v128.store(out + (i << 2), f32x4.add(from, f32x4.mul(f32x4.sub(v128.load(b + (i << 2)), from), weight)))
  }
}

/** Colours × (255 − mask) with that weight as alpha: what is room, premultiplied. */
export function roomRow(pixels: usize, mask: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    if ((i & 7) == 0 && i + 8 <= count) {
      const eight = load<u64>(mask + i)
      if (eight == 0xffffffffffffffff) {
        v128.store(out + (i << 2), i32x4.splat(0))
        v128.store(out + (i << 2) + 16, i32x4.splat(0))
        i += 7
        continue
      }
      if (eight == 0) {
        v128.store(out + (i << 2), v128.or(v128.load(pixels + (i << 2)), i32x4.splat(0xff000000)))
        v128.store(out + (i << 2) + 16, v128.or(v128.load(pixels + (i << 2) + 16), i32x4.splat(0xff000000)))
        i += 7
        continue
      }
    }
    const weight = 255 - <u32>load<u8>(mask + i)
    if (weight == 0) {
      store<u32>(out + (i << 2), 0)
      continue
    }
    const pixel = load<u32>(pixels + (i << 2)) | 0xff000000
    if (weight == 255) {
      store<u32>(out + (i << 2), pixel)
      continue
    }
    let low = (pixel & 0xff00ff) * weight + 0x800080
    low = ((low + ((low >>> 8) & 0xff00ff)) >>> 8) & 0xff00ff
    let high = ((pixel >>> 8) & 0xff00ff) * weight + 0x800080
    high = (high + ((high >>> 8) & 0xff00ff)) & 0xff00ff00
    store<u32>(out + (i << 2), low | high)
  }
}

// @ts-ignore: decorator
@inline
function floatsOf(packed: usize): v128 {
  return f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(packed))))
}

/**
 * A small packed picture blurred by `2·radius + 1` float weights into four floats a pixel, colours divided by the
 * weight that alpha carried; `across` is room for as many floats.
 */
export function blurSmall(source: usize, width: i32, height: i32, taps: usize, radius: i32, across: usize, out: usize): void {
  for (let y = 0; y < height; y += 1) {
    const row = source + (<usize>(y * width) << 2)
    for (let x = 0; x < width; x += 1) {
      let sum = f32x4.splat(0)
      for (let k = -radius; k <= radius; k += 1) {
        const at = max(0, min(width - 1, x + k))
        sum = f32x4.add(sum, f32x4.mul(floatsOf(row + (<usize>at << 2)), v128.load32_splat(taps + (<usize>(k + radius) << 2))))
      }
      v128.store(across + (<usize>(y * width + x) << 4), sum)
    }
  }
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      let sum = f32x4.splat(0)
      for (let k = -radius; k <= radius; k += 1) {
        const at = max(0, min(height - 1, y + k))
        sum = f32x4.add(sum, f32x4.mul(v128.load(across + (<usize>(at * width + x) << 4)), v128.load32_splat(taps + (<usize>(k + radius) << 2))))
      }
      v128.store(out + (<usize>(y * width + x) << 4), sum)
    }
  }
}

/** Pixel · mask + room · (1 − mask); `room` is a row of premultiplied float pixels at a low size, weight in alpha. */
export function softenRow(pixels: usize, mask: usize, out: usize, count: i32, room: usize, cells: usize, shares: usize, lastCell: i32): void {
  for (let i = 0; i < count; i += 1) {
    if ((i & 7) == 0 && i + 8 <= count && load<u64>(mask + i) == 0xffffffffffffffff) {
      if (out != pixels) {
        v128.store(out + (i << 2), v128.load(pixels + (i << 2)))
        v128.store(out + (i << 2) + 16, v128.load(pixels + (i << 2) + 16))
      }
      i += 7
      continue
    }
    const pixel = load<u32>(pixels + (i << 2))
    const alpha = <u32>load<u8>(mask + i)
    if (alpha == 255) {
      store<u32>(out + (i << 2), pixel)
      continue
    }
    const left = load<i32>(cells + (i << 2))
    const right = min(lastCell, left + 1)
    const from = v128.load(room + (<usize>left << 4))
    const mixed = f32x4.add(from, f32x4.mul(f32x4.sub(v128.load(room + (<usize>right << 4)), from), v128.load32_splat(shares + (i << 2))))
    const weight = f32x4.extract_lane(mixed, 3)
    if (weight < 0.255) {
      store<u32>(out + (i << 2), pixel)
      continue
    }
    if (alpha == 0 && weight > 254.9) {
      store<u32>(out + (i << 2), (packedOf(mixed) & 0xffffff) | (pixel & 0xff000000))
      continue
    }
    const share = <f32>alpha / <f32>255
    const colour = f32x4.add(
      f32x4.mul(floatsOf(pixels + (i << 2)), f32x4.splat(share)),
      f32x4.mul(mixed, f32x4.splat((<f32>1 - share) * <f32>255 / weight)),
    )
    store<u32>(out + (i << 2), (packedOf(colour) & 0xffffff) | (pixel & 0xff000000))
  }
}

/** Pixel · mask + other · (1 − mask), alpha kept. */
export function replaceRow(pixels: usize, mask: usize, other: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(pixels + (i << 2))
    const alpha = <u32>load<u8>(mask + i)
    if (alpha == 255) {
      store<u32>(out + (i << 2), pixel)
      continue
    }
    const behind = load<u32>(other + (i << 2))
    let result = pixel & 0xff000000
    for (let shift = 0; shift < 24; shift += 8) {
      const value = ((pixel >>> shift) & 255) * alpha + ((behind >>> shift) & 255) * (255 - alpha) + 128
      result |= (((value + (value >>> 8)) >>> 8) & 255) << shift
    }
    store<u32>(out + (i << 2), result)
  }
}

/** Alpha × mask. */
export function hideRow(pixels: usize, mask: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const pixel = load<u32>(pixels + (i << 2))
    store<u32>(out + (i << 2), (pixel & 0xffffff) | (scaled(pixel >>> 24, <u32>load<u8>(mask + i)) << 24))
  }
}
