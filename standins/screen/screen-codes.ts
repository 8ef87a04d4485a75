// The stand-in screen as I420 codes. All but its pointer and its number rests, and is drawn and converted once.
import { MARK_COLUMNS, MARK_LIMIT, MARK_RATE, MARK_ROWS, markCells, markGeometry } from '../../core/marks/frame-mark.ts'
import { i420ByteLength } from '../../core/picture/picture.ts'
import type { MakeSheet, Sheet } from '../drawing/canvas.ts'
import { rgbaToI420Into, type Part } from '../drawing/to-i420.ts'
import { drawDashboard, drawPointer, pointerAt, POINTER_REACH_PX, SCREEN_HEIGHT_PX, SCREEN_WIDTH_PX } from './drawn-screen.ts'

export const SCREEN_BYTES = i420ByteLength(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
const WHOLE: Part = { x: 0, y: 0, widthPx: SCREEN_WIDTH_PX, heightPx: SCREEN_HEIGHT_PX }

export class ScreenCodes {
  readonly #still: Sheet
  readonly #sheet: Sheet
  readonly #stillCodes = new Uint8Array(SCREEN_BYTES)

  /** `makeSheet`'s letters must be there already. */
  constructor(makeSheet: MakeSheet) {
    this.#still = makeSheet(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
    this.#sheet = makeSheet(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
    drawDashboard(this.#still.pen)
    this.#convert(this.#still, WHOLE, this.#stillCodes)
  }

  /** Writes the screen as it is at a time of the wall clock, in ms, into `out`, of SCREEN_BYTES. Returns the number that it carries. */
  write(timeMs: number, out: Uint8Array): number {
    const frameNumber = Math.floor((timeMs * MARK_RATE) / 1000)
    const { x, y } = pointerAt(timeMs)
    const parts = [roundPointer(x, y), markPart()]
    out.set(this.#stillCodes)
    for (const part of parts) this.#restore(part)
    drawPointer(this.#sheet.pen, x, y)
    drawMark(this.#sheet, frameNumber)
    for (const part of parts) this.#convert(this.#sheet, part, out)
    return frameNumber
  }

  #restore({ x, y, widthPx, heightPx }: Part): void {
    this.#sheet.pen.drawImage(this.#still.source, x, y, widthPx, heightPx, x, y, widthPx, heightPx)
  }

  #convert({ pen }: Sheet, part: Part, out: Uint8Array): void {
    const { data } = pen.getImageData(part.x, part.y, part.widthPx, part.heightPx)
    rgbaToI420Into(data, part, out, SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
  }
}

/** The pixels that the pointer may touch: even, and on the screen. */
function roundPointer(x: number, y: number): Part {
  const left = Math.max(0, (Math.floor(x) - POINTER_REACH_PX) & ~1)
  const top = Math.max(0, (Math.floor(y) - POINTER_REACH_PX) & ~1)
  const side = 2 * POINTER_REACH_PX + 2
  return { x: left, y: top, widthPx: Math.min(side, SCREEN_WIDTH_PX - left), heightPx: Math.min(side, SCREEN_HEIGHT_PX - top) }
}

function markPart(): Part {
  const { cellPx, x, y } = markGeometry(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
  return { x, y, widthPx: MARK_COLUMNS * cellPx, heightPx: MARK_ROWS * cellPx }
}

function drawMark({ pen }: Sheet, frameNumber: number): void {
  const { cellPx, x, y } = markGeometry(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
  markCells(frameNumber % MARK_LIMIT).forEach((cell, i) => {
    pen.fillStyle = cell === 1 ? '#ffffff' : '#000000'
    pen.fillRect(x + (i % MARK_COLUMNS) * cellPx, y + Math.floor(i / MARK_COLUMNS) * cellPx, cellPx, cellPx)
  })
}
