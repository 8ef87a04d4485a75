// A number that cameras of our own draw into a corner, so that tests can measure delay, loss and
// order at the far end. Twelve by three square cells, white for one and black for zero:
// four cells of a fixed pattern and eight of check sum, then twenty-four of the number, high bit first.

export const MARK_COLUMNS = 12
export const MARK_ROWS = 3
/** Numbers run from 0 to this and start again. */
export const MARK_LIMIT = 1 << 24
/** Numbers count at this rate, whatever the camera's own, so that they tell when a picture was taken. */
export const MARK_RATE = 30
/** Cell size for a picture 1280 wide; scales with the width. */
const CELL_AT_1280 = 12
const PATTERN = [1, 0, 0, 1] as const

/** Side of a cell, and the top left of the mark: the lower left corner of the picture. */
export function markGeometry(widthPx: number, heightPx: number) {
  const cellPx = Math.max(4, Math.round((CELL_AT_1280 * widthPx) / 1280 / 2) * 2)
  return { cellPx, x: cellPx, y: (heightPx - cellPx * (MARK_ROWS + 1)) & ~1 }
}

/** The 36 cells of a number, row by row; 1 is white. */
export function markCells(frameNumber: number): Uint8Array {
  const cells = new Uint8Array(MARK_COLUMNS * MARK_ROWS)
  cells.set(PATTERN, 0)
  const check = checkSum(frameNumber)
  for (let bit = 0; bit < 8; bit += 1) cells[4 + bit] = (check >>> (7 - bit)) & 1
  for (let bit = 0; bit < 24; bit += 1) cells[12 + bit] = (frameNumber >>> (23 - bit)) & 1
  return cells
}

/**
 * Reads the mark of a picture by its luma. `lumaAt(x, y)` gives 0..255 at a pixel of a picture of
 * this size. Null when there is no mark or it is damaged.
 */
export function readMark(widthPx: number, heightPx: number, lumaAt: (x: number, y: number) => number): number | null {
  const { cellPx, x: left, y: top } = markGeometry(widthPx, heightPx)
  const cells = new Uint8Array(MARK_COLUMNS * MARK_ROWS)
  for (let i = 0; i < cells.length; i += 1) {
    const x = left + (i % MARK_COLUMNS) * cellPx + (cellPx >> 1)
    const y = top + Math.floor(i / MARK_COLUMNS) * cellPx + (cellPx >> 1)
    const luma = (lumaAt(x - 1, y - 1) + lumaAt(x, y - 1) + lumaAt(x - 1, y) + lumaAt(x, y)) / 4
    if (luma > 96 && luma < 160) return null
    cells[i] = luma >= 128 ? 1 : 0
  }
  if (PATTERN.some((cell, i) => cells[i] !== cell)) return null
  let check = 0
  for (let i = 4; i < 12; i += 1) check = (check << 1) | cells[i]!
  let frameNumber = 0
  for (let i = 12; i < 36; i += 1) frameNumber = (frameNumber << 1) | cells[i]!
  return checkSum(frameNumber) === check ? frameNumber : null
}

/** CRC-8 (polynomial 0x07) over the three bytes, started at 0xff so that black is no valid mark. */
function checkSum(frameNumber: number): number {
  let crc = 0xff
  for (let shift = 16; shift >= 0; shift -= 8) {
    crc ^= (frameNumber >>> shift) & 0xff
    for (let bit = 0; bit < 8; bit += 1) crc = (crc & 0x80) !== 0 ? ((crc << 1) ^ 0x07) & 0xff : (crc << 1) & 0xff
  }
  return crc
}
