// AssemblyScript: what becomes of the room, where a mask says what is room.
import { packedOf, scaled } from './packed'

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

/** Weight from which on a place is taken for nothing but room, in 1/64 of a code. */
const WHOLE: i32 = 16313

/** Floats from 0 to 255 as 16-bit numbers of 1/64; runs into slack. */
export function fineRow(floats: usize, out: usize, count: i32): void {
  const scale = f32x4.splat(64)
  for (let i = 0; i < count; i += 8) {
    const low = i32x4.trunc_sat_f32x4_s(f32x4.mul(v128.load(floats + (i << 2)), scale))
    const high = i32x4.trunc_sat_f32x4_s(f32x4.mul(v128.load(floats + (i << 2) + 16), scale))
    v128.store(out + (i << 1), i16x8.narrow_i32x4_s(low, high))
  }
}

/**
 * Pixel · mask + room · (1 − mask), in place; `room` is a row of premultiplied float pixels at a low size, weight in alpha, and
 * `fine` the same as 16-bit numbers of 1/64. Pixels `starts[c]` to `starts[c + 1]` lie between cells c and c + 1, by `shares`;
 * `fineShares` are shares as 16-bit numbers of 2⁻¹⁵.
 */
export function softenRow(pixels: usize, mask: usize, room: usize, fine: usize, starts: usize, shares: usize, fineShares: usize, lastCell: i32): void {
  const half = i16x8.splat(32)
  const colours = i32x4.splat(0xffffff)
  for (let cell = 0; cell <= lastCell; cell += 1) {
    let i = load<i32>(starts + (cell << 2))
    const end = load<i32>(starts + ((cell + 1) << 2))
    const right = min(lastCell, cell + 1)
    const here = v128.load64_splat(fine + (<usize>cell << 3))
    const there = v128.load64_splat(fine + (<usize>right << 3))
    const step = i16x8.sub(there, here)
    const from = v128.load(room + (<usize>cell << 4))
    const span = f32x4.sub(v128.load(room + (<usize>right << 4)), from)
    const isWhole = min(i16x8.extract_lane_s(here, 3), i16x8.extract_lane_s(there, 3)) >= WHOLE
    for (; i + 4 <= end; i += 4) {
      const four = load<u32>(mask + i)
      if (four == 0xffffffff) continue
      if (four == 0 && isWhole) {
        // Nothing of the person, and whole room on both sides: no division is needed.
        const share = v128.load64_zero(fineShares + (i << 1))
        const two = i16x8.add(here, i16x8.q15mulr_sat_s(step, v128.shuffle<i16>(share, share, 0, 0, 0, 0, 1, 1, 1, 1)))
        const more = i16x8.add(here, i16x8.q15mulr_sat_s(step, v128.shuffle<i16>(share, share, 2, 2, 2, 2, 3, 3, 3, 3)))
        const packed = i8x16.narrow_i16x8_u(i16x8.shr_s(i16x8.add(two, half), 6), i16x8.shr_s(i16x8.add(more, half), 6))
        v128.store(pixels + (i << 2), v128.bitselect(packed, v128.load(pixels + (i << 2)), colours))
        continue
      }
      if (four == 0) {
        // Near the person: what is room there, brought up to whole weight.
        softenClear(pixels, shares, from, span, i)
        softenClear(pixels, shares, from, span, i + 1)
        softenClear(pixels, shares, from, span, i + 2)
        softenClear(pixels, shares, from, span, i + 3)
        continue
      }
      for (let k = i; k < i + 4; k += 1) softenOne(pixels, mask, shares, from, span, k)
    }
    for (; i < end; i += 1) softenOne(pixels, mask, shares, from, span, i)
  }
}

/** A pixel where nobody is, between two cells `from` and `from + span`; one that has no room near by stays. */
// @ts-ignore: decorator
@inline
function softenClear(pixels: usize, shares: usize, from: v128, span: v128, i: i32): void {
  const at = pixels + (i << 2)
  const mixed = f32x4.add(from, f32x4.mul(span, v128.load32_splat(shares + (i << 2))))
  const weight = f32x4.extract_lane(mixed, 3)
  if (weight < 0.255) return
  store<u32>(at, (packedOf(f32x4.mul(mixed, f32x4.splat(<f32>255 / weight))) & 0xffffff) | (load<u32>(at) & 0xff000000))
}

// @ts-ignore: decorator
@inline
function softenOne(pixels: usize, mask: usize, shares: usize, from: v128, span: v128, i: i32): void {
  const alpha = <u32>load<u8>(mask + i)
  if (alpha == 255) return
  const at = pixels + (i << 2)
  const mixed = f32x4.add(from, f32x4.mul(span, v128.load32_splat(shares + (i << 2))))
  const weight = f32x4.extract_lane(mixed, 3)
  if (weight < 0.255) return
  const share = <f32>alpha / <f32>255
  const colour = f32x4.add(f32x4.mul(floatsOf(at), f32x4.splat(share)), f32x4.mul(mixed, f32x4.splat((<f32>1 - share) * <f32>255 / weight)))
  store<u32>(at, (packedOf(colour) & 0xffffff) | (load<u32>(at) & 0xff000000))
}

/**
 * One row of half the size of what is room: of each 2 × 2 pixels the mean of colour × (255 − mask), with the mean weight as
 * alpha. `upper` and `lower` are rows of pixels, `count` pixels of the small row.
 */
export function halveRoomRow(upper: usize, lower: usize, upperMask: usize, lowerMask: usize, out: usize, count: i32): void {
  const opaque = i32x4.splat(0xff000000)
  const two = i16x8.splat(2)
  for (let i = 0; i < count; i += 1) {
    if ((i & 3) == 0 && i + 4 <= count) {
      const first = load<u64>(upperMask + (i << 1))
      const second = load<u64>(lowerMask + (i << 1))
      if ((first & second) == 0xffffffffffffffff) {
        v128.store(out + (i << 2), i32x4.splat(0))
        i += 3
        continue
      }
      if ((first | second) == 0) {
        const left = sumOfRows(upper + (i << 3), lower + (i << 3))
        const right = sumOfRows(upper + (i << 3) + 16, lower + (i << 3) + 16)
        const mean = i8x16.narrow_i16x8_u(i16x8.shr_u(i16x8.add(left, two), 2), i16x8.shr_u(i16x8.add(right, two), 2))
        v128.store(out + (i << 2), v128.or(mean, opaque))
        i += 3
        continue
      }
    }
    const at = i << 3
    let sum = weighed(upper + at, upperMask + (i << 1))
    sum = f32x4.add(sum, weighed(upper + at + 4, upperMask + (i << 1) + 1))
    sum = f32x4.add(sum, weighed(lower + at, lowerMask + (i << 1)))
    sum = f32x4.add(sum, weighed(lower + at + 4, lowerMask + (i << 1) + 1))
    store<u32>(out + (i << 2), packedOf(f32x4.mul(sum, f32x4.splat(0.25))))
  }
}

/** Sums of 2 × 2 for two small pixels of four channels, 16 bits. */
// @ts-ignore: decorator
@inline
function sumOfRows(upper: usize, lower: usize): v128 {
  const a = v128.load(upper)
  const b = v128.load(lower)
  const low = i16x8.add(i16x8.extend_low_i8x16_u(a), i16x8.extend_low_i8x16_u(b))
  const high = i16x8.add(i16x8.extend_high_i8x16_u(a), i16x8.extend_high_i8x16_u(b))
  // Pixels 0, 1 and 2, 3: the first of each pair beside the second.
  return i16x8.add(v128.shuffle<i64>(low, high, 0, 2), v128.shuffle<i64>(low, high, 1, 3))
}

// @ts-ignore: decorator
@inline
function weighed(pixel: usize, mask: usize): v128 {
  const weight = (<f32>255 - <f32>load<u8>(mask)) / <f32>255
  return f32x4.mul(f32x4.replace_lane(floatsOf(pixel), 3, 255), f32x4.splat(weight))
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
