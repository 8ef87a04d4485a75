// Y'CbCr quantisation of ITU-R BT.601-7 §2.5 and BT.709-6 items 3.2–4.6, 8 bits a sample.

export type YcbcrMatrix = 'bt601' | 'bt709'
export type YcbcrRange = 'limited' | 'full'

/** Red and blue luma weights of each matrix. */
const LUMA_WEIGHTS: Readonly<Record<YcbcrMatrix, { readonly kr: number; readonly kb: number }>> = {
  bt601: { kr: 0.299, kb: 0.114 },
  bt709: { kr: 0.2126, kb: 0.0722 },
}

/** Scale and offset of one 8-bit Y'CbCr coding. */
export interface YcbcrCoding {
  readonly lumaScale: number
  readonly lumaOffset: number
  readonly chromaScale: number
  readonly kr: number
  readonly kb: number
}

/** The numbers that describe a matrix and range. */
export function ycbcrCoding(matrix: YcbcrMatrix, range: YcbcrRange): YcbcrCoding {
  const { kr, kb } = LUMA_WEIGHTS[matrix]
  return range === 'limited' ? { lumaScale: 219, lumaOffset: 16, chromaScale: 224, kr, kb } : { lumaScale: 255, lumaOffset: 0, chromaScale: 255, kr, kb }
}

/**
 * Writes encoded RGB (0..1, not clipped) of 8-bit codes into `out[0..2]`.
 * `y`, `cb`, `cr` may be fractional codes.
 */
export function ycbcrToRgb(coding: YcbcrCoding, y: number, cb: number, cr: number, out: Float64Array): void {
  const luma = (y - coding.lumaOffset) / coding.lumaScale
  const blueDifference = (cb - 128) / coding.chromaScale
  const redDifference = (cr - 128) / coding.chromaScale
  const red = luma + 2 * (1 - coding.kr) * redDifference
  const blue = luma + 2 * (1 - coding.kb) * blueDifference
  out[0] = red
  out[1] = (luma - coding.kr * red - coding.kb * blue) / (1 - coding.kr - coding.kb)
  out[2] = blue
}

/** Writes fractional 8-bit codes Y, Cb, Cr of encoded RGB (0..1) into `out[0..2]`. */
export function rgbToYcbcr(coding: YcbcrCoding, red: number, green: number, blue: number, out: Float64Array): void {
  const luma = coding.kr * red + (1 - coding.kr - coding.kb) * green + coding.kb * blue
  out[0] = luma * coding.lumaScale + coding.lumaOffset
  out[1] = ((blue - luma) / (2 * (1 - coding.kb))) * coding.chromaScale + 128
  out[2] = ((red - luma) / (2 * (1 - coding.kr))) * coding.chromaScale + 128
}
