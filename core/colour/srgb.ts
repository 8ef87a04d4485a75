// sRGB transfer function, IEC 61966-2-1:1999.

/** Linear light (0..1) of an sRGB-encoded value (0..1). */
export function decodeSrgb(encoded: number): number {
  return encoded <= 0.04045 ? encoded / 12.92 : ((encoded + 0.055) / 1.055) ** 2.4
}

/** sRGB-encoded value (0..1) of linear light (0..1). */
export function encodeSrgb(linear: number): number {
  return linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055
}
