// AssemblyScript: blend modes on rows of packed, premultiplied pixels; core/blend holds the formulas. Each kernel puts `count`
// pixels of `line` over `base` into `out`, any of which may be the same. Whole codes, one rounding: within half a code.
//
// Premultiplied, a mode is s·(255 − αb) + b·(255 − αs) + αs·αb·B, over 255. Where B is made of products and choices the last
// term is too, so no division is needed; no term or sum that counts exceeds 255². The alpha lane comes out right by B(1, 1) = 1.

import { packedOf } from './packed'

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

export function blendSoftLightRow(line: usize, base: usize, out: usize, count: i32): void { blendQuotients(SOFT_LIGHT, line, base, out, count) }
export function blendColorDodgeRow(line: usize, base: usize, out: usize, count: i32): void { blendQuotients(COLOR_DODGE, line, base, out, count) }
export function blendColorBurnRow(line: usize, base: usize, out: usize, count: i32): void { blendQuotients(COLOR_BURN, line, base, out, count) }

// @ts-ignore: decorator
@inline
function floatsOf(pixel: u32): v128 {
  const bytes = i16x8.extend_low_i8x16_u(i32x4.splat(pixel))
  return f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(bytes))
}

/** Modes that divide or take roots, a pixel at a time in floats of 0 … 255. */
// @ts-ignore: decorator
@inline
function blendQuotients(mode: i32, line: usize, base: usize, out: usize, count: i32): void {
  const zero = f32x4.splat(0)
  const one = f32x4.splat(1)
  for (let i = 0; i < count; i += 1) {
    const at = i << 2
    const source = load<u32>(line + at)
    const backdrop = load<u32>(base + at)
    if (source >>> 24 == 0 || backdrop >>> 24 == 0) {
      store<u32>(out + at, source >>> 24 == 0 ? backdrop : source)
      continue
    }
    const s = floatsOf(source)
    const b = floatsOf(backdrop)
    const sa = f32x4.splat(<f32>(source >>> 24))
    const ba = f32x4.splat(<f32>(backdrop >>> 24))
    const cs = f32x4.div(s, sa)
    const cb = f32x4.div(b, ba)
    let mixed: v128
    if (mode == COLOR_DODGE) {
      const lit = f32x4.min(one, f32x4.div(cb, f32x4.sub(one, cs)))
      mixed = v128.bitselect(zero, v128.bitselect(one, lit, f32x4.ge(cs, one)), f32x4.le(cb, zero))
    } else if (mode == COLOR_BURN) {
      const burnt = f32x4.sub(one, f32x4.min(one, f32x4.div(f32x4.sub(one, cb), cs)))
      mixed = v128.bitselect(one, v128.bitselect(zero, burnt, f32x4.le(cs, zero)), f32x4.ge(cb, one))
    } else {
      const twice = f32x4.sub(f32x4.add(cs, cs), one)
      const dark = f32x4.add(cb, f32x4.mul(f32x4.mul(twice, cb), f32x4.sub(one, cb)))
      const curve = f32x4.mul(f32x4.add(f32x4.mul(f32x4.sub(f32x4.mul(f32x4.splat(16), cb), f32x4.splat(12)), cb), f32x4.splat(4)), cb)
      const lit = v128.bitselect(curve, f32x4.sqrt(cb), f32x4.le(cb, f32x4.splat(0.25)))
      const light = f32x4.add(cb, f32x4.mul(twice, f32x4.sub(lit, cb)))
      mixed = v128.bitselect(dark, light, f32x4.le(twice, zero))
    }
    store<u32>(out + at, composed(s, b, sa, ba, mixed))
  }
}

/** s·(1 − αb) + b·(1 − αs) + αs·αb·B, packed. */
// @ts-ignore: decorator
@inline
function composed(s: v128, b: v128, sa: v128, ba: v128, mixed: v128): u32 {
  const full = f32x4.splat(255)
  const apart = f32x4.add(f32x4.mul(s, f32x4.sub(full, ba)), f32x4.mul(b, f32x4.sub(full, sa)))
  const total = f32x4.add(apart, f32x4.mul(f32x4.mul(sa, ba), mixed))
  return packedOf(f32x4.div(total, full))
}

const HUE = 0
const SATURATION = 1
const COLOR = 2
const LUMINOSITY = 3

export function blendHueRow(line: usize, base: usize, out: usize, count: i32): void { blendWhole(HUE, line, base, out, count) }
export function blendSaturationRow(line: usize, base: usize, out: usize, count: i32): void { blendWhole(SATURATION, line, base, out, count) }
export function blendColorRow(line: usize, base: usize, out: usize, count: i32): void { blendWhole(COLOR, line, base, out, count) }
export function blendLuminosityRow(line: usize, base: usize, out: usize, count: i32): void { blendWhole(LUMINOSITY, line, base, out, count) }

// @ts-ignore: decorator
@inline
function lumOf(colour: v128): f32 {
  const weighed = f32x4.mul(colour, f32x4(0.3, 0.59, 0.11, 0))
  return f32x4.extract_lane(weighed, 0) + f32x4.extract_lane(weighed, 1) + f32x4.extract_lane(weighed, 2)
}

// @ts-ignore: decorator
@inline
function leastOf(colour: v128): f32 {
  return min<f32>(f32x4.extract_lane(colour, 0), min<f32>(f32x4.extract_lane(colour, 1), f32x4.extract_lane(colour, 2)))
}

// @ts-ignore: decorator
@inline
function mostOf(colour: v128): f32 {
  return max<f32>(f32x4.extract_lane(colour, 0), max<f32>(f32x4.extract_lane(colour, 1), f32x4.extract_lane(colour, 2)))
}

/** The colour at another brightness, brought back into 0 … 1 without a change of it. */
// @ts-ignore: decorator
@inline
function withLum(colour: v128, lum: f32): v128 {
  const moved = f32x4.add(colour, f32x4.splat(lum - lumOf(colour)))
  const least = leastOf(moved)
  const most = mostOf(moved)
  let scale: f32 = 1
  if (least < 0) scale = min<f32>(scale, lum / (lum - least))
  if (most > 1) scale = min<f32>(scale, (1 - lum) / (most - lum))
  const middle = f32x4.splat(lum)
  return f32x4.add(middle, f32x4.mul(f32x4.sub(moved, middle), f32x4.splat(scale)))
}

/** The colour at another saturation; a grey becomes black, as the standard has it. */
// @ts-ignore: decorator
@inline
function withSat(colour: v128, saturation: f32): v128 {
  const least = leastOf(colour)
  const range = mostOf(colour) - least
  return f32x4.mul(f32x4.sub(colour, f32x4.splat(least)), f32x4.splat(range == 0 ? 0 : saturation / range))
}

/** Modes that mix whole colours. */
// @ts-ignore: decorator
@inline
function blendWhole(mode: i32, line: usize, base: usize, out: usize, count: i32): void {
  for (let i = 0; i < count; i += 1) {
    const at = i << 2
    const source = load<u32>(line + at)
    const backdrop = load<u32>(base + at)
    if (source >>> 24 == 0 || backdrop >>> 24 == 0) {
      store<u32>(out + at, source >>> 24 == 0 ? backdrop : source)
      continue
    }
    const s = floatsOf(source)
    const b = floatsOf(backdrop)
    const sa = f32x4.splat(<f32>(source >>> 24))
    const ba = f32x4.splat(<f32>(backdrop >>> 24))
    const cs = f32x4.div(s, sa)
    const cb = f32x4.div(b, ba)
    let mixed: v128
    if (mode == HUE) mixed = withLum(withSat(cs, mostOf(cb) - leastOf(cb)), lumOf(cb))
    else if (mode == SATURATION) mixed = withLum(withSat(cb, mostOf(cs) - leastOf(cs)), lumOf(cb))
    else if (mode == COLOR) mixed = withLum(cs, lumOf(cb))
    else mixed = withLum(cb, lumOf(cs))
    store<u32>(out + at, composed(s, b, sa, ba, f32x4.replace_lane(mixed, 3, 1)))
  }
}

/** Pixels thinned by a mask of bytes. `out` may be `line`. */
export function thinRow(line: usize, mask: usize, out: usize, count: i32): void {
  const half = i16x8.splat(128)
  for (let i = 0; i < count; i += 1) {
    const weight = i16x8.splat(<i16>load<u8>(mask + i))
    const product = i16x8.add(i16x8.mul(i16x8.extend_low_i8x16_u(v128.load32_zero(line + (i << 2))), weight), half)
    const result = i16x8.shr_u(i16x8.add(product, i16x8.shr_u(product, 8)), 8)
    v128.store32_lane(out + (i << 2), i8x16.narrow_i16x8_u(result, result), 0)
  }
}
