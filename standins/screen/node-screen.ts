// The stand-in screen outside a browser.
import { readFile } from 'node:fs/promises'
import { GlobalFonts } from '@napi-rs/canvas'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { nodeSheet } from '../drawing/node-sheet.ts'
import { drawDashboard, drawPointer, pointerAt, SCREEN_HEIGHT_PX, SCREEN_WIDTH_PX } from './drawn-screen.ts'

const FONT = new URL('../../node_modules/@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2', import.meta.url)

/** What the screen shows at a time of the wall clock, in ms; without the number that it carries in the studio. */
export async function nodeScreen(timeMs: number): Promise<RgbaPicture> {
  if (!GlobalFonts.has('Screen Sans')) GlobalFonts.register(await readFile(FONT), 'Screen Sans')
  const { pen } = nodeSheet(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
  drawDashboard(pen)
  const { x, y } = pointerAt(timeMs)
  drawPointer(pen, x, y)
  const { data } = pen.getImageData(0, 0, SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
  return { format: 'rgba', widthPx: SCREEN_WIDTH_PX, heightPx: SCREEN_HEIGHT_PX, data: new Uint8Array(data) }
}
