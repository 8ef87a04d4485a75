// Lays a text out in its box and draws it: straight to a 2-D pen, so that browser and server share it.
import type { TextBlock, TextContent } from '../../core/text/text-content.ts'
import { fontStackFor, isRightToLeft } from '../../core/text/typefaces.ts'

/** The calls a pen must have; both kinds of browser context and the Node canvas do. */
export type TextPen = Pick<
  OffscreenCanvasRenderingContext2D,
  'font' | 'fillStyle' | 'globalAlpha' | 'textAlign' | 'textBaseline' | 'direction' | 'measureText' | 'fillText' | 'fillRect'
>

/** The font-family list for a text in a family. */
export type StackOf = (family: string, text: string) => string

interface Line {
  readonly text: string
  readonly block: TextBlock
}

export interface TextLayout {
  readonly lines: readonly Line[]
  /** 1, or less where the text had to shrink to fit its box. */
  readonly scale: number
  /** How high a box of this width must be to hold the text unshrunk. */
  readonly neededHeightPx: number
}

const LINE_HEIGHT = 1.22
/** Where the baseline lies in a line, from its top. */
const BASELINE = 0.94
const ACCENT_SHARE = 0.3
const SMALLEST_SCALE = 0.1

interface Room {
  readonly left: number
  readonly width: number
  readonly height: number
}

function roomIn({ plate }: TextContent, widthPx: number, heightPx: number): Room {
  const padding = plate?.paddingPx ?? 0
  const left = accentWidth(plate) + padding
  return { left, width: Math.max(1, widthPx - left - padding), height: Math.max(1, heightPx - padding) }
}

function accentWidth(plate: TextContent['plate']): number {
  return plate === null || plate.accent === null ? 0 : Math.max(4, plate.paddingPx * ACCENT_SHARE)
}

/** Breaks a text into lines for a box; whatever is too big shrinks until all of it fits. */
export function layOutText(pen: TextPen, content: TextContent, widthPx: number, heightPx: number, stackOf: StackOf = fontStackFor): TextLayout {
  const room = roomIn(content, widthPx, heightPx)
  let scale = 1
  let lines = breakLines(pen, content, scale, room.width, stackOf)
  const neededHeightPx = Math.ceil(heightOf(lines, 1) + (content.plate?.paddingPx ?? 0))
  while (!fits(pen, content, lines, scale, room, stackOf) && scale > SMALLEST_SCALE) {
    scale *= 0.94
    lines = breakLines(pen, content, scale, room.width, stackOf)
  }
  return { lines, scale, neededHeightPx }
}

/** Draws a text into a box from (0, 0). */
export function drawText(pen: TextPen, content: TextContent, widthPx: number, heightPx: number, stackOf: StackOf = fontStackFor): void {
  const { plate } = content
  if (plate !== null) {
    pen.globalAlpha = plate.opacity
    pen.fillStyle = plate.colour
    pen.fillRect(0, 0, widthPx, heightPx)
    if (plate.accent !== null) {
      pen.globalAlpha = 1
      pen.fillStyle = plate.accent
      pen.fillRect(0, 0, accentWidth(plate), heightPx)
    }
    pen.globalAlpha = 1
  }
  const { left, width } = roomIn(content, widthPx, heightPx)
  const { lines, scale } = layOutText(pen, content, widthPx, heightPx, stackOf)
  let top = (heightPx - heightOf(lines, scale)) / 2
  pen.textBaseline = 'alphabetic'
  pen.textAlign = content.align === 'start' ? 'left' : content.align === 'end' ? 'right' : 'center'
  const x = content.align === 'start' ? left : content.align === 'end' ? left + width : left + width / 2
  for (const line of lines) {
    const size = line.block.sizePx * scale
    pen.font = fontOf(content, line.block, scale, stackOf)
    pen.direction = isRightToLeft(line.text) ? 'rtl' : 'ltr'
    pen.fillStyle = line.block.colour
    pen.fillText(line.text, x, top + size * BASELINE)
    top += size * LINE_HEIGHT
  }
}

/** The font string of a block. */
function fontOf(content: TextContent, block: TextBlock, scale: number, stackOf: StackOf): string {
  return `${Math.round(block.weight)} ${block.sizePx * scale}px ${stackOf(content.family, block.text)}`
}

function breakLines(pen: TextPen, content: TextContent, scale: number, width: number, stackOf: StackOf): Line[] {
  const lines: Line[] = []
  for (const block of content.blocks) {
    pen.font = fontOf(content, block, scale, stackOf)
    for (const paragraph of block.text.split('\n')) {
      let current = ''
      for (const { word, gap } of partsOf(paragraph)) {
        const longer = current === '' ? word : current + gap + word
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

/** Chinese, Japanese kana and Thai are written without spaces: a line may end between any two of their letters. */
const UNSPACED = /[\u0e00-\u0e7f\u3040-\u30ff\u3400-\u9fff\uf900-\ufaff]/

/** What may not be broken, and what stands before it when it stays in the line. */
function partsOf(paragraph: string): { readonly word: string; readonly gap: string }[] {
  return paragraph.split(' ').flatMap((word) => {
    if (!UNSPACED.test(word)) return [{ word, gap: ' ' }]
    const letters = [...new Intl.Segmenter(undefined, { granularity: 'word' }).segment(word)].map(({ segment }) => segment)
    return letters.map((letter, i) => ({ word: letter, gap: i === 0 ? ' ' : '' }))
  })
}

function fits(pen: TextPen, content: TextContent, lines: readonly Line[], scale: number, room: Room, stackOf: StackOf): boolean {
  if (heightOf(lines, scale) > room.height) return false
  return lines.every((line) => {
    pen.font = fontOf(content, line.block, scale, stackOf)
    return pen.measureText(line.text).width <= room.width
  })
}

function heightOf(lines: readonly Line[], scale: number): number {
  return lines.reduce((sum, line) => sum + line.block.sizePx * scale * LINE_HEIGHT, 0)
}
