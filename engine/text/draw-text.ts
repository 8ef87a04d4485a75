// Lays a text out in its box and draws it: straight to a 2-D pen, so that browser and server share it.
import { lettersOf } from '../../core/text/letters.ts'
import { USUAL_LETTERS, type TextBlock, type TextContent } from '../../core/text/text-content.ts'
import { fontStackFor, isRightToLeft } from '../../core/text/typefaces.ts'
import { linesOf } from './break-text.ts'

/** The calls a pen must have; both kinds of browser context and the Node canvas do. */
export type TextPen = Pick<
  OffscreenCanvasRenderingContext2D,
  | 'font'
  | 'fillStyle'
  | 'globalAlpha'
  | 'textAlign'
  | 'textBaseline'
  | 'direction'
  | 'letterSpacing'
  | 'lineWidth'
  | 'lineJoin'
  | 'strokeStyle'
  | 'measureText'
  | 'fillText'
  | 'strokeText'
  | 'fillRect'
>

/** The font-family list for a text in a family. */
export type StackOf = (family: string, text: string) => string

interface Line {
  readonly text: string
  readonly block: TextBlock
  /** Whether its paragraph runs from right to left (Unicode Standard Annex 9, rules P2 and P3). */
  readonly isRtl: boolean
}

export interface TextLayout {
  readonly lines: readonly Line[]
  /** 1, or less where the text had to shrink to fit its box. */
  readonly scale: number
  /** How high a box of this width must be to hold the text unshrunk. */
  readonly neededHeightPx: number
}

/** Where the baseline lies in a line of the usual height, from its top. */
const BASELINE = 0.94
const ACCENT_SHARE = 0.3
const SMALLEST_SCALE = 0.1
/** Smoothed edges reach a little further than they are measured. */
const INK_SLACK_PX = 0.25

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
  const neededHeightPx = Math.ceil(heightOf(content, lines, 1) + (content.plate?.paddingPx ?? 0))
  while (!(fits(pen, content, lines, scale, room, stackOf) && isInkInside(pen, content, lines, scale, heightPx, stackOf)) && scale > SMALLEST_SCALE) {
    scale *= 0.94
    lines = breakLines(pen, content, scale, room.width, stackOf)
  }
  return { lines, scale, neededHeightPx }
}

/** Draws the plate of a text into a box from (0, 0). */
export function drawPlate(pen: TextPen, { plate }: TextContent, widthPx: number, heightPx: number): void {
  if (plate === null) return
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

export interface LetterOptions {
  readonly stackOf?: StackOf
  /** How many letters there are yet, each in its place; null: all. */
  readonly lettersShown?: number | null
  /** Where the box begins. */
  readonly left?: number
  readonly top?: number
}

/** Draws the letters of a text, and the line round them, into a box. */
export function drawLetters(pen: TextPen, content: TextContent, widthPx: number, heightPx: number, options: LetterOptions = {}): void {
  const { stackOf = fontStackFor, lettersShown = null, left: originX = 0, top: originY = 0 } = options
  const { left, width } = roomIn(content, widthPx, heightPx)
  const { lines, scale } = layOutText(pen, content, widthPx, heightPx, stackOf)
  let top = originY + (heightPx - heightOf(content, lines, scale)) / 2
  let letters = lettersShown ?? Infinity
  pen.textBaseline = 'alphabetic'
  for (const line of lines) {
    setFont(pen, content, line.block, scale, stackOf)
    pen.direction = line.isRtl ? 'rtl' : 'ltr'
    const all = lettersOf(line.text)
    const text = all.length <= letters ? line.text : all.slice(0, letters).join('')
    letters = Math.max(0, letters - all.length)
    const { x, align } = text === line.text ? anchorOf(content, line, scale, left, width) : startOf(pen, content, line, scale, left, width)
    pen.textAlign = align
    const y = top + baselineOf(content, line.block) * scale
    if (content.outline !== null) {
      pen.lineJoin = 'round'
      pen.lineWidth = content.outline.widthPx * 2 * scale
      pen.strokeStyle = content.outline.colour
      pen.strokeText(text, originX + x, y)
    }
    pen.fillStyle = line.block.colour
    pen.fillText(text, originX + x, y)
    top += line.block.sizePx * scale * content.lineHeight
  }
}

/** Draws a text into a box from (0, 0): its plate, and its letters. Its shadow is not a pen's work (text-picture.ts). */
export function drawText(pen: TextPen, content: TextContent, widthPx: number, heightPx: number, stackOf: StackOf = fontStackFor): void {
  drawPlate(pen, content, widthPx, heightPx)
  drawLetters(pen, content, widthPx, heightPx, { stackOf })
}

interface Anchor {
  readonly x: number
  readonly align: CanvasTextAlign
}

function anchorOf(content: TextContent, { block, isRtl }: Line, scale: number, left: number, width: number): Anchor {
  const { align } = content
  // What a pen puts behind the last letter must not move the line.
  const behind = isRtl ? 0 : spacingOf(content, block, scale)
  if (align === 'start') return { x: left, align: 'left' }
  return align === 'end' ? { x: left + width + behind, align: 'right' } : { x: left + width / 2 + behind / 2, align: 'center' }
}

/** Where a line that is only partly there begins: where it will, all of it. */
function startOf(pen: TextPen, content: TextContent, line: Line, scale: number, left: number, width: number): Anchor {
  const { x, align } = anchorOf(content, line, scale, left, width)
  const lineWidth = pen.measureText(line.text).width
  const first = align === 'left' ? x : align === 'right' ? x - lineWidth : x - lineWidth / 2
  return line.isRtl ? { x: first + lineWidth, align: 'right' } : { x: first, align: 'left' }
}

/** Where the baseline lies in a line, from its top: what the line is higher than usual is shared above and below. */
function baselineOf({ lineHeight }: TextContent, { sizePx }: TextBlock): number {
  return sizePx * (BASELINE + (lineHeight - USUAL_LETTERS.lineHeight) / 2)
}

/** Sets a pen for a block. */
function setFont(pen: TextPen, content: TextContent, block: TextBlock, scale: number, stackOf: StackOf): void {
  pen.font = `${Math.round(block.weight)} ${block.sizePx * scale}px ${stackOf(content.family, block.text)}`
  pen.letterSpacing = `${block.sizePx * scale * content.letterSpacingEm}px`
}

function breakLines(pen: TextPen, content: TextContent, scale: number, width: number, stackOf: StackOf): Line[] {
  return content.blocks.flatMap((block) => {
    setFont(pen, content, block, scale, stackOf)
    const fitsIn = (line: string) => widthOf(pen, content, block, scale, line) <= width
    return block.text.split('\n').flatMap((paragraph) => {
      const isRtl = isRightToLeft(paragraph)
      return linesOf(paragraph, fitsIn).map((text) => ({ text, block, isRtl }))
    })
  })
}

/** Space between letters, in pixels. */
function spacingOf({ letterSpacingEm }: TextContent, { sizePx }: TextBlock, scale: number): number {
  return sizePx * scale * letterSpacingEm
}

/** How wide a line is whose font is set. A pen puts space behind the last letter, too, which is none of the line's. */
function widthOf(pen: TextPen, content: TextContent, block: TextBlock, scale: number, text: string): number {
  return text === '' ? 0 : pen.measureText(text).width - spacingOf(content, block, scale)
}

function fits(pen: TextPen, content: TextContent, lines: readonly Line[], scale: number, room: Room, stackOf: StackOf): boolean {
  if (heightOf(content, lines, scale) > room.height) return false
  return lines.every((line) => {
    setFont(pen, content, line.block, scale, stackOf)
    return widthOf(pen, content, line.block, scale, line.text) <= room.width
  })
}

/** Whether no letter reaches out of the box above or below: those of some scripts are taller than a line of theirs. */
function isInkInside(pen: TextPen, content: TextContent, lines: readonly Line[], scale: number, heightPx: number, stackOf: StackOf): boolean {
  let top = (heightPx - heightOf(content, lines, scale)) / 2
  return lines.every(({ block, text }) => {
    setFont(pen, content, block, scale, stackOf)
    const { actualBoundingBoxAscent: ascent, actualBoundingBoxDescent: descent } = pen.measureText(text)
    const baseline = top + baselineOf(content, block) * scale
    top += block.sizePx * scale * content.lineHeight
    return !(baseline - ascent < -INK_SLACK_PX || baseline + descent > heightPx + INK_SLACK_PX)
  })
}

function heightOf({ lineHeight }: TextContent, lines: readonly Line[], scale: number): number {
  return lines.reduce((sum, line) => sum + line.block.sizePx * scale * lineHeight, 0)
}
