import { createCanvas } from '@napi-rs/canvas'
import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import type { Show } from '../core/show/show.ts'
import { readShow } from '../core/show/migrate.ts'
import type { Pen } from '../standins/drawing/canvas.ts'
import { drawDriftingPollen, POLLEN_HEIGHT_PX, POLLEN_WIDTH_PX } from './draw/drifting-pollen.ts'
import { pollenLoop, seedDemo, seedDemos } from './seed.ts'

function library() {
  const shows: { readonly id: string; readonly show: Show }[] = []
  const files: string[] = []
  return {
    shows,
    files,
    store: {
      count: async () => shows.length,
      create: async (show: Show, id: string) => shows.push({ id, show }),
    },
    pictures: {
      add: async (_bytes: Buffer, fileName: string) => {
        if (!files.includes(fileName)) files.push(fileName)
        return { hash: files.indexOf(fileName).toString(16).padStart(64, '0') }
      },
    },
  }
}

describe('the demo', () => {
  it('has two shows that can be read, the class last; a library that was ever used is left alone', async () => {
    const { shows, files, store, pictures } = library()
    await seedDemos(store, pictures)
    expect(shows.map(({ show }) => show.name)).toEqual(['The hive scale, week by week', 'Reading a brood frame'])
    for (const { show } of shows) expect(readShow(JSON.parse(JSON.stringify(show)))).toEqual(show)
    const assets = shows.flatMap(({ show }) => show.inputs.flatMap((input) => (input.kind === 'picture' || input.kind === 'clip' ? [input.asset] : [])))
    for (const asset of assets) expect(files[Number.parseInt(asset, 16)]).toMatch(/\.(png|webp)$/)
    await seedDemos(store, pictures)
    await seedDemo(store, pictures)
    expect(shows).toHaveLength(2)
  })

  it('shows a screen, a clip, a divider, ink and layouts in the second', async () => {
    const { shows, store, pictures } = library()
    await seedDemos(store, pictures)
    const { inputs, scenes } = shows[0]!.show
    expect(inputs.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['screen', 'clip', 'camera']))
    expect(scenes.flatMap(({ layers }) => layers.flatMap(({ part }) => part ?? []))).toEqual(['divider', 'ink'])
  })

  it('has a loop of 36 pictures, the last as far from the first as any from its next', async () => {
    expect((await sharp(await pollenLoop(), { pages: -1 }).metadata()).pages).toBe(36)
    const canvas = createCanvas(POLLEN_WIDTH_PX, POLLEN_HEIGHT_PX)
    const pen = canvas.getContext('2d')
    const pictures = Array.from({ length: 36 }, (_, i) => {
      drawDriftingPollen(pen as unknown as Pen, i / 36)
      return pen.getImageData(0, 0, POLLEN_WIDTH_PX, POLLEN_HEIGHT_PX).data
    })
    const apart = (one: number, other: number) => pictures[one]!.reduce((sum, value, i) => sum + Math.abs(value - pictures[other]![i]!), 0)
    const steps = Array.from({ length: 35 }, (_, i) => apart(i, i + 1))
    expect(apart(35, 0)).toBeLessThanOrEqual(Math.max(...steps) * 1.05)
    expect(apart(35, 0)).toBeGreaterThanOrEqual(Math.min(...steps) * 0.95)
    expect(apart(0, 18)).toBeGreaterThan(2 * Math.max(...steps))
  })
})
