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
