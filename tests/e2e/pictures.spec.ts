// Pictures as cameras and other programs write them: turned by EXIF, in other colour spaces. What the stage shows against libvips and Little CMS
// (sharp), which turn and convert by themselves.
import type { Page } from '@playwright/test'
import { inflateSync } from 'node:zlib'
import sharp from 'sharp'
import { newInputLayer } from '../../core/layers/input.ts'
import type { Input, Layer } from '../../core/show/show.ts'
import { expect, openStudio, test } from './studio.ts'

const SHOW_ID = 'demo-brood-frame'
const [COLUMNS, CELL_WIDTH, CELL_HEIGHT] = [4, 320, 180]
/** Four corners, each its own colour. */
const QUADRANTS = `<svg xmlns="http://www.w3.org/2000/svg" width="96" height="64"><rect width="96" height="64" fill="#b02020"/><rect x="48" width="48" height="32" fill="#20a040"/><rect y="32" width="48" height="32" fill="#2040b0"/><rect x="48" y="32" width="48" height="32" fill="#c0b020"/></svg>`
const plain = (background: string) => sharp({ create: { width: 48, height: 48, channels: 3, background } })

type Rgb = readonly number[]
interface File {
  readonly name: string
  readonly bytes: Buffer
}

/** The colours that libvips has a quarter of the way in from each corner, once it has turned and converted the file. */
async function cornersOf(bytes: Buffer): Promise<readonly Rgb[]> {
  const { data, info } = await sharp(bytes).rotate().toColourspace('srgb').removeAlpha().raw().toBuffer({ resolveWithObject: true })
  const at = (x: number, y: number) => {
    const start = (Math.floor(y * info.height) * info.width + Math.floor(x * info.width)) * info.channels
    return [...data.subarray(start, start + 3)]
  }
  return [at(0.25, 0.25), at(0.75, 0.25), at(0.25, 0.75), at(0.75, 0.75)]
}

/** The same points of a cell of the stage. */
const stageCorners = (page: Page, cell: number) =>
  page.evaluate(
    ([left, top, width, height]) => {
      const pen = new OffscreenCanvas(1280, 720).getContext('2d', { willReadFrequently: true })!
      pen.drawImage(document.querySelector<HTMLCanvasElement>('[data-testid="stage"] canvas')!, 0, 0, 1280, 720)
      const at = (x: number, y: number) => [...pen.getImageData(left! + x * width!, top! + y * height!, 1, 1).data.slice(0, 3)]
      return [at(0.25, 0.25), at(0.75, 0.25), at(0.25, 0.75), at(0.75, 0.75)]
    },
    [(cell % COLUMNS) * CELL_WIDTH, Math.floor(cell / COLUMNS) * CELL_HEIGHT, CELL_WIDTH, CELL_HEIGHT],
  )

/** The first pixel of a PNG of 8 bits, as it is stored: the filters of PNG 3 §9 leave it alone. */
function firstStored(png: Buffer): Rgb {
  const parts: Buffer[] = []
  for (let at = 8; at < png.length; at += 12 + png.readUInt32BE(at)) {
    if (png.toString('latin1', at + 4, at + 8) === 'IDAT') parts.push(png.subarray(at + 8, at + 8 + png.readUInt32BE(at)))
  }
  return [...inflateSync(Buffer.concat(parts)).subarray(1, 4)]
}

test('pictures are turned by their EXIF and converted by their profiles as libvips and Little CMS do', async ({ page, server }) => {
  const turned = await Promise.all(
    Array.from({ length: 8 }, async (_, i): Promise<File> => {
      const orientation = i + 1
      return { name: `turned-${orientation}.jpg`, bytes: await sharp(Buffer.from(QUADRANTS)).jpeg({ quality: 96 }).withMetadata({ orientation }).toBuffer() }
    }),
  )
  const wide = await Promise.all(
    ['#3c78b4', '#b44a3c'].map(async (colour): Promise<File> => ({
      name: `p3 ${colour}.png`,
      bytes: await plain(colour).withIccProfile('p3').png().toBuffer(),
    })),
  )
  // They do hold other numbers than sRGB has for these colours.
  expect(firstStored(wide[0]!.bytes)).not.toEqual([0x3c, 0x78, 0xb4])
  const print: File = { name: 'print.jpg', bytes: await plain('#5a8c50').toColourspace('cmyk').withIccProfile('cmyk').jpeg({ quality: 98 }).toBuffer() }
  const grey: File = { name: 'grey.png', bytes: await plain('#707070').toColourspace('b-w').png().toBuffer() }
  const files = [...turned, ...wide, print, grey]

  const { id, revision, show } = await server.shows.get(SHOW_ID)
  const inputs: Input[] = []
  const layers: Layer[] = []
  for (const [cell, { name, bytes }] of files.entries()) {
    const { hash } = await server.assets.add(bytes, name)
    const input: Input = { id: `file-${cell}`, kind: 'picture', name, asset: hash, treatment: [] }
    inputs.push(input)
    const placement = { x: (cell % COLUMNS) * CELL_WIDTH, y: Math.floor(cell / COLUMNS) * CELL_HEIGHT, width: CELL_WIDTH, height: CELL_HEIGHT, angleDeg: 0 }
    layers.push({ ...newInputLayer(input, show.canvas, () => `layer-${cell}`), placement: { ...placement, fit: 'stretch' } })
  }
  await server.shows.save(id, revision, { ...show, inputs: [...show.inputs, ...inputs], scenes: [{ ...show.scenes[0]!, layers }, ...show.scenes.slice(1)] })

  await openStudio(page, server)
  for (const [cell, { name, bytes }] of files.entries()) {
    const wanted = await cornersOf(bytes)
    const worst = async () => {
      const found = await stageCorners(page, cell)
      return Math.max(...found.flatMap((colour, i) => colour.map((value, channel) => Math.abs(value - wanted[i]![channel]!))))
    }
    // Two decoders of JPEG differ by a few codes. Inks are mapped with another rendering intent (ICC.1 §6.1); without their profile they would be 43 off.
    await expect.poll(worst, { message: name, timeout: 20_000 }).toBeLessThanOrEqual(name === 'print.jpg' ? 16 : 4)
  }
  // Each way of turning is another picture: a reading that ignored them would have met one of eight.
  const pictures = await Promise.all(
    turned.map(async ({ bytes }) => JSON.stringify((await cornersOf(bytes)).map((colour) => colour.map((v) => Math.round(v / 32))))),
  )
  expect(new Set(pictures).size).toBe(8)
})
