import type { YcbcrMatrix, YcbcrRange } from '../colour/ycbcr.ts'

/** A picture of 8-bit sRGB-encoded, straight-alpha RGBA; row by row from the top left. */
export interface RgbaPicture {
  readonly format: 'rgba'
  readonly widthPx: number
  readonly heightPx: number
  /** widthPx × heightPx × 4 bytes. */
  readonly data: Uint8Array | Uint8ClampedArray
}

/** A planar 4:2:0 picture: all Y, then all Cb, then all Cr, without padding. */
export interface I420Picture {
  readonly format: 'i420'
  readonly widthPx: number
  readonly heightPx: number
  readonly matrix: YcbcrMatrix
  readonly range: YcbcrRange
  /** widthPx × heightPx luma bytes, then twice ceil(w/2) × ceil(h/2) chroma bytes. */
  readonly data: Uint8Array
}

export type Picture = RgbaPicture | I420Picture

/** A whole-pixel rectangle: left and top are inside, right and bottom are one past the end. */
export interface PixelRect {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

/** Bytes of an I420 picture of this size. */
export function i420ByteLength(widthPx: number, heightPx: number): number {
  return widthPx * heightPx + 2 * Math.ceil(widthPx / 2) * Math.ceil(heightPx / 2)
}

/** The part that two rectangles share; empty (right ≤ left) when they don't meet. */
export function intersectRects(first: PixelRect, second: PixelRect): PixelRect {
  const left = Math.max(first.left, second.left)
  const top = Math.max(first.top, second.top)
  return {
    left,
    top,
    right: Math.max(left, Math.min(first.right, second.right)),
    bottom: Math.max(top, Math.min(first.bottom, second.bottom)),
  }
}
