// AssemblyScript, compiled into kernels.wasm beside kernels.ts. Pictures whose colours stay as they are coded: no table is needed.

import { chromaOf, packColumns } from './chroma'

/** Of the shares that codes have in red, green and blue. */
const FRACTION_BITS = 13

/**
 * Pixels left..right of one 4:2:0 row as opaque packed RGBA, clipped and rounded to nearest. `shares` is written by yuv-coefficients.ts.
 * May write up to 15 pixels before `left` and past `right`. `scratch` as for treatI420Row.
 */
export function decodeI420Row(
  shares: usize, luma: usize, cbNear: usize, cbSide: usize, crNear: usize, crSide: usize,
  left: i32, right: i32, chromaWidth: i32, scratch: usize, line: usize,
): void {
  const cb = scratch + 16
  const cr = cb + ((chromaWidth + 16) << 1)
  const firstGroup = (left >> 1) & ~7
  const endColumn = (right + 1) >> 1
  packColumns(cb, cbNear, cbSide, firstGroup, endColumn, chromaWidth)
  packColumns(cr, crNear, crSide, firstGroup, endColumn, chromaWidth)
  const eight = i16x8.splat(8)
  const three = i16x8.splat(3)
  const red = v128.load(shares)
  const blue = v128.load(shares, 16)
  const greenByCr = v128.load(shares, 32)
  const greenByCb = v128.load(shares, 48)
  const redMore = v128.load(shares, 64)
  const greenMore = v128.load(shares, 80)
  const blueMore = v128.load(shares, 96)
  const opaque = i8x16.splat(-1)
  for (let column = firstGroup; column < endColumn; column += 8) {
    const u = chromaOf(cb + (column << 1), three, eight)
    const v = chromaOf(cr + (column << 1), three, eight)
    const y = v128.load(luma + (column << 1))
    const yLow = i16x8.extend_low_i8x16_u(y)
    const yHigh = i16x8.extend_high_i8x16_u(y)
    const uLow = i16x8.extend_low_i8x16_u(u)
    const uHigh = i16x8.extend_high_i8x16_u(u)
    const vLow = i16x8.extend_low_i8x16_u(v)
    const vHigh = i16x8.extend_high_i8x16_u(v)
    // Luma beside a difference, so that one instruction weighs and adds both.
    const byCr0 = v128.shuffle<u16>(yLow, vLow, 0, 8, 1, 9, 2, 10, 3, 11)
    const byCr1 = v128.shuffle<u16>(yLow, vLow, 4, 12, 5, 13, 6, 14, 7, 15)
    const byCr2 = v128.shuffle<u16>(yHigh, vHigh, 0, 8, 1, 9, 2, 10, 3, 11)
    const byCr3 = v128.shuffle<u16>(yHigh, vHigh, 4, 12, 5, 13, 6, 14, 7, 15)
    const byCb0 = v128.shuffle<u16>(yLow, uLow, 0, 8, 1, 9, 2, 10, 3, 11)
    const byCb1 = v128.shuffle<u16>(yLow, uLow, 4, 12, 5, 13, 6, 14, 7, 15)
    const byCb2 = v128.shuffle<u16>(yHigh, uHigh, 0, 8, 1, 9, 2, 10, 3, 11)
    const byCb3 = v128.shuffle<u16>(yHigh, uHigh, 4, 12, 5, 13, 6, 14, 7, 15)
    const r = bytesOf(weighed(byCr0, red, redMore), weighed(byCr1, red, redMore), weighed(byCr2, red, redMore), weighed(byCr3, red, redMore))
    const g = bytesOf(
      weighedTwice(byCr0, byCb0, greenByCr, greenByCb, greenMore),
      weighedTwice(byCr1, byCb1, greenByCr, greenByCb, greenMore),
      weighedTwice(byCr2, byCb2, greenByCr, greenByCb, greenMore),
      weighedTwice(byCr3, byCb3, greenByCr, greenByCb, greenMore),
    )
    const b = bytesOf(weighed(byCb0, blue, blueMore), weighed(byCb1, blue, blueMore), weighed(byCb2, blue, blueMore), weighed(byCb3, blue, blueMore))
    const redGreenLow = v128.shuffle<u8>(r, g, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23)
    const redGreenHigh = v128.shuffle<u8>(r, g, 8, 24, 9, 25, 10, 26, 11, 27, 12, 28, 13, 29, 14, 30, 15, 31)
    const blueLow = v128.shuffle<u8>(b, opaque, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23)
    const blueHigh = v128.shuffle<u8>(b, opaque, 8, 24, 9, 25, 10, 26, 11, 27, 12, 28, 13, 29, 14, 30, 15, 31)
    const at = line + (column << 3)
    v128.store(at, v128.shuffle<u16>(redGreenLow, blueLow, 0, 8, 1, 9, 2, 10, 3, 11))
    v128.store(at, v128.shuffle<u16>(redGreenLow, blueLow, 4, 12, 5, 13, 6, 14, 7, 15), 16)
    v128.store(at, v128.shuffle<u16>(redGreenHigh, blueHigh, 0, 8, 1, 9, 2, 10, 3, 11), 32)
    v128.store(at, v128.shuffle<u16>(redGreenHigh, blueHigh, 4, 12, 5, 13, 6, 14, 7, 15), 48)
  }
}

// @ts-ignore: decorator
@inline
function weighed(codes: v128, shares: v128, more: v128): v128 {
  return i32x4.shr_s(i32x4.add(i32x4.dot_i16x8_s(codes, shares), more), FRACTION_BITS)
}

// @ts-ignore: decorator
@inline
function weighedTwice(byCr: v128, byCb: v128, crShares: v128, cbShares: v128, more: v128): v128 {
  return i32x4.shr_s(i32x4.add(i32x4.add(i32x4.dot_i16x8_s(byCr, crShares), i32x4.dot_i16x8_s(byCb, cbShares)), more), FRACTION_BITS)
}

/** Four times four whole numbers as bytes, clipped. */
// @ts-ignore: decorator
@inline
function bytesOf(a: v128, b: v128, c: v128, d: v128): v128 {
  return i8x16.narrow_i16x8_u(i16x8.narrow_i32x4_s(a, b), i16x8.narrow_i32x4_s(c, d))
}
