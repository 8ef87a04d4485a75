// Luma weights of ITU-R BT.709-6 item 3.2, also the sRGB relative-luminance weights.
export const LUMA_R = 0.2126
export const LUMA_G = 0.7152
export const LUMA_B = 0.0722

/** BT.709 luma of encoded red, green and blue; same unit in and out. */
export function luma709(red: number, green: number, blue: number): number {
  return LUMA_R * red + LUMA_G * green + LUMA_B * blue
}
