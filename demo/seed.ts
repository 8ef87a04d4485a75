import { createCanvas } from '@napi-rs/canvas'
import type { Pen } from '../standins/drawing/canvas.ts'
import type { Show } from '../core/show/show.ts'
import { drawApiaryWall } from './draw/apiary-wall.ts'
import { drawEveningMeadow } from './draw/evening-meadow.ts'
import { drawSocietyMark } from './draw/society-mark.ts'
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

/** Files the demo show in an empty library; does nothing if any show was ever made. */
export async function seedDemo(shows: ShowLibrary, pictures: PictureLibrary): Promise<void> {
  if ((await shows.count()) > 0) return
  const { wall, mark, meadow } = demoPictures()
  const hashes: DemoAssets = {
    wall: (await pictures.add(wall, 'apiary-wall.png')).hash,
    mark: (await pictures.add(mark, 'society-mark.png')).hash,
    meadow: (await pictures.add(meadow, 'evening-meadow.png')).hash,
  }
  await shows.create(demoShow(hashes), DEMO_SHOW_ID)
}
