// AssemblyScript, compiled to kernels.wasm by scripts/build-kernels.mjs. Loops over packed RGBA,
// premultiplied, red in the low byte, sRGB-encoded, rows from the top. No kernel knows a step:
// what steps do to colours reaches it as a table. Pointers are byte offsets into one memory.

import { chromaOf, packColumns } from './chroma'
import { entriesOf, noteMiss, placeOf, placesOfFour, thinnedFour } from './packed'

const CLEAR: u32 = 1

/**
 * Treats pixels left..right of one 4:2:0 row. Chroma is interpolated as core/picture/i420.ts says:
 * vertically into `scratch`, then horizontally, rounded. Looks each 24-bit code up in `table`; codes
 * without an entry are listed at `missing`, each with the address its pixel goes to. Returns how many are listed. May write up to 15 pixels
 * past `right`. `scratch` needs 4·(chromaWidth + 32) bytes.
 */
export function treatI420Row(
  table: usize, luma: usize, cbNear: usize, cbSide: usize, crNear: usize, crSide: usize,
  left: i32, right: i32, chromaWidth: i32, scratch: usize, line: usize, missing: usize,
): i32 {
  const cb = scratch + 16
  const cr = cb + ((chromaWidth + 16) << 1)
  const firstGroup = (left >> 1) & ~7
  const endColumn = (right + 1) >> 1
  packColumns(cb, cbNear, cbSide, firstGroup, endColumn, chromaWidth)
  packColumns(cr, crNear, crSide, firstGroup, endColumn, chromaWidth)
  const eight = i16x8.splat(8)
  const three = i16x8.splat(3)
  let count = 0
  for (let column = firstGroup; column < endColumn; column += 8) {
    const u = chromaOf(cb + (column << 1), three, eight)
    const v = chromaOf(cr + (column << 1), three, eight)
    const y = v128.load(luma + (column << 1))
    const chromaLow = v128.shuffle<u8>(v, u, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23)
    const chromaHigh = v128.shuffle<u8>(v, u, 8, 24, 9, 25, 10, 26, 11, 27, 12, 28, 13, 29, 14, 30, 15, 31)
    const lumaLow = i16x8.extend_low_i8x16_u(y)
    const lumaHigh = i16x8.extend_high_i8x16_u(y)
    const at = line + (column << 3)
    count = lookUpFour(table, v128.shuffle<u16>(chromaLow, lumaLow, 0, 8, 1, 9, 2, 10, 3, 11), at, missing, count)
    count = lookUpFour(table, v128.shuffle<u16>(chromaLow, lumaLow, 4, 12, 5, 13, 6, 14, 7, 15), at + 16, missing, count)
    count = lookUpFour(table, v128.shuffle<u16>(chromaHigh, lumaHigh, 0, 8, 1, 9, 2, 10, 3, 11), at + 32, missing, count)
    count = lookUpFour(table, v128.shuffle<u16>(chromaHigh, lumaHigh, 4, 12, 5, 13, 6, 14, 7, 15), at + 48, missing, count)
  }
  return count
}

// @ts-ignore: decorator
@inline
function lookUpFour(table: usize, codes: v128, out: usize, missing: usize, count: i32): i32 {
  const places = placesOfFour(codes)
  const code0 = <u32>i32x4.extract_lane(places, 0)
  const code1 = <u32>i32x4.extract_lane(places, 1)
  const code2 = <u32>i32x4.extract_lane(places, 2)
  const code3 = <u32>i32x4.extract_lane(places, 3)
  const entry0 = load<u32>(table + (<usize>code0 << 2))
  const entry1 = load<u32>(table + (<usize>code1 << 2))
  const entry2 = load<u32>(table + (<usize>code2 << 2))
  const entry3 = load<u32>(table + (<usize>code3 << 2))
  store<u32>(out, entry0)
  store<u32>(out, entry1, 4)
  store<u32>(out, entry2, 8)
  store<u32>(out, entry3, 12)
  if (entry0 == 0) { noteMiss(missing, count, code0, out + 0); count += 1 }
  if (entry1 == 0) { noteMiss(missing, count, code1, out + 4); count += 1 }
  if (entry2 == 0) { noteMiss(missing, count, code2, out + 8); count += 1 }
  if (entry3 == 0) { noteMiss(missing, count, code3, out + 12); count += 1 }
  return count
}

/** As treatI420Row, for `count` straight RGBA pixels; their own alpha thins the result. */
export function treatRgbaRow(table: usize, source: usize, count: i32, line: usize, missing: usize): i32 {
  let misses = 0
  const opaque = i32x4.splat(0xff000000)
  for (let i = 0; i < count; i += 1) {
    if ((i & 3) == 0 && i + 4 <= count) {
      const four = v128.load(source + (i << 2))
      const alphas = v128.and(four, opaque)
      if (!v128.any_true(alphas)) {
        v128.store(line + (i << 2), i32x4.splat(CLEAR))
        i += 3
        continue
      }
      if (i32x4.all_true(i32x4.eq(alphas, opaque))) {
        const entries = entriesOf(table, placesOfFour(v128.andnot(four, opaque)))
        if (i32x4.all_true(entries)) {
          v128.store(line + (i << 2), entries)
          i += 3
          continue
        }
      }
    }
    const pixel = load<u32>(source + (i << 2))
    const alpha = pixel >>> 24
    if (alpha == 0) {
      store<u32>(line + (i << 2), CLEAR)
      continue
    }
    const code = placeOf(pixel & 0xffffff)
    const entry = load<u32>(table + (<usize>code << 2))
    if (entry == 0) {
      noteMiss(missing, misses, code, line + (i << 2))
      misses += 1
    }
    store<u32>(line + (i << 2), alpha == 255 ? entry : scalePacked(entry, alpha))
  }
  return misses
}

/** Four channels × weight / 255, each rounded to nearest. */
function scalePacked(packed: u32, weight: u32): u32 {
  let low = (packed & 0xff00ff) * weight + 0x800080
  low = ((low + ((low >>> 8) & 0xff00ff)) >>> 8) & 0xff00ff
  let high = ((packed >>> 8) & 0xff00ff) * weight + 0x800080
  high = (high + ((high >>> 8) & 0xff00ff)) & 0xff00ff00
  return low | high
}

// @ts-ignore: decorator
@inline
function scaleFour(packed: v128, weight: v128): v128 {
  const half = i16x8.splat(128)
  const low = i16x8.add(i16x8.mul(i16x8.extend_low_i8x16_u(packed), i16x8.extend_low_i8x16_u(weight)), half)
  const high = i16x8.add(i16x8.mul(i16x8.extend_high_i8x16_u(packed), i16x8.extend_high_i8x16_u(weight)), half)
  return i8x16.narrow_i16x8_u(
    i16x8.shr_u(i16x8.add(low, i16x8.shr_u(low, 8)), 8),
    i16x8.shr_u(i16x8.add(high, i16x8.shr_u(high, 8)), 8),
  )
}

// @ts-ignore: decorator
@inline
function overFour(source: v128, base: v128): v128 {
  const alpha = v128.shuffle<u8>(source, source, 3, 3, 3, 3, 7, 7, 7, 7, 11, 11, 11, 11, 15, 15, 15, 15)
  // A clear entry carries a one in red; it must not show.
  const shown = v128.andnot(source, i8x16.eq(alpha, i8x16.splat(0)))
  return i8x16.add(shown, scaleFour(base, v128.not(alpha)))
}

function overOne(source: u32, base: u32): u32 {
  const alpha = source >>> 24
  return alpha == 0 ? base : source + scalePacked(base, 255 - alpha)
}

/** Puts `count` pixels of `line` over `base` into `out`: out = s + b·(255 − αs)/255 per channel. */
export function blendRow(line: usize, base: usize, out: usize, count: i32): void {
  const whole = count & ~3
  const opaque = i32x4.splat(0xff000000)
  for (let i = 0; i < whole; i += 4) {
    const at = i << 2
    const source = v128.load(line + at)
    const alphas = v128.and(source, opaque)
    // Most of a picture is wholly there or wholly clear.
    if (i32x4.all_true(i32x4.eq(alphas, opaque))) v128.store(out + at, source)
    else if (v128.any_true(alphas)) v128.store(out + at, overFour(source, v128.load(base + at)))
    else if (out != base) v128.store(out + at, v128.load(base + at))
  }
  for (let i = whole; i < count; i += 1) {
    const at = i << 2
    store<u32>(out + at, overOne(load<u32>(line + at), load<u32>(base + at)))
  }
}

/** As blendRow, each source pixel first multiplied by its byte of `mask` / 255. */
export function blendMaskedRow(line: usize, base: usize, out: usize, count: i32, mask: usize): void {
  const whole = count & ~3
  for (let i = 0; i < whole; i += 4) {
    const at = i << 2
    v128.store(out + at, overFour(thinnedFour(v128.load(line + at), mask + i), v128.load(base + at)))
  }
  for (let i = whole; i < count; i += 1) {
    const at = i << 2
    store<u32>(out + at, overOne(scalePacked(load<u32>(line + at), load<u8>(mask + i)), load<u32>(base + at)))
  }
}

/** Puts opaque pixels of `line` over `base` with one weight (of 255) for all: out = (s·w + b·(255 − w)) / 255, rounded once. */
export function mixRow(line: usize, base: usize, out: usize, count: i32, weight: u32): void {
  const own = i16x8.splat(<i16>weight)
  const rest = i16x8.splat(<i16>(255 - weight))
  const whole = count & ~3
  for (let i = 0; i < whole; i += 4) {
    const at = i << 2
    const s = v128.load(line + at)
    const b = v128.load(base + at)
    const low = i16x8.add(i16x8.mul(i16x8.extend_low_i8x16_u(s), own), i16x8.mul(i16x8.extend_low_i8x16_u(b), rest))
    const high = i16x8.add(i16x8.mul(i16x8.extend_high_i8x16_u(s), own), i16x8.mul(i16x8.extend_high_i8x16_u(b), rest))
    v128.store(out + at, i8x16.narrow_i16x8_u(over255(low), over255(high)))
  }
  for (let i = whole; i < count; i += 1) {
    const at = i << 2
    const s = i16x8.mul(i16x8.extend_low_i8x16_u(v128.load32_zero(line + at)), own)
    const b = i16x8.mul(i16x8.extend_low_i8x16_u(v128.load32_zero(base + at)), rest)
    const mixed = over255(i16x8.add(s, b))
    v128.store32_lane(out + at, i8x16.narrow_i16x8_u(mixed, mixed), 0)
  }
}

/** Numerators up to 255² over 255, rounded to nearest. */
// @ts-ignore: decorator
@inline
function over255(products: v128): v128 {
  const product = i16x8.add(products, i16x8.splat(128))
  return i16x8.shr_u(i16x8.add(product, i16x8.shr_u(product, 8)), 8)
}

/** Sets `count` pixels. */
export function fillRow(out: usize, count: i32, value: u32): void {
  for (let i = 0; i < count; i += 1) store<u32>(out + (i << 2), value)
}

/** Copies `height` rows of `widthBytes`, both sides `strideBytes` apart. */
export function copyRows(from: usize, to: usize, widthBytes: usize, strideBytes: usize, height: i32): void {
  for (let y = 0; y < height; y += 1) {
    memory.copy(to, from, widthBytes)
    from += strideBytes
    to += strideBytes
  }
}


/** Opaque grey pixels of each pixel's alpha. `out` may be `source`. */
export function alphaToGrey(source: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const alpha = load<u32>(source + (i << 2)) >>> 24
    store<u32>(out + (i << 2), 0xff000000 | (alpha * 0x10101))
  }
}
