import { readFileSync } from 'node:fs'
import { createCanvas, GlobalFonts } from '@napi-rs/canvas'
import sharp from 'sharp'
import type { Pen } from '../standins/drawing/canvas.ts'
import type { Show } from '../core/show/show.ts'
import { withClassDeck } from './class-deck.ts'
import { drawApiaryWall } from './draw/apiary-wall.ts'
import { classSlides, drawClassSlide, SLIDE_FAMILY, SLIDE_HEIGHT_PX, SLIDE_WIDTH_PX } from './draw/class-slides.ts'
import { drawDriftingPollen, POLLEN_HEIGHT_PX, POLLEN_WIDTH_PX } from './draw/drifting-pollen.ts'
import { drawEveningMeadow } from './draw/evening-meadow.ts'
import { drawSocietyMark } from './draw/society-mark.ts'
import { SCALE_SHOW_ID, scaleShow } from './scale-show.ts'
import { DEMO_SHOW_ID, demoShow, type DemoAssets } from './show.ts'

/** Draws one of the demo's pictures as a PNG file. */
function drawPng(widthPx: number, heightPx: number, draw: (pen: Pen) => void): Buffer {
  const canvas = createCanvas(widthPx, heightPx)
  draw(canvas.getContext('2d') as unknown as Pen)
  return canvas.toBuffer('image/png')
}

/** The demo's pictures as PNG files. */
export function demoPictures(): Readonly<Record<keyof DemoAssets, Buffer>> {
  return {
    wall: drawPng(1920, 1080, drawApiaryWall),
    mark: drawPng(400, 400, drawSocietyMark),
    meadow: drawPng(1920, 1080, drawEveningMeadow),
  }
}

const SLIDE_FONT = new URL('../node_modules/@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2', import.meta.url)

/** The slides of the class as PNG files. */
export function slidePictures(): readonly Buffer[] {
  if (!GlobalFonts.has(SLIDE_FAMILY)) GlobalFonts.register(readFileSync(SLIDE_FONT), SLIDE_FAMILY)
  return classSlides.map((_, index) => drawPng(SLIDE_WIDTH_PX, SLIDE_HEIGHT_PX, (pen) => drawClassSlide(pen, index)))
}

/** Pictures of the loop, twelve a second. */
const POLLEN_PICTURES = 36

/** The loop of the second show as an animated WebP file. */
export async function pollenLoop(): Promise<Buffer> {
  const canvas = createCanvas(POLLEN_WIDTH_PX, POLLEN_HEIGHT_PX)
  const pen = canvas.getContext('2d')
  const pictures = Array.from({ length: POLLEN_PICTURES }, (_, i) => {
    drawDriftingPollen(pen as unknown as Pen, i / POLLEN_PICTURES)
    return Buffer.from(pen.getImageData(0, 0, POLLEN_WIDTH_PX, POLLEN_HEIGHT_PX).data)
  })
  const raw = { width: POLLEN_WIDTH_PX, height: POLLEN_HEIGHT_PX * POLLEN_PICTURES, channels: 4, pageHeight: POLLEN_HEIGHT_PX } as const
  return sharp(Buffer.concat(pictures), { raw })
    .webp({ quality: 82, effort: 2, loop: 0, delay: pictures.map(() => 83) })
    .toBuffer()
}

/** What the demo needs of a library of shows. */
export interface ShowLibrary {
  /** Shows ever made. */
  count(): Promise<number>
  create(show: Show, id: string): Promise<unknown>
}

/** What it needs of a store of pictures. */
export interface PictureLibrary {
  add(bytes: Buffer, fileName: string): Promise<{ readonly hash: string }>
}

/** Files both shows of the demo in an empty library, the class last, so that it opens first; does nothing if any show was ever made. */
export async function seedDemos(shows: ShowLibrary, pictures: PictureLibrary): Promise<void> {
  if ((await shows.count()) > 0) return
  const wall = (await pictures.add(demoPictures().wall, 'apiary-wall.png')).hash
  const pollen = (await pictures.add(await pollenLoop(), 'drifting-pollen.webp')).hash
  await shows.create(scaleShow({ wall, pollen }), SCALE_SHOW_ID)
  const slides: string[] = []
  for (const [index, file] of slidePictures().entries()) slides.push((await pictures.add(file, `brood-frame-${index + 1}.png`)).hash)
  await fileClass(shows, pictures, slides)
}

/** Files the class alone, without its slides, in an empty library; does nothing if any show was ever made. */
export async function seedDemo(shows: ShowLibrary, pictures: PictureLibrary): Promise<void> {
  if ((await shows.count()) === 0) await fileClass(shows, pictures)
}

async function fileClass(shows: ShowLibrary, pictures: PictureLibrary, slides: readonly string[] = []): Promise<void> {
  const { wall, mark, meadow } = demoPictures()
  const hashes: DemoAssets = {
    wall: (await pictures.add(wall, 'apiary-wall.png')).hash,
    mark: (await pictures.add(mark, 'society-mark.png')).hash,
    meadow: (await pictures.add(meadow, 'evening-meadow.png')).hash,
  }
  const show = demoShow(hashes)
  await shows.create(slides.length === 0 ? show : withClassDeck(show, slides), DEMO_SHOW_ID)
}
