// OKLab, in which equal steps look equal (Björn Ottosson, "A perceptual color space for image processing", 2020; CSS Color 4 §9.2 takes it over).
import { decodeSrgb, encodeSrgb } from './srgb.ts'
import type { Rgb } from './hex.ts'

/** Lightness 0..1, and two opponent axes: green to red, blue to yellow. */
export type Oklab = readonly [lightness: number, a: number, b: number]

/** A colour with sRGB codes 0..1. */
export function oklabOf([red, green, blue]: Rgb): Oklab {
  const [r, g, b] = [decodeSrgb(red), decodeSrgb(green), decodeSrgb(blue)]
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b)
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b)
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b)
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ]
}

/** The colour as sRGB codes; beyond 0..1 where sRGB has no such colour. */
export function rgbOfOklab([lightness, a, b]: Oklab): Rgb {
  const l = (lightness + 0.3963377774 * a + 0.2158037573 * b) ** 3
  const m = (lightness - 0.1055613458 * a - 0.0638541728 * b) ** 3
  const s = (lightness - 0.0894841775 * a - 1.291485548 * b) ** 3
  return [
    encodeSigned(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
    encodeSigned(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
    encodeSigned(-0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s),
  ]
}

const encodeSigned = (linear: number) => (linear < 0 ? -encodeSrgb(-linear) : encodeSrgb(linear))

/** The nearest colour that sRGB has, of the same lightness and hue: its chroma is lowered until it fits. */
export function withinSrgb([lightness, a, b]: Oklab): Rgb {
  const clamped = ([red, green, blue]: Rgb): Rgb => [clamp01(red), clamp01(green), clamp01(blue)]
  const fits = (rgb: Rgb) => rgb.every((value) => value > -1e-6 && value < 1 + 1e-6)
  let [low, high] = [0, 1]
  if (fits(rgbOfOklab([lightness, a, b]))) return clamped(rgbOfOklab([lightness, a, b]))
  for (let step = 0; step < 20; step += 1) {
    const share = (low + high) / 2
    if (fits(rgbOfOklab([lightness, a * share, b * share]))) low = share
    else high = share
  }
  return clamped(rgbOfOklab([lightness, a * low, b * low]))
}

const clamp01 = (value: number) => Math.min(1, Math.max(0, value))
