/** A picture of doubles: red, green, blue, alpha per pixel, nominally 0..1; straight alpha unless a name says otherwise. */
export interface FloatPicture {
  readonly widthPx: number
  readonly heightPx: number
  readonly data: Float64Array
}

/** One number a pixel, row by row. */
export interface Plane {
  readonly widthPx: number
  readonly heightPx: number
  readonly data: Float64Array | Float32Array
}

/** A new picture of one size, all zero. */
export function blankPicture(widthPx: number, heightPx: number): FloatPicture {
  return { widthPx, heightPx, data: new Float64Array(widthPx * heightPx * 4) }
}

/** 0 below 0, 1 above 1. */
export function clamp01(value: number): number {
  return value < 0 ? 0 : value > 1 ? 1 : value
}
