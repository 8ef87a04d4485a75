// Luma weights of ITU-R BT.709-6 item 3.2, also the sRGB relative-luminance weights.
export const LUMA_R = 0.2126
export const LUMA_G = 0.7152
export const LUMA_B = 0.0722

/** BT.709 luma of encoded red, green and blue; same unit in and out. */
export function luma709(red: number, green: number, blue: number): number {
  return LUMA_R * red + LUMA_G * green + LUMA_B * blue
}

/** Blue and red colour difference over B − Y and R − Y, so that both span ±½ (BT.709-6 item 3.3). */
export const CB_PER_BLUE = 1 / (2 * (1 - LUMA_B))
export const CR_PER_RED = 1 / (2 * (1 - LUMA_R))
