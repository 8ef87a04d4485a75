import type { Rgb } from '../../colour/hex.ts'
import { decodeSrgb, encodeSrgb } from '../../colour/srgb.ts'
import { adaptation, applyMatrix, D65, lightThatTurns, multiply, SRGB_TO_XYZ, uvOf, whiteAt, XYZ_TO_SRGB, type Matrix3 } from '../../colour/white.ts'
import type { ParamsOf, PointFunction } from '../step.ts'
import { balanceParams } from './params.ts'

/** Duv of one unit of tint: a hundred is as far off white as lamps get (ANSI C78.377 allows ±0.006 around white). */
const DUV_PER_TINT = 0.0003
const USUAL = balanceParams.temperature.default

/**
 * White balance in linear light: the picture is adapted (Bradford) from the white of the given light to
 * the white of the usual one, so that the usual values change nothing (null).
 */
export function prepareBalance(params: ParamsOf<typeof balanceParams>): PointFunction | null {
  if (params.temperature === USUAL && params.tint === 0) return null
  const matrix = balanceMatrix(params)
  return (pixel) => {
    const [red, green, blue] = applyMatrix(matrix, decode(pixel[0]!), decode(pixel[1]!), decode(pixel[2]!))
    pixel[0] = encode(red)
    pixel[1] = encode(green)
    pixel[2] = encode(blue)
  }
}

/** The matrix that a balance multiplies linear sRGB with, row by row. */
export function balanceMatrix({ temperature, tint }: ParamsOf<typeof balanceParams>): Matrix3 {
  const xyz = adaptation(whiteAt(temperature, tint * DUV_PER_TINT), whiteAt(USUAL, 0))
  return multiply(XYZ_TO_SRGB, multiply(xyz, SRGB_TO_XYZ))
}

/**
 * The values that make a colour grey: what a click on something that should be grey asks for. Null for
 * a colour too dark or too strong to be a grey in any light within reach.
 */
export function balanceFor([red, green, blue]: Rgb): ParamsOf<typeof balanceParams> | null {
  const [x, y, z] = applyMatrix(SRGB_TO_XYZ, decode(red), decode(green), decode(blue))
  const sum = x + y + z
  if (y < LEAST_LUMINANCE) return null
  return nearest(uvOf(lightThatTurns({ x: x / sum, y: y / sum }, D65, whiteAt(USUAL, 0))))
}

const LEAST_LUMINANCE = 0.004
const TANGENT_MIRED = 0.1
/** Room for the step of the temperature at the ends of the range, in CIE 1960 u, v. */
const MOST_ALONG = 2e-4
/** Farther from the locus than this no lamp is. */
const MOST_DUV = DUV_PER_TINT * 100

/** Temperature and tint of a point in CIE 1960 u, v: the foot of the normal that goes through it. */
function nearest({ u, v }: { readonly u: number; readonly v: number }): ParamsOf<typeof balanceParams> | null {
  const { min, max } = balanceParams.temperature
  const distanceAt = (mired: number) => {
    const white = uvOf(whiteAt(1e6 / mired, 0))
    return Math.hypot(u - white.u, v - white.v)
  }
  // Distance to the locus has one minimum over reciprocal temperature; a third is cut off each time.
  let low = 1e6 / max
  let high = 1e6 / min
  while (high - low > 1e-4) {
    const first = low + (high - low) / 3
    const second = high - (high - low) / 3
    if (distanceAt(first) < distanceAt(second)) high = second
    else low = first
  }
  const mired = (low + high) / 2
  const distance = distanceAt(mired)
  if (distance > MOST_DUV || isBeyond(u, v, mired)) return null
  const isGreen = v > uvOf(whiteAt(1e6 / mired, 0)).v
  const { step } = balanceParams.temperature
  return { temperature: Math.round(1e6 / mired / step) * step, tint: Math.round(((isGreen ? 1 : -1) * distance) / DUV_PER_TINT) }
}

/** Whether a point lies past an end of the range: its way to the nearest white then runs along the locus, not across it. */
function isBeyond(u: number, v: number, mired: number): boolean {
  const here = uvOf(whiteAt(1e6 / mired, 0))
  const cooler = uvOf(whiteAt(1e6 / (mired - TANGENT_MIRED), 0))
  const length = Math.hypot(cooler.u - here.u, cooler.v - here.v)
  const along = ((u - here.u) * (cooler.u - here.u) + (v - here.v) * (cooler.v - here.v)) / length
  return Math.abs(along) > MOST_ALONG
}

function decode(value: number): number {
  return decodeSrgb(value < 0 ? 0 : value > 1 ? 1 : value)
}

function encode(linear: number): number {
  return linear <= 0 ? 0 : linear >= 1 ? 1 : encodeSrgb(linear)
}
