// AssemblyScript: small pieces that the kernels share. All are put into their callers.

/**
 * Where the entry of a 24-bit code lies: the high halves of its three bytes choose a page, the low halves a place in it
 * (colour-memo.ts). Colours of a picture crowd together, so a few pages hold them all and stay in the cache.
 */
// @ts-ignore: decorator
@inline
export function placeOf(code: u32): u32 {
  return (nibbles((code >>> 4) & 0x0f0f0f) << 12) | nibbles(code & 0x0f0f0f)
}

// @ts-ignore: decorator
@inline
export function nibbles(spread: u32): u32 {
  return ((spread | (spread >>> 4)) & 0xff) | ((spread >>> 8) & 0xf00)
}

// @ts-ignore: decorator
@inline
export function placesOfFour(codes: v128): v128 {
  const mask = i32x4.splat(0x0f0f0f)
  const high = nibblesOfFour(v128.and(i32x4.shr_u(codes, 4), mask))
  return v128.or(i32x4.shl(high, 12), nibblesOfFour(v128.and(codes, mask)))
}

// @ts-ignore: decorator
@inline
export function nibblesOfFour(spread: v128): v128 {
  const low = v128.and(v128.or(spread, i32x4.shr_u(spread, 4)), i32x4.splat(0xff))
  return v128.or(low, v128.and(i32x4.shr_u(spread, 8), i32x4.splat(0xf00)))
}

/** Lists a place without an entry, and where its pixel goes. */
// @ts-ignore: decorator
@inline
export function noteMiss(missing: usize, count: i32, place: u32, target: usize): void {
  store<u32>(missing + (count << 3), place)
  store<u32>(missing + (count << 3), <u32>target, 4)
}

/** Four floats from 0 to 255 as bytes, rounded to nearest: adding 2^23 leaves the whole number in the low bits. */
// @ts-ignore: decorator
@inline
export function packedOf(values: v128): u32 {
  const whole = f32x4.add(f32x4.min(f32x4.splat(255), f32x4.max(f32x4.splat(0), values)), f32x4.splat(8388608))
  return <u32>i32x4.extract_lane(v128.shuffle<u8>(whole, whole, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12), 0)
}

// @ts-ignore: decorator
@inline
export function byteOf(value: f32): u32 {
  return <u32>(<i32>(min<f32>(255, max<f32>(0, value)) + 0.5))
}

/** The entries at four places. */
// @ts-ignore: decorator
@inline
export function entriesOf(table: usize, places: v128): v128 {
  let entries = v128.load32_zero(table + (<usize>i32x4.extract_lane(places, 0) << 2))
  entries = v128.load32_lane(table + (<usize>i32x4.extract_lane(places, 1) << 2), entries, 1)
  entries = v128.load32_lane(table + (<usize>i32x4.extract_lane(places, 2) << 2), entries, 2)
  return v128.load32_lane(table + (<usize>i32x4.extract_lane(places, 3) << 2), entries, 3)
}

/** value · weight / 255, rounded to nearest. */
// @ts-ignore: decorator
@inline
export function scaled(value: u32, weight: u32): u32 {
  const product = value * weight + 128
  return (product + (product >>> 8)) >>> 8
}

/** Four packed pixels, each multiplied by its byte of the four at `mask` / 255, rounded to nearest. */
// @ts-ignore: decorator
@inline
export function thinnedFour(pixels: v128, mask: usize): v128 {
  const each = i8x16.swizzle(v128.load32_zero(mask), i8x16(0, 0, 0, 0, 1, 1, 1, 1, 2, 2, 2, 2, 3, 3, 3, 3))
  const half = i16x8.splat(128)
  const low = i16x8.add(i16x8.extmul_low_i8x16_u(pixels, each), half)
  const high = i16x8.add(i16x8.extmul_high_i8x16_u(pixels, each), half)
  return i8x16.narrow_i16x8_u(
    i16x8.shr_u(i16x8.add(low, i16x8.shr_u(low, 8)), 8),
    i16x8.shr_u(i16x8.add(high, i16x8.shr_u(high, 8)), 8),
  )
}

/** Four floats from 0 to 255, rounded to nearest, as whole numbers. */
// @ts-ignore: decorator
@inline
export function rounded(values: v128): v128 {
  return v128.and(f32x4.add(values, f32x4.splat(8388608)), i32x4.splat(0x1ff))
}
