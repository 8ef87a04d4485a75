// AssemblyScript, compiled into kernels.wasm beside kernels.ts. Loops of work that looks at a pixel's place or
// neighbours. Packed RGBA, straight alpha unless a name says otherwise, red in the low byte, sRGB-encoded.

import { byteOf, entriesOf, noteMiss, packedOf, placeOf, placesOfFour, rounded, scaled } from './packed'

const CLEAR: u32 = 1

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
    if (!v128.any_true(four)) {
      // What was cut off before.
      if (i + 4 <= count) v128.store(out + (i << 2), four)
      else for (let k = i; k < count; k += 1) store<u32>(out + (k << 2), 0)
      continue
    }
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

/**
 * Keys a row in place where no spill is taken out (core/steps/chroma-key/reference.ts): only opacity changes, worked out four
 * pixels at a time. `gains` as above, or 0 for none; `alongCb`, `alongCr` the backdrop's direction over its strength;
 * `wedge` over its strength; `low` and `slope` the ramp. Reads into slack.
 */
export function keyOpacityRow(
  pixels: usize, count: i32, gains: usize, alongCb: f32, alongCr: f32, acrossCb: f32, acrossCr: f32, low: f32, slope: f32,
): void {
  const byte = i32x4.splat(255)
  const full = f32x4.splat(255)
  // Differences to luma are linear in red, green and blue, and so is the ramp.
  const along = (alongCb + alongCr) * slope
  const across = (acrossCb + acrossCr) * slope
  const alongRed = f32x4.splat(alongCr * slope - <f32>0.2126 * along)
  const alongGreen = f32x4.splat(-(<f32>0.7152) * along)
  const alongBlue = f32x4.splat(alongCb * slope - <f32>0.0722 * along)
  const acrossRed = f32x4.splat(acrossCr * slope - <f32>0.2126 * across)
  const acrossGreen = f32x4.splat(-(<f32>0.7152) * across)
  const acrossBlue = f32x4.splat(acrossCb * slope - <f32>0.0722 * across)
  const start = f32x4.splat(low * slope)
  for (let i = 0; i < count; i += 4) {
    const four = v128.load(pixels + (i << 2))
    if (!v128.any_true(v128.andnot(four, i32x4.splat(0xffffff)))) continue
    let red = f32x4.convert_i32x4_u(v128.and(four, byte))
    let green = f32x4.convert_i32x4_u(v128.and(i32x4.shr_u(four, 8), byte))
    let blue = f32x4.convert_i32x4_u(v128.and(i32x4.shr_u(four, 16), byte))
    if (gains != 0) {
      const gain = f32x4.mul(f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(v128.load64_zero(gains + (i << 1)))), f32x4.splat(1 / <f32>8192))
      red = f32x4.min(full, f32x4.mul(red, gain))
      green = f32x4.min(full, f32x4.mul(green, gain))
      blue = f32x4.min(full, f32x4.mul(blue, gain))
    }
    const along = f32x4.add(f32x4.add(f32x4.mul(red, alongRed), f32x4.mul(green, alongGreen)), f32x4.mul(blue, alongBlue))
    const across = f32x4.abs(f32x4.add(f32x4.add(f32x4.mul(red, acrossRed), f32x4.mul(green, acrossGreen)), f32x4.mul(blue, acrossBlue)))
    const share = f32x4.sub(f32x4.sub(along, across), start)
    const opacity = f32x4.sub(f32x4.splat(1), f32x4.max(f32x4.splat(0), f32x4.min(f32x4.splat(1), share)))
    const alpha = rounded(f32x4.mul(opacity, f32x4.convert_i32x4_u(i32x4.shr_u(four, 24))))
    const keyed = v128.or(v128.and(four, i32x4.splat(0xffffff)), i32x4.shl(alpha, 24))
    if (i + 4 <= count) {
      v128.store(pixels + (i << 2), keyed)
      continue
    }
    // The next row must not be keyed twice.
    v128.store32_lane(pixels + (i << 2), keyed, 0)
    if (i + 1 < count) v128.store32_lane(pixels + (i << 2), keyed, 1, 4)
    if (i + 2 < count) v128.store32_lane(pixels + (i << 2), keyed, 2, 8)
  }
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
