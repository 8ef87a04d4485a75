// AssemblyScript, compiled into kernels.wasm beside kernels.ts. Grain evened out over time and over neighbours. Packed RGBA,
// straight alpha, red in the low byte, sRGB-encoded.

/**
 * One step towards the frame before (core/steps/denoise/reference.ts), in place: `time` of 256, `noise` in codes.
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

