// AssemblyScript, compiled into kernels.wasm beside kernels.ts. Pictures drawn at another size or turned: packed RGBA,
// premultiplied, red in the low byte, sRGB-encoded.

// @ts-ignore: decorator
@inline
function mixPacked(a: u32, b: u32, weight: u32): u32 {
  const rest = 256 - weight
  const low = (a & 0xff00ff) * rest + (b & 0xff00ff) * weight + 0x800080
  const high = ((a >>> 8) & 0xff00ff) * rest + ((b >>> 8) & 0xff00ff) * weight + 0x800080
  return ((low >>> 8) & 0xff00ff) | (high & 0xff00ff00)
}

/** As mixPacked, of four pixels. */
// @ts-ignore: decorator
@inline
function mixFour(a: v128, b: v128, rest: v128, weight: v128): v128 {
  const half = i16x8.splat(128)
  const low = i16x8.add(i16x8.mul(i16x8.extend_low_i8x16_u(a), rest), i16x8.mul(i16x8.extend_low_i8x16_u(b), weight))
  const high = i16x8.add(i16x8.mul(i16x8.extend_high_i8x16_u(a), rest), i16x8.mul(i16x8.extend_high_i8x16_u(b), weight))
  return i8x16.narrow_i16x8_u(i16x8.shr_u(i16x8.add(low, half), 8), i16x8.shr_u(i16x8.add(high, half), 8))
}

/** Two pixels beside each other mixed by the weights of a column, as four numbers of 16 bits twice: what of the left and what of the right. */
// @ts-ignore: decorator
@inline
function weighedPair(mixed: usize, column: usize): v128 {
  // Left weight four times, right weight four times.
  const weights = i8x16.swizzle(v128.load32_zero(column, 4), i8x16(0, 1, 0, 1, 0, 1, 0, 1, 2, 3, 2, 3, 2, 3, 2, 3))
  return i16x8.mul(v128.load8x8_u(mixed + (<usize>load<u32>(column))), weights)
}

/** Left and right of two pixels added and rounded. */
// @ts-ignore: decorator
@inline
function joinedPairs(first: v128, second: v128, half: v128): v128 {
  const lefts = v128.shuffle<u64>(first, second, 0, 2)
  const rights = v128.shuffle<u64>(first, second, 1, 3)
  return i16x8.shr_u(i16x8.add(i16x8.add(lefts, rights), half), 8)
}

/**
 * One upright canvas row: `upper` and `lower` mixed by `rowWeight` (of 256) into `mixed` for columns
 * first..last, then `count` canvas pixels into `line`. `columns` holds of each two words: how many bytes into `mixed` its left pixel
 * lies, and the weights of left and right as half words, 256 together. Of the last pixel of a picture the weight of what lies right
 * of it is 0.
 */
export function scaleRow(
  upper: usize, lower: usize, rowWeight: u32, first: i32, last: i32,
  mixed: usize, columns: usize, count: i32, line: usize,
): void {
  const lowerWeights = i16x8.splat(<i16>rowWeight)
  const upperWeights = i16x8.splat(<i16>(256 - rowWeight))
  let x = first
  for (; x + 3 <= last; x += 4) {
    const at = x << 2
    v128.store(mixed + at, mixFour(v128.load(upper + at), v128.load(lower + at), upperWeights, lowerWeights))
  }
  for (; x <= last; x += 1) {
    const at = x << 2
    store<u32>(mixed + at, mixPacked(load<u32>(upper + at), load<u32>(lower + at), rowWeight))
  }
  const half = i16x8.splat(128)
  const whole = count & ~3
  let column = columns
  for (let i = 0; i < whole; i += 4) {
    const low = joinedPairs(weighedPair(mixed, column), weighedPair(mixed, column + 8), half)
    const high = joinedPairs(weighedPair(mixed, column + 16), weighedPair(mixed, column + 24), half)
    v128.store(line + (i << 2), i8x16.narrow_i16x8_u(low, high))
    column += 32
  }
  for (let i = whole; i < count; i += 1) {
    const pair = weighedPair(mixed, column)
    const result = joinedPairs(pair, pair, half)
    v128.store32_lane(line + (i << 2), i8x16.narrow_i16x8_u(result, result), 0)
    column += 8
  }
}

/**
 * One upright canvas row of a picture that is drawn smaller: `rows` rows, weighed, into `mixed` for columns first..last, then `count`
 * canvas pixels into `line`. `table` holds of each row two words: where it lies and its weight. `columns` holds of each canvas pixel the
 * bytes into `mixed` before its first pixel, then `pairs` words with the weights of two pixels as half words. Weights are 256 together.
 */
export function shrinkRow(
  table: usize, rows: i32, first: i32, last: i32, mixed: usize, columns: usize, pairs: i32, count: i32, line: usize,
): void {
  const half = i16x8.splat(128)
  const tableEnd = table + (<usize>rows << 3)
  let x = first
  for (; x + 3 <= last; x += 4) {
    const at = <usize>x << 2
    let low = half
    let high = half
    for (let row = table; row < tableEnd; row += 8) {
      const pixels = v128.load(<usize>load<u32>(row) + at)
      const weight = v128.load16_splat(row, 4)
      low = i16x8.add(low, i16x8.mul(i16x8.extend_low_i8x16_u(pixels), weight))
      high = i16x8.add(high, i16x8.mul(i16x8.extend_high_i8x16_u(pixels), weight))
    }
    v128.store(mixed + at, i8x16.narrow_i16x8_u(i16x8.shr_u(low, 8), i16x8.shr_u(high, 8)))
  }
  for (; x <= last; x += 1) {
    const at = <usize>x << 2
    let low = half
    for (let row = table; row < tableEnd; row += 8) {
      const pixel = i16x8.extend_low_i8x16_u(v128.load32_zero(<usize>load<u32>(row) + at))
      low = i16x8.add(low, i16x8.mul(pixel, v128.load16_splat(row, 4)))
    }
    const rounded = i16x8.shr_u(low, 8)
    v128.store32_lane(mixed + at, i8x16.narrow_i16x8_u(rounded, rounded), 0)
  }
  const columnBytes = <usize>(pairs + 1) << 2
  let column = columns
  for (let i = 0; i < count; i += 1) {
    let from = mixed + <usize>load<u32>(column)
    const end = column + columnBytes
    let sides = i16x8.splat(0)
    for (let pair = column + 4; pair < end; pair += 4) {
      const weights = i8x16.swizzle(v128.load32_zero(pair), i8x16(0, 1, 0, 1, 0, 1, 0, 1, 2, 3, 2, 3, 2, 3, 2, 3))
      sides = i16x8.add(sides, i16x8.mul(v128.load8x8_u(from), weights))
      from += 8
    }
    const sum = i16x8.add(i16x8.add(sides, v128.shuffle<i16>(sides, sides, 4, 5, 6, 7, 4, 5, 6, 7)), half)
    const result = i16x8.shr_u(sum, 8)
    v128.store32_lane(line + (<usize>i << 2), i8x16.narrow_i16x8_u(result, result), 0)
    column = end
  }
}

/** As turnRow, of a picture that is drawn smaller: each pixel the mean of a box of `across` × `down` pixels of it, at least one each. */
export function turnShrunkRow(
  pixels: usize, width: i32, height: i32, startX: f64, startY: f64, stepX: f64, stepY: f64, across: f64, down: f64, count: i32, line: usize,
): void {
  const area = <f32>(1.0 / (across * down))
  const half = f32x4.splat(0.5)
  for (let i = 0; i < count; i += 1) {
    // Pixel k covers k..k+1.
    const left = startX + stepX * <f64>i + 0.5 - across / 2
    const top = startY + stepY * <f64>i + 0.5 - down / 2
    const right = left + across
    const bottom = top + down
    const firstColumn = <i32>Math.floor(left)
    const endColumn = <i32>Math.ceil(right)
    const endRow = <i32>Math.ceil(bottom)
    let sum = f32x4.splat(0)
    for (let row = <i32>Math.floor(top); row < endRow; row += 1) {
      const tall = <f32>(min<f64>(bottom, <f64>(row + 1)) - max<f64>(top, <f64>row))
      const rowAt = pixels + (<usize>(min<i32>(height - 1, max<i32>(0, row)) * width) << 2)
      for (let x = firstColumn; x < endColumn; x += 1) {
        const wide = <f32>(min<f64>(right, <f64>(x + 1)) - max<f64>(left, <f64>x))
        const pixel = v128.load32_zero(rowAt + (<usize>min<i32>(width - 1, max<i32>(0, x)) << 2))
        const channels = f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(pixel)))
        sum = f32x4.add(sum, f32x4.mul(channels, f32x4.splat(wide * tall * area)))
      }
    }
    const result = i32x4.trunc_sat_f32x4_u(f32x4.add(sum, half))
    const packed = i16x8.narrow_i32x4_u(result, result)
    v128.store32_lane(line + (<usize>i << 2), i8x16.narrow_i16x8_u(packed, packed), 0)
  }
}

/** `count` canvas pixels of a turned row; source position starts at (x, y), half-pixel already taken off. */
export function turnRow(
  pixels: usize, width: i32, height: i32, startX: f64, startY: f64, stepX: f64, stepY: f64, count: i32, line: usize,
): void {
  // Positions have 32 bits of fraction: exact enough over any row, and quicker than doubles.
  const mostX = <i64>(width - 1) << 32
  const mostY = <i64>(height - 1) << 32
  const unit: f64 = 4294967296.0
  const dx = <i64>(stepX * unit)
  const dy = <i64>(stepY * unit)
  let atX = <i64>(startX * unit)
  let atY = <i64>(startY * unit)
  const half = i16x8.splat(128)
  for (let i = 0; i < count; i += 1) {
    const x = min<i64>(mostX, max<i64>(0, atX))
    const y = min<i64>(mostY, max<i64>(0, atY))
    atX += dx
    atY += dy
    const left = <i32>(x >> 32)
    const top = <i32>(y >> 32)
    const weightX = (<u32>x >>> 24) + ((<u32>x >>> 23) & 1)
    const weightY = (<u32>y >>> 24) + ((<u32>y >>> 23) & 1)
    const corner = pixels + (<usize>(top * width + left) << 2)
    const under = top < height - 1 ? corner + (<usize>width << 2) : corner
    // Left and right pixel side by side; at the right border the weight of what lies beyond is 0.
    const upper = i16x8.extend_low_i8x16_u(v128.load64_zero(corner))
    const lower = i16x8.extend_low_i8x16_u(v128.load64_zero(under))
    const down = i16x8.splat(<i16>weightY)
    const up = i16x8.splat(<i16>(256 - weightY))
    const column = i16x8.shr_u(i16x8.add(i16x8.add(i16x8.mul(upper, up), i16x8.mul(lower, down)), half), 8)
    const rightShare = i16x8.splat(<i16>weightX)
    const leftShare = i16x8.splat(<i16>(256 - weightX))
    const sides = i16x8.add(i16x8.mul(column, leftShare), i16x8.mul(v128.shuffle<i16>(column, column, 4, 5, 6, 7, 4, 5, 6, 7), rightShare))
    const result = i16x8.shr_u(i16x8.add(sides, half), 8)
    v128.store32_lane(line + (i << 2), i8x16.narrow_i16x8_u(result, result), 0)
  }
}

/** Even and odd pixels of eight, of both rows, added as 16-bit numbers and turned into four means. */
// @ts-ignore: decorator
@inline
function meansOfFour(upper: usize, lower: usize): v128 {
  const upperLeft = v128.load(upper)
  const upperRight = v128.load(upper, 16)
  const lowerLeft = v128.load(lower)
  const lowerRight = v128.load(lower, 16)
  const upperEven = v128.shuffle<u32>(upperLeft, upperRight, 0, 2, 4, 6)
  const upperOdd = v128.shuffle<u32>(upperLeft, upperRight, 1, 3, 5, 7)
  const lowerEven = v128.shuffle<u32>(lowerLeft, lowerRight, 0, 2, 4, 6)
  const lowerOdd = v128.shuffle<u32>(lowerLeft, lowerRight, 1, 3, 5, 7)
  const two = i16x8.splat(2)
  const low = i16x8.add(
    i16x8.add(i16x8.extend_low_i8x16_u(upperEven), i16x8.extend_low_i8x16_u(upperOdd)),
    i16x8.add(i16x8.extend_low_i8x16_u(lowerEven), i16x8.extend_low_i8x16_u(lowerOdd)),
  )
  const high = i16x8.add(
    i16x8.add(i16x8.extend_high_i8x16_u(upperEven), i16x8.extend_high_i8x16_u(upperOdd)),
    i16x8.add(i16x8.extend_high_i8x16_u(lowerEven), i16x8.extend_high_i8x16_u(lowerOdd)),
  )
  return i8x16.narrow_i16x8_u(i16x8.shr_u(i16x8.add(low, two), 2), i16x8.shr_u(i16x8.add(high, two), 2))
}

/** Half the size: 2×2 means, rounded to nearest; a single row or column stays. */
export function halve(source: usize, sourceWidth: i32, sourceHeight: i32, out: usize, width: i32, height: i32): void {
  const right: usize = sourceWidth > 1 ? 4 : 0
  const below: usize = sourceHeight > 1 ? <usize>sourceWidth << 2 : 0
  for (let y = 0; y < height; y += 1) {
    let upper = source + (<usize>(2 * y * sourceWidth) << 2)
    let lower = upper + below
    let at = out + (<usize>(y * width) << 2)
    let x = 0
    if (right != 0) {
      for (; x + 3 < width; x += 4) {
        v128.store(at, meansOfFour(upper, lower))
        upper += 32
        lower += 32
        at += 16
      }
    }
    for (; x < width; x += 1) {
      const a = load<u32>(upper)
      const b = load<u32>(upper + right)
      const c = load<u32>(lower)
      const d = load<u32>(lower + right)
      const low = (a & 0xff00ff) + (b & 0xff00ff) + (c & 0xff00ff) + (d & 0xff00ff) + 0x20002
      const high = ((a >>> 8) & 0xff00ff) + ((b >>> 8) & 0xff00ff) + ((c >>> 8) & 0xff00ff) + ((d >>> 8) & 0xff00ff) + 0x20002
      store<u32>(at, ((low >>> 2) & 0xff00ff) | (((high >>> 2) & 0xff00ff) << 8))
      upper += 8
      lower += 8
      at += 4
    }
  }
}
