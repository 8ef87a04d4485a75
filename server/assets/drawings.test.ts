// Drawings, and pictures of newer kinds, as uploads: what is kept is a picture, and nothing of it can run or fetch.
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startTestServer, type TestServer } from '../../tests/support/test-server.ts'
import { DRAWN_SIDE_PX, isDrawing } from './drawings.ts'

let server: TestServer
let elsewhere: Server
let asked: string[] = []

beforeAll(async () => {
  server = await startTestServer()
  elsewhere = createServer((request, response) => {
    asked.push(request.url ?? '')
    response.end('GIF89a')
  })
  await new Promise<void>((resolve) => elsewhere.listen(0, '127.0.0.1', resolve))
})
afterAll(async () => {
  await server.close()
  await new Promise((resolve) => elsewhere.close(resolve))
})

interface Answer {
  readonly status: number
  readonly body: {
    readonly hash: string
    readonly mimeType: string
    readonly widthPx: number
    readonly heightPx: number
    readonly error: { readonly code: string }
  }
}
async function upload(bytes: Uint8Array | string, name: string): Promise<Answer> {
  const response = await fetch(`${server.studioUrl}/api/assets?name=${name}`, {
    method: 'POST',
    body: bytes as BodyInit,
    headers: { 'content-type': 'application/octet-stream' },
  })
  return { status: response.status, body: (await response.json()) as Answer['body'] }
}
const kept = async (hash: string) => Buffer.from(await (await fetch(`${server.studioUrl}/api/assets/${hash}`)).arrayBuffer())
const svg = (inside: string, size = 'width="40" height="20"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${size}>${inside}</svg>`

describe('a drawing', () => {
  it('is kept as a picture, as wide as the widest canvas, sharp to the pixel', async () => {
    const { status, body } = await upload(svg('<rect width="20" height="20" fill="#c81e28"/>'), 'half.svg')
    expect([status, body.mimeType, body.widthPx, body.heightPx]).toEqual([201, 'image/png', DRAWN_SIDE_PX, DRAWN_SIDE_PX / 2])
    const { data, info } = await sharp(await kept(body.hash))
      .raw()
      .toBuffer({ resolveWithObject: true })
    const pixel = (x: number) => [...data.subarray((900 * info.width + x) * info.channels, (900 * info.width + x) * info.channels + 4)]
    // Its edge lies between two pixels: it was not drawn small and enlarged.
    expect([pixel(DRAWN_SIDE_PX / 2 - 1), pixel(DRAWN_SIDE_PX / 2)]).toEqual([
      [0xc8, 0x1e, 0x28, 255],
      [0, 0, 0, 0],
    ])
  })

  it('loses its scripts, and fetches nothing from anywhere', async () => {
    asked = []
    const at = `http://127.0.0.1:${(elsewhere.address() as AddressInfo).port}`
    const hostile = svg(
      [
        `<script>fetch('${at}/script')</script>`,
        `<style>@import url('${at}/style'); rect { fill: url('${at}/fill') }</style>`,
        `<image href="${at}/image.png" width="9" height="9"/><image xlink:href="${at}/linked.png" width="9" height="9"/>`,
        `<image href="file:///etc/passwd" width="9" height="9"/><use href="${at}/use.svg#a"/>`,
        `<foreignObject width="9" height="9"><iframe xmlns="http://www.w3.org/1999/xhtml" src="${at}/frame"/></foreignObject>`,
        '<rect width="40" height="20" onload="alert(1)"/>',
      ].join(''),
    )
    const { status, body } = await upload(hostile, 'hostile.svg')
    expect(status).toBe(201)
    expect(asked).toEqual([])
    const bytes = await kept(body.hash)
    expect(bytes.subarray(1, 4).toString()).toBe('PNG')
    expect(bytes.includes('script')).toBe(false)
  })

  it.each([
    [
      'one that outgrows its file by entities',
      `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa">${Array.from({ length: 9 }, (_, i) => `<!ENTITY ${'bcdefghij'[i]!} "${`&${'abcdefghi'[i]!};`.repeat(10)}">`).join('')}]>${svg('<text>&j;</text>')}`,
    ],
    ['one that reads a file by an entity', `<!DOCTYPE svg [<!ENTITY a SYSTEM "file:///etc/passwd">]>${svg('<text y="20">&a;</text>')}`],
    ['one that nests ten thousand deep', svg(`${'<g>'.repeat(10_000)}<rect width="9" height="9"/>${'</g>'.repeat(10_000)}`)],
    [
      'one that uses itself a million times',
      svg(
        `<defs><g id="a"><rect width="1" height="1"/></g>${Array.from({ length: 6 }, (_, i) => `<g id="${'bcdefg'[i]!}">${`<use href="#${'abcdef'[i]!}"/>`.repeat(10)}</g>`).join('')}</defs><use href="#g"/>`,
      ),
    ],
    ['one that ends in the middle', '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><rect'],
  ])('that is hostile is refused, or drawn without harm: %s', async (_, text) => {
    const { status, body } = await upload(text, 'bad.svg')
    if (status === 201) expect(body.mimeType).toBe('image/png')
    else expect([status, body.error.code]).toEqual([400, 'drawing-damaged'])
    expect((await fetch(`${server.studioUrl}/api/health`)).status).toBe(200)
  })

  it.each([
    ['a pixel', 'width="1" height="1"', [DRAWN_SIDE_PX, DRAWN_SIDE_PX]],
    ['a line upright', 'width="1" height="400"', [10, DRAWN_SIDE_PX]],
    ['enormous', 'width="100000" height="50000"', [DRAWN_SIDE_PX, DRAWN_SIDE_PX / 2]],
    ['without a size of its own', 'viewBox="0 0 300 200"', [DRAWN_SIDE_PX, DRAWN_SIDE_PX / 1.5]],
  ])('of any size arrives: %s', async (_, size, expected) => {
    const { status, body } = await upload(svg('<rect width="100%" height="100%" fill="#123456"/>', size), 'size.svg')
    expect(status).toBe(201)
    expect(Math.abs(body.widthPx - expected[0]!)).toBeLessThanOrEqual(1)
    expect(Math.abs(body.heightPx - expected[1]!)).toBeLessThanOrEqual(1)
  })

  it('is told by its first element, whatever stands before it', () => {
    const isSvg = (text: string) => isDrawing(Buffer.from(text))
    expect(
      ['<svg>', '<?xml version="1.0"?>\n<svg ', '\uFEFF<svg ', '<!-- by hand -->\n<svg ', '<!DOCTYPE svg PUBLIC "a" "b"><svg ', '<x:svg '].every(isSvg),
    ).toBe(true)
    expect(['<html><svg>', 'svg', '<svgfoo>', '{"a": "<svg>"}'].some(isSvg)).toBe(false)
  })
})

describe('pictures', () => {
  it('in AVIF are taken, in HEIC refused', async () => {
    const avif = await sharp({ create: { width: 64, height: 48, channels: 3, background: '#336699' } })
      .avif()
      .toBuffer()
    const { status, body } = await upload(avif, 'wall.avif')
    expect([status, body.mimeType, body.widthPx, body.heightPx]).toEqual([201, 'image/avif', 64, 48])
    // ISO/IEC 23008-12, §10: the brand of HEVC in the same container.
    const heic = Buffer.from(avif)
    heic.write('heic', 8, 'latin1')
    expect((await upload(heic.subarray(0, 200), 'photo.heic')).status).toBe(415)
  })

  it('that were taken sideways say how they lie upright (Exif 2.32, orientation 6)', async () => {
    const sideways = await sharp({ create: { width: 80, height: 20, channels: 3, background: '#888' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer()
    const { body } = await upload(sideways, 'sideways.jpg')
    expect([body.widthPx, body.heightPx]).toEqual([20, 80])
  })
})
