// Pictures that do not move.
import { parseHex } from '../../core/colour/hex.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { SourceFrame } from '../executor.ts'

/** One pixel of a colour. */
export function colourPicture(hex: string): RgbaPicture {
  const [red, green, blue] = parseHex(hex)
  return { format: 'rgba', widthPx: 1, heightPx: 1, data: Uint8Array.of(red * 255, green * 255, blue * 255, 255) }
}

/** A still source frame. */
export function stillFrame(picture: RgbaPicture, version: number): SourceFrame {
  return { picture, version, isLive: false }
}
