// Drawing in this thread, with the typefaces as they are kept, on the canvas of Node.
import { createCanvas } from '@napi-rs/canvas'
import { describe, expect, it } from 'vitest'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { USUAL_LETTERS } from '../../core/text/text-content.ts'
import { FontBook } from '../text/font-book.ts'
import { LocalRasterMaker, type Raster, type RasterCanvas } from './raster.ts'

const open = (widthPx: number, heightPx: number): RasterCanvas => {
  const pen = createCanvas(widthPx, heightPx).getContext('2d')
  return { pen: pen as unknown as RasterCanvas['pen'], read: () => pen.getImageData(0, 0, widthPx, heightPx).data }
}
const size = { widthPx: 120, heightPx: 60 }
const text = (words: string): Raster => ({
  type: 'text',
  job: {
    sourceId: 'text:1',
    contentId: 'c',
    content: {
      ...USUAL_LETTERS,
      family: 'Instrument Sans',
      align: 'start',
      plate: null,
      blocks: [{ text: words, sizePx: 24, weight: 700, colour: '#ffffff' }],
    },
    lettersShown: null,
    ...size,
  } as Extract<Raster, { type: 'text' }>['job'],
})
const coveredPixels = ({ data }: RgbaPicture) => Array.from({ length: data.length / 4 }, (_, i) => data[i * 4 + 3]!).filter((alpha) => alpha > 0).length

describe('LocalRasterMaker', () => {
  it('draws words with the kept typefaces, once their letters are there', async () => {
    const fonts = new FontBook([], { add: () => undefined } as unknown as FontFaceSet)
    expect(coveredPixels(await new LocalRasterMaker(fonts, open).make(text('Bees')))).toBeGreaterThan(100)
    expect(coveredPixels(await new LocalRasterMaker(fonts, open).make(text('')))).toBe(0)
  })

  it('waits for letters that are not there', async () => {
    let areThere = false
    let come = (): void => undefined
    const load = () => new Promise<void>((resolve) => (come = () => ((areThere = true), resolve())))
    const made = new LocalRasterMaker({ isReady: () => areThere, load, stackFor: () => 'sans-serif' }, open).make(text('Bees'))
    expect(made).toBeInstanceOf(Promise)
    come()
    expect(coveredPixels(await made)).toBeGreaterThan(100)
  })

  it('draws the card over all of its picture, and forms at once', () => {
    const maker = new LocalRasterMaker({ isReady: () => true, load: () => Promise.resolve(), stackFor: () => 'sans-serif' }, open)
    const card = maker.make({ type: 'card', job: { ...size, title: 'Back soon', detail: 'At ten' } }) as RgbaPicture
    expect(coveredPixels(card)).toBe(size.widthPx * size.heightPx)
    const wordless = maker.make({ type: 'card', job: { ...size, title: '', detail: '' } }) as RgbaPicture
    expect(card.data).not.toEqual(wordless.data)
    const square = {
      data: 'M0 0H10V10H0Z',
      boxWidth: 10,
      boxHeight: 10,
      padPx: 0,
      fill: { kind: 'plain', colour: '#ff0000', opacity: 1 },
      stroke: null,
    } as const
    const form = maker.make({ type: 'outline', job: { sourceId: 'outline:1', outline: square, ...size } }) as RgbaPicture
    expect([...form.data.slice(0, 4)]).toEqual([255, 0, 0, 255])
  })
})
