// Light from the cloth on hair, shoulders and cheeks: strongest where little of the presenter is near.
import type { Sheet } from '../drawing/canvas.ts'

const REACH_UNITS = 26

/** Light that a cloth throws back. */
export interface SpillLight {
  readonly strength: number
  /** Relative to the lamps: what a white surface would send back more, per channel. */
  readonly light: readonly [number, number, number]
}

/** Tints the edges of a drawn part with the cloth's colour; opacity stays as it was. */
export function addSpill(sheet: Sheet, scale: number, { strength, light }: SpillLight): void {
  const { widthPx, heightPx, pen } = sheet
  const picture = pen.getImageData(0, 0, widthPx, heightPx)
  const radius = Math.round(REACH_UNITS * scale)
  const near = blurredAlpha(picture.data, widthPx, heightPx, radius)
  const { data } = picture
  for (let i = 0; i < near.length; i += 1) {
    const at = i * 4
    if (data[at + 3] === 0) continue
    const amount = strength * Math.min(1, Math.max(0, (1 - near[i]!) * 1.5))
    for (let channel = 0; channel < 3; channel += 1) {
      // A surface returns cloth light in proportion to how bright it is itself.
      data[at + channel] = data[at + channel]! + (data[at + channel]! + 14) * light[channel]! * amount
    }
  }
  pen.putImageData(picture, 0, 0)
}

/** Mean alpha 0..1 within ±radius, two box passes; edges repeat. */
function blurredAlpha(data: Uint8ClampedArray, width: number, height: number, radius: number): Float32Array {
  const alpha = new Float32Array(width * height)
  for (let i = 0; i < alpha.length; i += 1) alpha[i] = data[i * 4 + 3]! / 255
  const across = new Float32Array(alpha.length)
  for (let pass = 0; pass < 2; pass += 1) {
    boxBlur(alpha, across, width, height, 1, width, radius)
    boxBlur(across, alpha, height, width, width, 1, radius)
  }
  return alpha
}

function boxBlur(from: Float32Array, to: Float32Array, length: number, lines: number, step: number, lineStep: number, radius: number): void {
  const count = 2 * radius + 1
  for (let line = 0; line < lines; line += 1) {
    const start = line * lineStep
    const at = (i: number) => from[start + Math.min(length - 1, Math.max(0, i)) * step]!
    let sum = 0
    for (let i = -radius; i <= radius; i += 1) sum += at(i)
    for (let i = 0; i < length; i += 1) {
      to[start + i * step] = sum / count
      sum += at(i + radius + 1) - at(i - radius)
    }
  }
}
