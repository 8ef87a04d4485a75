// How well one colour stands out from another (W3C WCAG 2.2, "relative luminance" and "contrast ratio").
import type { Rgb } from './hex.ts'
import { luma709 } from './luma.ts'
import { decodeSrgb } from './srgb.ts'

/** What text needs (WCAG 2.2, success criterion 1.4.3): smaller text, and large text from 24 px, or 18.66 px where it is bold. */
export const LEAST_CONTRAST = { text: 4.5, largeText: 3 } as const

/** Relative luminance 0..1 of sRGB codes 0..1. */
export function luminanceOf([red, green, blue]: Rgb): number {
  return luma709(decodeSrgb(red), decodeSrgb(green), decodeSrgb(blue))
}

/** Contrast ratio 1..21 of two colours. */
export function contrastOf(one: Rgb, other: Rgb): number {
  const [first, second] = [luminanceOf(one), luminanceOf(other)]
  return (Math.max(first, second) + 0.05) / (Math.min(first, second) + 0.05)
}
