import { CLIP_HIGH, CLIP_LOW } from '../../core/scopes/scopes.ts'

/** Opaque pixels at the ends of the scale are painted: burnt out ones magenta, drowned ones cyan. Straight bytes, in place. */
export function paintClipping(data: Uint8Array | Uint8ClampedArray): void {
  for (let at = 0; at < data.length; at += 4) {
    if (data[at + 3]! < 128) continue
    const red = data[at]!
    const green = data[at + 1]!
    const blue = data[at + 2]!
    if (red >= CLIP_HIGH || green >= CLIP_HIGH || blue >= CLIP_HIGH) {
      data[at] = 255
      data[at + 1] = 0
      data[at + 2] = 200
    } else if (red <= CLIP_LOW && green <= CLIP_LOW && blue <= CLIP_LOW) {
      data[at] = 0
      data[at + 1] = 190
      data[at + 2] = 255
    }
  }
}
