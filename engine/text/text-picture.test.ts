// Texts as pictures, by the canvas that the commands use.
import { createCanvas } from '@napi-rs/canvas'
import { beforeAll, describe, expect, it } from 'vitest'
import { USUAL_LETTERS, type TextContent } from '../../core/text/text-content.ts'
import type { TextJob } from '../../core/plan/frame-plan.ts'
import { loadFonts, nodeTextPicture } from '../../server/cli/node-engine.ts'
import { textPicture } from './text-picture.ts'

beforeAll(loadFonts)

const content: TextContent = {
  ...USUAL_LETTERS,
  family: 'Instrument Sans',
  align: 'centre',
  plate: null,
  blocks: [{ text: 'Brood', weight: 700, sizePx: 60, colour: '#ffffff' }],
}
const job = (part: Partial<TextContent> = {}, lettersShown: number | null = null): TextJob => ({
  sourceId: 'text:x',
  contentId: 'x',
  content: { ...content, ...part },
  widthPx: 240,
  heightPx: 100,
  lettersShown,
})
const alphaOf = (data: ArrayLike<number>) => Array.from({ length: data.length / 4 }, (_, i) => data[i * 4 + 3]!)
const areaOf = (data: ArrayLike<number>) => alphaOf(data).reduce((sum, alpha) => sum + alpha / 255, 0)

describe('letters', () => {
  it('that are there yet stand where they will, all of them', () => {
    const whole = alphaOf(nodeTextPicture(job()).data)
    let before = 0
    for (const letters of [0, 1, 3, 5]) {
      const shown = alphaOf(nodeTextPicture(job({}, letters)).data)
      const area = shown.reduce((sum, alpha) => sum + alpha, 0)
      expect(area).toBeGreaterThan(before - 1)
      before = area
      // Nothing is there that the whole word has not, but where two letters meet.
      expect(shown.filter((alpha, i) => alpha > whole[i]! + 8).length).toBeLessThanOrEqual(4)
    }
    expect(before).toBe(whole.reduce((sum, alpha) => sum + alpha, 0))
  })

  it('stand further apart by their spacing: four gaps of a quarter of their size and the last one’s own', () => {
    const widthOf = (part: Partial<TextContent>) => {
      const columns = alphaOf(nodeTextPicture(job({ align: 'start', ...part })).data).flatMap((alpha, i) => (alpha > 0 ? [i % 240] : []))
      return Math.max(...columns) - Math.min(...columns)
    }
    expect(widthOf({ letterSpacingEm: 0.1 }) - widthOf({})).toBe(4 * 6)
  })

  it('have lines as far apart as told', () => {
    const lines = (lineHeight: number) => {
      const { data } = nodeTextPicture({ ...job({ lineHeight, blocks: [{ ...content.blocks[0]!, text: 'I\nI', sizePx: 20 }] }) })
      const rows = new Set(alphaOf(data).flatMap((alpha, i) => (alpha > 128 ? [Math.floor(i / 240)] : [])))
      const [first, second] = [...rows].filter((row) => !rows.has(row - 1))
      return second! - first!
    }
    expect([1, 1.5, 2].map(lines)).toEqual([20, 30, 40])
  })

  it('have a line round them, outside: more area, in its colour, and the letters as they were', () => {
    const plain = nodeTextPicture(job()).data
    const lined = nodeTextPicture(job({ outline: { widthPx: 3, colour: '#ff0000' } })).data
    expect(areaOf(lined)).toBeGreaterThan(areaOf(plain) * 1.2)
    const inside = alphaOf(plain).findIndex((alpha) => alpha === 255)
    expect([...lined.slice(inside * 4, inside * 4 + 4)]).toEqual([255, 255, 255, 255])
    const red = alphaOf(lined).findIndex((alpha, i) => alpha === 255 && plain[i * 4 + 3] === 0)
    expect([...lined.slice(red * 4, red * 4 + 4)]).toEqual([255, 0, 0, 255])
  })
})

describe('a shadow', () => {
  const shadow = { dx: 7, dy: -4, blurPx: 10, colour: '#204060', opacity: 0.7 }

  it('is a gaussian of the letters, to one code: the canvas’s own is up to 19 off', () => {
    const letters = alphaOf(nodeTextPicture(job()).data)
    const { data } = nodeTextPicture(job({ shadow }))
    const sigma = shadow.blurPx / 2
    for (const [x, y] of [
      [40, 30],
      [100, 20],
      [150, 60],
      [200, 44],
    ] as const) {
      // The gaussian itself, in double precision; as wide as it is told by CSS Backgrounds and Borders 3 §7.1.1: half the blur.
      let sum = 0
      let weights = 0
      for (let dy = -20; dy <= 20; dy += 1) {
        for (let dx = -20; dx <= 20; dx += 1) {
          const weight = Math.exp(-(dx * dx + dy * dy) / (2 * sigma * sigma))
          weights += weight
          const [atX, atY] = [x - shadow.dx + dx, y - shadow.dy + dy]
          if (atX >= 0 && atX < 240 && atY >= 0 && atY < 100) sum += weight * (letters[atY * 240 + atX]! / 255)
        }
      }
      const letter = letters[y * 240 + x]! / 255
      const expected = letter + (sum / weights) * shadow.opacity * (1 - letter)
      expect(Math.abs(data[(y * 240 + x) * 4 + 3]! - expected * 255)).toBeLessThanOrEqual(1.5)
    }
  })

  it('is under the letters, over the plate, and moved as told when it is sharp', () => {
    const sharp = { ...shadow, dx: 20, dy: 0, blurPx: 0, opacity: 1 }
    const plain = nodeTextPicture(job())
    const both = nodeTextPicture(job({ shadow: sharp, plate: { colour: '#ffff00', opacity: 1, paddingPx: 0, accent: null } }))
    const inside = alphaOf(plain.data).findIndex((alpha, i) => alpha === 255 && plain.data[(i + 20) * 4 + 3] === 0)
    expect([...both.data.slice(inside * 4, inside * 4 + 3)]).toEqual([255, 255, 255])
    expect([...both.data.slice((inside + 20) * 4, (inside + 20) * 4 + 3)]).toEqual([0x20, 0x40, 0x60])
    expect([...both.data.slice(0, 4)]).toEqual([255, 255, 0, 255])
  })

  it('opens no second canvas for a text without one', () => {
    let opened = 0
    textPicture(
      job(),
      (widthPx, heightPx) => {
        opened += 1
        const pen = createCanvas(widthPx, heightPx).getContext('2d')
        return { pen: pen as never, read: () => pen.getImageData(0, 0, widthPx, heightPx).data }
      },
      () => 'sans-serif',
    )
    expect(opened).toBe(1)
  })
})
