/** How wide a participant is shown in a meeting of many (common practice, no source). */
export const TILE_WIDTH_PX = 320
/** Letters set smaller than this in a tile cannot be read (common practice, no source). */
const LEAST_TILE_PX = 6

/** Whether text of this size, on a canvas of this width, is too small to read in a tile. */
export function isTooSmallInTile(sizePx: number, canvasWidthPx: number): boolean {
  return (sizePx * TILE_WIDTH_PX) / canvasWidthPx < LEAST_TILE_PX
}
