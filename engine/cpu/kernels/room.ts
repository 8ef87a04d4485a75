// AssemblyScript: where the person is, and what becomes of the room.
import { packedOf, scaled } from './packed'

/** Luma (BT.709) of four packed pixels, 0..1. */
// @ts-ignore: decorator
@inline
function lumaOfFour(four: v128): v128 {
  const byte = i32x4.splat(255)
  const red = f32x4.convert_i32x4_u(v128.and(four, byte))
  const green = f32x4.convert_i32x4_u(v128.and(i32x4.shr_u(four, 8), byte))
  const blue = f32x4.convert_i32x4_u(v128.and(i32x4.shr_u(four, 16), byte))
  return f32x4.add(
    f32x4.add(f32x4.mul(red, f32x4.splat(0.2126 / 255)), f32x4.mul(green, f32x4.splat(0.7152 / 255))),
    f32x4.mul(blue, f32x4.splat(0.0722 / 255)),
  )
}

/** Four floats from 0 to 255, rounded to nearest, as bytes in the first lane. */
// @ts-ignore: decorator
@inline
function bytesOfFour(values: v128): v128 {
  const whole = f32x4.add(values, f32x4.splat(8388608))
  return v128.shuffle<u8>(whole, whole, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12)
}

/**
 * Moments for a guided fit (core/matte/guided-filter.ts), four floats a cell: luma, mask, luma², luma · mask. `sums` holds
 * luma added up, `scales` what makes it a mean.
 */
export function momentCells(sums: usize, scales: usize, mask: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const luma = load<f32>(sums + (i << 2)) * load<f32>(scales + (i << 2))
    const value = load<f32>(mask + (i << 2))
    v128.store(out + (i << 4), f32x4(luma, value, luma * luma, luma * value))
  }
}

/** Means of ±radius cells across into `spare` and down into `cells`, cut off at the borders; four floats a cell. */
export function boxCells(cells: usize, spare: usize, sums: usize, width: i32, height: i32, radius: i32): void {
  for (let y = 0; y < height; y += 1) {
    const row = cells + (<usize>(y * width) << 4)
    const to = spare + (<usize>(y * width) << 4)
    let sum = f32x4.splat(0)
    for (let x = 0; x <= min(radius, width - 1); x += 1) sum = f32x4.add(sum, v128.load(row + (<usize>x << 4)))
    for (let x = 0; x < width; x += 1) {
      const cellsIn = min(width - 1, x + radius) - max(0, x - radius) + 1
      v128.store(to + (<usize>x << 4), f32x4.mul(sum, f32x4.splat(<f32>1 / <f32>cellsIn)))
      if (x + radius + 1 < width) sum = f32x4.add(sum, v128.load(row + (<usize>(x + radius + 1) << 4)))
      if (x - radius >= 0) sum = f32x4.sub(sum, v128.load(row + (<usize>(x - radius) << 4)))
    }
  }
  for (let x = 0; x < width; x += 1) v128.store(sums + (<usize>x << 4), f32x4.splat(0))
  for (let y = 0; y <= min(radius, height - 1); y += 1) addCells(sums, spare + (<usize>(y * width) << 4), width)
  for (let y = 0; y < height; y += 1) {
    const scale = f32x4.splat(<f32>1 / <f32>(min(height - 1, y + radius) - max(0, y - radius) + 1))
    const to = cells + (<usize>(y * width) << 4)
    for (let x = 0; x < width; x += 1) v128.store(to + (<usize>x << 4), f32x4.mul(v128.load(sums + (<usize>x << 4)), scale))
    if (y + radius + 1 < height) addCells(sums, spare + (<usize>((y + radius + 1) * width) << 4), width)
    if (y - radius < 0) continue
    const gone = spare + (<usize>((y - radius) * width) << 4)
    for (let x = 0; x < width; x += 1) {
      v128.store(sums + (<usize>x << 4), f32x4.sub(v128.load(sums + (<usize>x << 4)), v128.load(gone + (<usize>x << 4))))
    }
  }
}

function addCells(sums: usize, row: usize, width: i32): void {
  for (let x = 0; x < width; x += 1) v128.store(sums + (<usize>x << 4), f32x4.add(v128.load(sums + (<usize>x << 4)), v128.load(row + (<usize>x << 4))))
}

/** Means of moments turned into gain and offset of the fit, in place. */
export function fitCells(cells: usize, count: i32, epsilon: f32): void {
  for (let i = 0; i < count; i += 1) {
    const mean = v128.load(cells + (i << 4))
    const luma = f32x4.extract_lane(mean, 0)
    const value = f32x4.extract_lane(mean, 1)
    const gain = (f32x4.extract_lane(mean, 3) - luma * value) / (f32x4.extract_lane(mean, 2) - luma * luma + epsilon)
    v128.store(cells + (i << 4), f32x4(gain, value - gain * luma, 0, 0))
  }
}

/** Gain and offset of each cell as two planes; `edge` is added to the offset. */
export function splitCells(cells: usize, gains: usize, offsets: usize, count: i32, edge: f32): void {
  for (let i = 0; i < count; i += 1) {
    store<f32>(gains + (i << 2), load<f32>(cells + (i << 4)))
    store<f32>(offsets + (i << 2), load<f32>(cells + (i << 4), 4) + edge)
  }
}

/** Adds luma codes of every second pixel of a row to cells; `cells` holds the cell of each pixel. */
export function addLumaRow(pixels: usize, count: i32, cells: usize, sums: usize): void {
  for (let x = 0; x < count; x += 2) {
    const pixel = load<u32>(pixels + (x << 2))
    const at = sums + (<usize>load<i32>(cells + (x << 2)) << 2)
    const luma = <f32>0.2126 * <f32>(pixel & 255) + <f32>0.7152 * <f32>((pixel >>> 8) & 255) + <f32>0.0722 * <f32>((pixel >>> 16) & 255)
    store<f32>(at, load<f32>(at) + luma)
  }
}

/**
 * The person's opacity in a row (core/matte/person-mask.ts), one byte a pixel. `gains` and `offsets` are rows of floats
 * already mixed between two mask rows, with room for four more; pixels `starts[c]` to `starts[c + 1]` lie between cells c and
 * c + 1, by `shares`. `kinds` is room for a byte a cell. May write up to 15 bytes past the row.
 */
export function personRow(
  pixels: usize, out: usize, gains: usize, offsets: usize, starts: usize, shares: usize, kinds: usize, lastCell: i32, low: f32, high: f32,
): void {
  const scale = <f32>1 / (high - low)
  store<f32>(gains + ((lastCell + 1) << 2), load<f32>(gains + (lastCell << 2)))
  store<f32>(offsets + ((lastCell + 1) << 2), load<f32>(offsets + (lastCell << 2)))
  markCells(gains, offsets, kinds, lastCell + 1, low, high)
  let cell = 0
  while (cell <= lastCell) {
    const kind = load<u8>(kinds + cell)
    let i = load<i32>(starts + (cell << 2))
    if (kind != MIXED) {
      // All pixels between these cells are alike, whatever their luma.
      do cell += 1
      while (cell <= lastCell && load<u8>(kinds + cell) == kind)
      const end = load<i32>(starts + (cell << 2))
      const value = i8x16.splat(<i8>kind)
      for (; i < end; i += 16) v128.store(out + i, value)
      continue
    }
    const end = load<i32>(starts + ((cell + 1) << 2))
    const gainFirst = v128.load32_splat(gains + (cell << 2))
    const offsetFirst = v128.load32_splat(offsets + (cell << 2))
    const gainStep = f32x4.sub(v128.load32_splat(gains + ((cell + 1) << 2)), gainFirst)
    const offsetStep = f32x4.sub(v128.load32_splat(offsets + ((cell + 1) << 2)), offsetFirst)
    // Four at a time; those past these two cells are written again with the next ones.
    for (; i < end; i += 4) {
      const share = v128.load(shares + (i << 2))
      const gain = f32x4.add(gainFirst, f32x4.mul(gainStep, share))
      const offset = f32x4.add(offsetFirst, f32x4.mul(offsetStep, share))
      const guided = f32x4.add(f32x4.mul(gain, lumaOfFour(v128.load(pixels + (i << 2)))), offset)
      const t = f32x4.max(f32x4.splat(0), f32x4.min(f32x4.splat(1), f32x4.mul(f32x4.sub(guided, f32x4.splat(low)), f32x4.splat(scale))))
      const smooth = f32x4.mul(f32x4.mul(t, t), f32x4.sub(f32x4.splat(3), f32x4.add(t, t)))
      v128.store32_lane(out + i, bytesOfFour(f32x4.mul(smooth, f32x4.splat(255))), 0)
    }
    cell += 1
  }
}

/** What lies between a cell and the next: nothing but the room (0), nothing but the person (255), or either. */
const MIXED: u8 = 1

/** Writes the kind of each cell; runs into slack. */
function markCells(gains: usize, offsets: usize, kinds: usize, count: i32, low: f32, high: f32): void {
  const zero = f32x4.splat(0)
  const room = f32x4.splat(low)
  const person = f32x4.splat(high)
  for (let c = 0; c < count; c += 4) {
    const gain = v128.load(gains + (c << 2))
    const offset = v128.load(offsets + (c << 2))
    const nextGain = v128.load(gains + ((c + 1) << 2))
    const nextOffset = v128.load(offsets + ((c + 1) << 2))
    const least = f32x4.min(f32x4.add(offset, f32x4.min(zero, gain)), f32x4.add(nextOffset, f32x4.min(zero, nextGain)))
    const most = f32x4.max(f32x4.add(offset, f32x4.max(zero, gain)), f32x4.add(nextOffset, f32x4.max(zero, nextGain)))
    const isPerson = f32x4.ge(least, person)
    const isRoom = f32x4.le(most, room)
    // All ones for the person; one for what is neither.
    const kind = v128.or(isPerson, v128.andnot(i32x4.splat(MIXED), isRoom))
    v128.store32_lane(kinds + c, v128.shuffle<u8>(kind, kind, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12), 0)
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
      for (let k = i; k < i + 4; k += 1) softenOne(pixels, mask, room, shares, cell, right, k)
    }
    for (; i < end; i += 1) softenOne(pixels, mask, room, shares, cell, right, i)
  }
}

function softenOne(pixels: usize, mask: usize, room: usize, shares: usize, left: i32, right: i32, i: i32): void {
  const alpha = <u32>load<u8>(mask + i)
  if (alpha == 255) return
  const from = v128.load(room + (<usize>left << 4))
  const mixed = f32x4.add(from, f32x4.mul(f32x4.sub(v128.load(room + (<usize>right << 4)), from), v128.load32_splat(shares + (i << 2))))
  const weight = f32x4.extract_lane(mixed, 3)
  if (weight < 0.255) return
  if (alpha == 0) {
    store<u32>(pixels + (i << 2), (packedOf(f32x4.mul(mixed, f32x4.splat(<f32>255 / weight))) & 0xffffff) | (load<u32>(pixels + (i << 2)) & 0xff000000))
    return
  }
  const share = <f32>alpha / <f32>255
  const colour = f32x4.add(
    f32x4.mul(floatsOf(pixels + (i << 2)), f32x4.splat(share)),
    f32x4.mul(mixed, f32x4.splat((<f32>1 - share) * <f32>255 / weight)),
  )
  store<u32>(pixels + (i << 2), (packedOf(colour) & 0xffffff) | (load<u32>(pixels + (i << 2)) & 0xff000000))
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
