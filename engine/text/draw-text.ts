// Lays a text out in its box and draws it: straight to a 2-D pen, so that browser and server share it.
import type { TextBlock, TextContent } from '../../core/text/text-content.ts'

/** The calls a pen must have; both kinds of browser context and the Node canvas do. */
export type TextPen = Pick<
  OffscreenCanvasRenderingContext2D,
  'font' | 'fillStyle' | 'globalAlpha' | 'textAlign' | 'textBaseline' | 'measureText' | 'fillText' | 'fillRect'
>

interface Line {
  readonly text: string
  readonly block: TextBlock
}

const LINE_HEIGHT = 1.22
/** Where the baseline lies in a line, from its top. */
const BASELINE = 0.94
const ACCENT_SHARE = 0.3
const SMALLEST_SCALE = 0.1

/** Draws a text into a box from (0, 0); whatever is too big shrinks until all of it fits. */
export function drawText(pen: TextPen, content: TextContent, widthPx: number, heightPx: number): void {
  const { plate } = content
  const padding = plate?.paddingPx ?? 0
  const accentWidth = plate?.accent === null || plate === null ? 0 : Math.max(4, padding * ACCENT_SHARE)
  if (plate !== null) {
    pen.globalAlpha = plate.opacity
    pen.fillStyle = plate.colour
    pen.fillRect(0, 0, widthPx, heightPx)
    if (plate.accent !== null) {
      pen.globalAlpha = 1
      pen.fillStyle = plate.accent
      pen.fillRect(0, 0, accentWidth, heightPx)
    }
    pen.globalAlpha = 1
  }
  const left = accentWidth + padding
  const room = { width: Math.max(1, widthPx - left - padding), height: Math.max(1, heightPx - padding) }
  let scale = 1
  let lines = breakLines(pen, content, scale, room.width)
  while (!fits(pen, content, lines, scale, room) && scale > SMALLEST_SCALE) {
    scale *= 0.94
    lines = breakLines(pen, content, scale, room.width)
  }
  const total = heightOf(lines, scale)
  let top = (heightPx - total) / 2
  pen.textBaseline = 'alphabetic'
  pen.textAlign = content.align === 'start' ? 'left' : content.align === 'end' ? 'right' : 'center'
  const x = content.align === 'start' ? left : content.align === 'end' ? left + room.width : left + room.width / 2
  for (const line of lines) {
    const size = line.block.sizePx * scale
    pen.font = fontOf(content, line.block, scale)
    pen.fillStyle = line.block.colour
    pen.fillText(line.text, x, top + size * BASELINE)
    top += size * LINE_HEIGHT
  }
}

/** The font string of a block. */
function fontOf(content: TextContent, block: TextBlock, scale: number): string {
  return `${Math.round(block.weight)} ${block.sizePx * scale}px "${content.family}"`
}

function breakLines(pen: TextPen, content: TextContent, scale: number, width: number): Line[] {
  const lines: Line[] = []
  for (const block of content.blocks) {
    pen.font = fontOf(content, block, scale)
    for (const paragraph of block.text.split('\n')) {
      let current = ''
      for (const word of paragraph.split(' ')) {
        const longer = current === '' ? word : `${current} ${word}`
        if (current !== '' && pen.measureText(longer).width > width) {
          lines.push({ text: current, block })
          current = word
        } else {
          current = longer
        }
      }
      lines.push({ text: current, block })
    }
  }
  return lines
}

function fits(pen: TextPen, content: TextContent, lines: readonly Line[], scale: number, room: { width: number; height: number }): boolean {
  if (heightOf(lines, scale) > room.height) return false
  return lines.every((line) => {
    pen.font = fontOf(content, line.block, scale)
    return pen.measureText(line.text).width <= room.width
  })
}

function heightOf(lines: readonly Line[], scale: number): number {
  return lines.reduce((sum, line) => sum + line.block.sizePx * scale * LINE_HEIGHT, 0)
}
