import { describe, expect, it } from 'vitest'
import { USUAL_LETTERS, type TextContent } from '../../core/text/text-content.ts'
import { drawText, layOutText, type TextPen } from './draw-text.ts'

const content: TextContent = {
  ...USUAL_LETTERS,
  family: 'Instrument Sans',
  align: 'start',
  plate: null,
  blocks: [{ text: 'One two three', weight: 400, sizePx: 20, colour: '#112233' }],
}

/** A pen on which every letter is half as wide as it is high; it writes down what was drawn. */
function paperPen() {
  const texts: { text: string; x: number; y: number; size: number; colour: string; align: string }[] = []
  const directions: string[] = []
  const strokes: { text: string; x: number; y: number; width: number; colour: string }[] = []
  const rects: { x: number; y: number; width: number; height: number; alpha: number; colour: string }[] = []
  let font = ''
  const sizeOf = () => Number(/([\d.]+)px/.exec(font)![1])
  const pen = {
    set font(next: string) {
      font = next
    },
    get font() {
      return font
    },
    fillStyle: '',
    globalAlpha: 1,
    textAlign: 'left',
    textBaseline: 'alphabetic',
    letterSpacing: '0px',
    strokeText: (text: string, x: number, y: number) => strokes.push({ text, x, y, width: pen.lineWidth, colour: pen.strokeStyle }),
    lineWidth: 1,
    strokeStyle: '',
    direction: 'ltr',
    measureText: (text: string) => ({ width: (text.length * sizeOf()) / 2 }),
    fillText: (text: string, x: number, y: number) => {
      directions.push(pen.direction)
      texts.push({ text, x, y, size: sizeOf(), colour: pen.fillStyle, align: pen.textAlign })
    },
    fillRect: (x: number, y: number, width: number, height: number) => rects.push({ x, y, width, height, alpha: pen.globalAlpha, colour: pen.fillStyle }),
  }
  return { pen: pen as unknown as TextPen, texts, rects, directions, strokes }
}

describe('drawText', () => {
  it('writes a line that fits at its own size', () => {
    const { pen, texts } = paperPen()
    drawText(pen, content, 400, 100)
    expect(texts).toMatchObject([{ text: 'One two three', size: 20, x: 0, colour: '#112233', align: 'left' }])
    expect(pen.font).toMatch(/^400 20px "Instrument Sans", "Noto Sans",.* sans-serif$/)
  })

  it('breaks between words, never inside one', () => {
    const { pen, texts } = paperPen()
    drawText(pen, content, 80, 100)
    expect(texts.map(({ text }) => text)).toEqual(['One two', 'three'])
    expect(texts[1]!.y - texts[0]!.y).toBeCloseTo(20 * 1.22)
  })

  it('keeps the line breaks that were typed', () => {
    const { pen, texts } = paperPen()
    drawText(pen, { ...content, blocks: [{ ...content.blocks[0]!, text: 'One\n\ntwo' }] }, 400, 200)
    expect(texts.map(({ text }) => text)).toEqual(['One', '', 'two'])
  })

  it.each([
    ['too long a word', 'Donaudampfschifffahrtsgesellschaft', 120, 60],
    ['too many lines', 'a b c d e f g h i j k l m n o p q r s t u v w x y z', 60, 60],
  ])('shrinks all of it until it fits: %s', (_name, text, width, height) => {
    const { pen, texts } = paperPen()
    drawText(pen, { ...content, blocks: [{ ...content.blocks[0]!, text }] }, width, height)
    expect(texts[0]!.size).toBeLessThan(20)
    for (const line of texts) {
      expect((line.text.length * line.size) / 2).toBeLessThanOrEqual(width)
      expect(line.y).toBeLessThanOrEqual(height)
      expect(line.y - line.size).toBeGreaterThanOrEqual(-line.size * 0.3)
    }
  })

  it('shrinks blocks together, so that their proportions stay', () => {
    const { pen, texts } = paperPen()
    const blocks = [
      { ...content.blocks[0]!, text: 'Heading', sizePx: 60 },
      { ...content.blocks[0]!, text: 'detail', sizePx: 30 },
    ]
    drawText(pen, { ...content, blocks }, 150, 60)
    expect(texts[0]!.size / texts[1]!.size).toBeCloseTo(2)
  })

  it('stands in the middle of the height, and where the alignment says', () => {
    const { pen, texts } = paperPen()
    drawText(pen, { ...content, align: 'centre' }, 400, 100)
    drawText(pen, { ...content, align: 'end' }, 400, 100)
    expect(texts.map(({ x, align }) => [x, align])).toEqual([
      [200, 'center'],
      [400, 'right'],
    ])
    const middle = (100 - 20 * 1.22) / 2
    expect(texts[0]!.y).toBeCloseTo(middle + 20 * 0.94)
  })

  it('says how high its box must be for the text to keep its size', () => {
    const { pen } = paperPen()
    const plate = { colour: '#1e5b47', opacity: 0.9, paddingPx: 20, accent: null }
    const text = { ...content.blocks[0]!, text: 'one two three four five six' }
    const { lines, scale, neededHeightPx } = layOutText(pen, { ...content, plate, blocks: [text] }, 140, 40)
    expect(scale).toBeLessThan(1)
    expect(lines.length).toBeGreaterThan(1)
    const again = layOutText(pen, { ...content, plate, blocks: [text] }, 140, neededHeightPx)
    expect(again.scale).toBe(1)
    expect(layOutText(pen, { ...content, plate, blocks: [text] }, 140, neededHeightPx - 1).scale).toBeLessThan(1)
  })

  it('breaks scripts that are written without spaces between any two words', () => {
    const { pen, texts } = paperPen()
    drawText(pen, { ...content, blocks: [{ ...content.blocks[0]!, text: '養蜂家の夜の教室へようこそ' }] }, 60, 400)
    expect(texts.length).toBeGreaterThan(2)
    expect(texts.map(({ text }) => text).join('')).toBe('養蜂家の夜の教室へようこそ')
    expect(texts[0]!.size).toBe(20)
  })

  it('writes from right to left where the first letter does', () => {
    const { pen, directions } = paperPen()
    for (const text of ['نحل العسل', 'דבורים', 'Bees دبور', '12 نحل']) drawText(pen, { ...content, blocks: [{ ...content.blocks[0]!, text }] }, 400, 100)
    expect(directions).toEqual(['rtl', 'rtl', 'ltr', 'rtl'])
  })

  it('gives every line of a paragraph the paragraph’s direction, whatever the line begins with (UAX 9, P2 and P3)', () => {
    const { pen, texts, directions } = paperPen()
    drawText(pen, { ...content, blocks: [{ ...content.blocks[0]!, text: 'نحل Bees العسل\nBees نحل\n12 \u2067دبور\u2069 Bees' }] }, 60, 400)
    const of = (text: string) => directions[texts.findIndex((one) => one.text === text)]
    expect(of('Bees')).toBe('rtl')
    expect(directions.slice(0, 3)).toEqual(['rtl', 'rtl', 'rtl'])
    // What is isolated says nothing about the rest.
    expect(directions.at(-1)).toBe('ltr')
  })

  it('keeps spaces that a line begins with, and leaves out those it ends with', () => {
    const { pen, texts } = paperPen()
    drawText(pen, { ...content, blocks: [{ ...content.blocks[0]!, text: '  One two   three' }] }, 100, 200)
    expect(texts.map(({ text }) => text)).toEqual(['  One two', 'three'])
  })

  it('counts no space behind the last letter: a line fits by its letters, and stands in the middle and at the end by them', () => {
    const spaced = { ...content, letterSpacingEm: 0.5, blocks: [{ ...content.blocks[0]!, text: 'abcd' }] }
    const { pen, texts } = paperPen()
    // Four letters of 10 and three gaps of 10: a pen measures a gap more.
    const measure = pen.measureText.bind(pen)
    pen.measureText = (text: string) => ({ ...measure(text), width: measure(text).width + 10 * text.length }) as TextMetrics
    expect(layOutText(pen, spaced, 70, 100).scale).toBe(1)
    expect(layOutText(pen, spaced, 69, 100).scale).toBeLessThan(1)
    drawText(pen, { ...spaced, align: 'end' }, 400, 100)
    drawText(pen, { ...spaced, align: 'centre' }, 400, 100)
    expect(texts.map(({ x }) => x)).toEqual([410, 205])
  })

  it('fills the box with the plate, puts the accent at the leading edge, and keeps the text off both', () => {
    const { pen, texts, rects } = paperPen()
    drawText(pen, { ...content, plate: { colour: '#1e5b47', opacity: 0.9, paddingPx: 20, accent: '#e0b04b' } }, 400, 100)
    expect(rects).toEqual([
      { x: 0, y: 0, width: 400, height: 100, alpha: 0.9, colour: '#1e5b47' },
      { x: 0, y: 0, width: 6, height: 100, alpha: 1, colour: '#e0b04b' },
    ])
    expect(texts[0]!.x).toBe(26)
  })
})
