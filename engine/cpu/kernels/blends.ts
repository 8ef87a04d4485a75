// AssemblyScript: blend modes on rows of packed, premultiplied pixels; core/blend holds the formulas. Each kernel puts `count`
// pixels of `line` over `base` into `out`, any of which may be the same. Whole codes, one rounding: within half a code.
//
// Premultiplied, a mode is s·(255 − αb) + b·(255 − αs) + αs·αb·B, over 255. Where B is made of products and choices the last
// term is too, so no division is needed; no term or sum that counts exceeds 255². The alpha lane comes out right by B(1, 1) = 1.

import { rounded, thinnedFour } from './packed'

const MULTIPLY = 0
const SCREEN = 1
const OVERLAY = 2
const DARKEN = 3
const LIGHTEN = 4
const HARD_LIGHT = 5
const DIFFERENCE = 6
const EXCLUSION = 7

export function blendMultiplyRow(line: usize, base: usize, out: usize, count: i32): void { blendProducts(MULTIPLY, line, base, out, count) }
export function blendScreenRow(line: usize, base: usize, out: usize, count: i32): void { blendProducts(SCREEN, line, base, out, count) }
export function blendOverlayRow(line: usize, base: usize, out: usize, count: i32): void { blendProducts(OVERLAY, line, base, out, count) }
export function blendDarkenRow(line: usize, base: usize, out: usize, count: i32): void { blendProducts(DARKEN, line, base, out, count) }
export function blendLightenRow(line: usize, base: usize, out: usize, count: i32): void { blendProducts(LIGHTEN, line, base, out, count) }
export function blendHardLightRow(line: usize, base: usize, out: usize, count: i32): void { blendProducts(HARD_LIGHT, line, base, out, count) }
export function blendDifferenceRow(line: usize, base: usize, out: usize, count: i32): void { blendProducts(DIFFERENCE, line, base, out, count) }
export function blendExclusionRow(line: usize, base: usize, out: usize, count: i32): void { blendProducts(EXCLUSION, line, base, out, count) }

/** Light added: saturates. */
export function blendPlusLighterRow(line: usize, base: usize, out: usize, count: i32): void {
  let i = 0
  for (; i + 4 <= count; i += 4) {
    const at = i << 2
    v128.store(out + at, i8x16.add_sat_u(v128.load(line + at), v128.load(base + at)))
  }
  for (; i < count; i += 1) {
    const at = i << 2
    v128.store32_lane(out + at, i8x16.add_sat_u(v128.load32_zero(line + at), v128.load32_zero(base + at)), 0)
  }
}

/** `mode` is known where this is put in, so that only its own arithmetic is left. */
// @ts-ignore: decorator
@inline
function blendProducts(mode: i32, line: usize, base: usize, out: usize, count: i32): void {
  let i = 0
  for (; i + 4 <= count; i += 4) {
    const at = i << 2
    v128.store(out + at, blendFour(mode, v128.load(line + at), v128.load(base + at)))
  }
  for (; i < count; i += 1) {
    const at = i << 2
    v128.store32_lane(out + at, blendFour(mode, v128.load32_zero(line + at), v128.load32_zero(base + at)), 0)
  }
}

// @ts-ignore: decorator
@inline
function blendFour(mode: i32, source: v128, backdrop: v128): v128 {
  const sourceAlpha = v128.shuffle<u8>(source, source, 3, 3, 3, 3, 7, 7, 7, 7, 11, 11, 11, 11, 15, 15, 15, 15)
  const baseAlpha = v128.shuffle<u8>(backdrop, backdrop, 3, 3, 3, 3, 7, 7, 7, 7, 11, 11, 11, 11, 15, 15, 15, 15)
  const low = blendTwo(
    mode,
    i16x8.extend_low_i8x16_u(source),
    i16x8.extend_low_i8x16_u(backdrop),
    i16x8.extend_low_i8x16_u(sourceAlpha),
    i16x8.extend_low_i8x16_u(baseAlpha),
  )
  const high = blendTwo(
    mode,
    i16x8.extend_high_i8x16_u(source),
    i16x8.extend_high_i8x16_u(backdrop),
    i16x8.extend_high_i8x16_u(sourceAlpha),
    i16x8.extend_high_i8x16_u(baseAlpha),
  )
  return i8x16.narrow_i16x8_u(low, high)
}

/** Two pixels in sixteen bits each. Sums that are too large in between come back by what is taken away: all is modulo 2^16. */
// @ts-ignore: decorator
@inline
function blendTwo(mode: i32, s: v128, b: v128, sa: v128, ba: v128): v128 {
  const full = i16x8.splat(255)
  let total: v128
  if (mode == SCREEN) total = i16x8.sub(i16x8.mul(full, i16x8.add(s, b)), i16x8.mul(s, b))
  else if (mode == EXCLUSION || mode == DIFFERENCE) {
    const both = mode == EXCLUSION ? i16x8.mul(s, b) : i16x8.min_u(i16x8.mul(s, ba), i16x8.mul(b, sa))
    // Taken away twice from colours, once from alpha.
    const twice = i16x8.shl(both, 1)
    const taken = v128.bitselect(both, twice, i64x2.splat(-281474976710656))
    total = i16x8.sub(i16x8.mul(full, i16x8.add(s, b)), taken)
  } else {
    const apart = i16x8.add(i16x8.mul(s, i16x8.sub(full, ba)), i16x8.mul(b, i16x8.sub(full, sa)))
    let together: v128
    if (mode == MULTIPLY) together = i16x8.mul(s, b)
    else if (mode == DARKEN) together = i16x8.min_u(i16x8.mul(s, ba), i16x8.mul(b, sa))
    else if (mode == LIGHTEN) together = i16x8.max_u(i16x8.mul(s, ba), i16x8.mul(b, sa))
    else {
      const dark = i16x8.shl(i16x8.mul(s, b), 1)
      const light = i16x8.sub(i16x8.mul(sa, ba), i16x8.shl(i16x8.mul(i16x8.sub(sa, s), i16x8.sub(ba, b)), 1))
      const isDark = mode == HARD_LIGHT ? i16x8.le_u(i16x8.shl(s, 1), sa) : i16x8.le_u(i16x8.shl(b, 1), ba)
      together = v128.bitselect(dark, light, isDark)
    }
    total = i16x8.add(apart, together)
  }
  const half = i16x8.add(total, i16x8.splat(128))
  return i16x8.shr_u(i16x8.add(half, i16x8.shr_u(half, 8)), 8)
}

const SOFT_LIGHT = 0
const COLOR_DODGE = 1
const COLOR_BURN = 2
const HUE = 3
const SATURATION = 4
const COLOR = 5
const LUMINOSITY = 6

export function blendSoftLightRow(line: usize, base: usize, out: usize, count: i32): void { blendColours(SOFT_LIGHT, line, base, out, count) }
export function blendColorDodgeRow(line: usize, base: usize, out: usize, count: i32): void { blendColours(COLOR_DODGE, line, base, out, count) }
export function blendColorBurnRow(line: usize, base: usize, out: usize, count: i32): void { blendColours(COLOR_BURN, line, base, out, count) }
export function blendHueRow(line: usize, base: usize, out: usize, count: i32): void { blendColours(HUE, line, base, out, count) }
export function blendSaturationRow(line: usize, base: usize, out: usize, count: i32): void { blendColours(SATURATION, line, base, out, count) }
export function blendColorRow(line: usize, base: usize, out: usize, count: i32): void { blendColours(COLOR, line, base, out, count) }
export function blendLuminosityRow(line: usize, base: usize, out: usize, count: i32): void { blendColours(LUMINOSITY, line, base, out, count) }

/** Modes that divide, take roots or mix whole colours: four pixels at a time, each channel in a vector of its own. */
// @ts-ignore: decorator
@inline
function blendColours(mode: i32, line: usize, base: usize, out: usize, count: i32): void {
  let i = 0
  for (; i + 4 <= count; i += 4) {
    const at = i << 2
    v128.store(out + at, coloursOfFour(mode, v128.load(line + at), v128.load(base + at)))
  }
  for (; i < count; i += 1) {
    const at = i << 2
    v128.store32_lane(out + at, coloursOfFour(mode, v128.load32_zero(line + at), v128.load32_zero(base + at)), 0)
  }
}

// @ts-ignore: decorator
@inline
function coloursOfFour(mode: i32, source: v128, backdrop: v128): v128 {
  const sa = f32x4.convert_i32x4_u(i32x4.shr_u(source, 24))
  const ba = f32x4.convert_i32x4_u(i32x4.shr_u(backdrop, 24))
  const sr = channelOf(source, 0)
  const sg = channelOf(source, 8)
  const sb = channelOf(source, 16)
  const br = channelOf(backdrop, 0)
  const bg = channelOf(backdrop, 8)
  const bb = channelOf(backdrop, 16)
  const one = f32x4.splat(1)
  // A clear pixel has no colour: anything will do, since its weight is nothing.
  const ofSource = f32x4.div(one, f32x4.max(sa, one))
  const ofBase = f32x4.div(one, f32x4.max(ba, one))
  let red: v128
  let green: v128
  let blue: v128
  if (mode >= HUE) {
    const csr = f32x4.mul(sr, ofSource)
    const csg = f32x4.mul(sg, ofSource)
    const csb = f32x4.mul(sb, ofSource)
    const cbr = f32x4.mul(br, ofBase)
    const cbg = f32x4.mul(bg, ofBase)
    const cbb = f32x4.mul(bb, ofBase)
    const lum = mode == LUMINOSITY ? lumOf(csr, csg, csb) : lumOf(cbr, cbg, cbb)
    const isOfSource = mode == HUE || mode == COLOR
    red = isOfSource ? csr : cbr
    green = isOfSource ? csg : cbg
    blue = isOfSource ? csb : cbb
    if (mode == HUE || mode == SATURATION) {
      // The saturation of the other; a grey becomes black, as the standard has it.
      const wanted = mode == HUE ? rangeOf(cbr, cbg, cbb) : rangeOf(csr, csg, csb)
      const range = rangeOf(red, green, blue)
      const least = f32x4.min(red, f32x4.min(green, blue))
      const factor = v128.and(f32x4.div(wanted, range), f32x4.gt(range, f32x4.splat(0)))
      red = f32x4.mul(f32x4.sub(red, least), factor)
      green = f32x4.mul(f32x4.sub(green, least), factor)
      blue = f32x4.mul(f32x4.sub(blue, least), factor)
    }
    // The brightness of the other, brought back into 0 … 1 without a change of it.
    const by = f32x4.sub(lum, lumOf(red, green, blue))
    red = f32x4.add(red, by)
    green = f32x4.add(green, by)
    blue = f32x4.add(blue, by)
    const lowest = f32x4.min(red, f32x4.min(green, blue))
    const highest = f32x4.max(red, f32x4.max(green, blue))
    const fromBelow = v128.bitselect(f32x4.div(lum, f32x4.sub(lum, lowest)), one, f32x4.lt(lowest, f32x4.splat(0)))
    const fromAbove = v128.bitselect(f32x4.div(f32x4.sub(one, lum), f32x4.sub(highest, lum)), one, f32x4.gt(highest, one))
    const scale = f32x4.min(fromBelow, fromAbove)
    red = f32x4.add(lum, f32x4.mul(f32x4.sub(red, lum), scale))
    green = f32x4.add(lum, f32x4.mul(f32x4.sub(green, lum), scale))
    blue = f32x4.add(lum, f32x4.mul(f32x4.sub(blue, lum), scale))
  } else {
    red = mixOne(mode, br, ba, ofBase, sr, sa, ofSource)
    green = mixOne(mode, bg, ba, ofBase, sg, sa, ofSource)
    blue = mixOne(mode, bb, ba, ofBase, sb, sa, ofSource)
  }
  const both = f32x4.mul(sa, ba)
  const low = v128.or(composed(sr, br, sa, ba, both, red), i32x4.shl(composed(sg, bg, sa, ba, both, green), 8))
  const high = v128.or(i32x4.shl(composed(sb, bb, sa, ba, both, blue), 16), i32x4.shl(composed(sa, ba, sa, ba, both, one), 24))
  return v128.or(low, high)
}

// @ts-ignore: decorator
@inline
function channelOf(pixels: v128, shift: i32): v128 {
  return f32x4.convert_i32x4_u(v128.and(i32x4.shr_u(pixels, shift), i32x4.splat(0xff)))
}

// @ts-ignore: decorator
@inline
function lumOf(red: v128, green: v128, blue: v128): v128 {
  return f32x4.add(f32x4.add(f32x4.mul(red, f32x4.splat(0.3)), f32x4.mul(green, f32x4.splat(0.59))), f32x4.mul(blue, f32x4.splat(0.11)))
}

// @ts-ignore: decorator
@inline
function rangeOf(red: v128, green: v128, blue: v128): v128 {
  return f32x4.sub(f32x4.max(red, f32x4.max(green, blue)), f32x4.min(red, f32x4.min(green, blue)))
}

/** B of one channel, 0 … 1; `b` and `s` are premultiplied codes, to be told exactly from nothing and from full. */
// @ts-ignore: decorator
@inline
function mixOne(mode: i32, b: v128, ba: v128, ofBase: v128, s: v128, sa: v128, ofSource: v128): v128 {
  const zero = f32x4.splat(0)
  const one = f32x4.splat(1)
  const cb = f32x4.mul(b, ofBase)
  const cs = f32x4.mul(s, ofSource)
  if (mode == COLOR_DODGE) {
    const lit = f32x4.min(one, f32x4.div(cb, f32x4.sub(one, cs)))
    return v128.bitselect(zero, v128.bitselect(one, lit, f32x4.ge(s, sa)), f32x4.le(b, zero))
  }
  if (mode == COLOR_BURN) {
    const burnt = f32x4.sub(one, f32x4.min(one, f32x4.div(f32x4.sub(one, cb), cs)))
    return v128.bitselect(one, v128.bitselect(zero, burnt, f32x4.le(s, zero)), f32x4.ge(b, ba))
  }
  const twice = f32x4.sub(f32x4.add(cs, cs), one)
  const dark = f32x4.add(cb, f32x4.mul(f32x4.mul(twice, cb), f32x4.sub(one, cb)))
  const curve = f32x4.mul(f32x4.add(f32x4.mul(f32x4.sub(f32x4.mul(f32x4.splat(16), cb), f32x4.splat(12)), cb), f32x4.splat(4)), cb)
  const lit = v128.bitselect(curve, f32x4.sqrt(cb), f32x4.le(cb, f32x4.splat(0.25)))
  return v128.bitselect(dark, f32x4.add(cb, f32x4.mul(twice, f32x4.sub(lit, cb))), f32x4.le(twice, zero))
}

/** s·(1 − αb) + b·(1 − αs) + αs·αb·B as whole codes, rounded to nearest; `both` is αs·αb times 255². */
// @ts-ignore: decorator
@inline
function composed(s: v128, b: v128, sa: v128, ba: v128, both: v128, mixed: v128): v128 {
  const full = f32x4.splat(255)
  const apart = f32x4.add(f32x4.mul(s, f32x4.sub(full, ba)), f32x4.mul(b, f32x4.sub(full, sa)))
  const total = f32x4.mul(f32x4.add(apart, f32x4.mul(both, mixed)), f32x4.splat(1.0 / 255.0))
  return rounded(f32x4.min(full, f32x4.max(f32x4.splat(0), total)))
}

/** Each byte replaced by its entry in a table of 256. */
export function mapBytes(from: usize, to: usize, count: i32, table: usize): void {
  for (let i = 0; i < count; i += 1) store<u8>(to + i, load<u8>(table + <usize>load<u8>(from + i)))
}

/** Pixels thinned by a mask of bytes. `out` may be `line`. */
export function thinRow(line: usize, mask: usize, out: usize, count: i32): void {
  const half = i16x8.splat(128)
  const whole = count & ~3
  for (let i = 0; i < whole; i += 4) v128.store(out + (i << 2), thinnedFour(v128.load(line + (i << 2)), mask + i))
  for (let i = whole; i < count; i += 1) {
    const weight = i16x8.splat(<i16>load<u8>(mask + i))
    const product = i16x8.add(i16x8.mul(i16x8.extend_low_i8x16_u(v128.load32_zero(line + (i << 2))), weight), half)
    const result = i16x8.shr_u(i16x8.add(product, i16x8.shr_u(product, 8)), 8)
    v128.store32_lane(out + (i << 2), i8x16.narrow_i16x8_u(result, result), 0)
  }
}
