import { createHash } from 'node:crypto'
import { existsSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { crc32, deflateSync } from 'node:zlib'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { MOST_BYTES } from '../../core/schema/limits.ts'
import { restartTestServer, startTestServer, type TestServer } from '../../tests/support/test-server.ts'

let server: TestServer
let good: Buffer
beforeAll(async () => {
  server = await startTestServer()
  good = await sharp({ create: { width: 320, height: 200, channels: 3, background: '#a87823' } })
    .jpeg()
    .toBuffer()
})
afterAll(() => server.close())

async function upload(bytes: Uint8Array, name: string) {
  const response = await fetch(`${server.studioUrl}/api/assets?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    body: bytes as BodyInit,
    headers: { 'content-type': 'application/octet-stream' },
  })
  return { status: response.status, body: (await response.json()) as { hash: string; mimeType: string; error: { code: string; message: string } } }
}

/** The beginning of a PNG file of a size (W3C PNG, §11.2.1): enough to refuse it by, without the hours of making it. */
function pngHeader(width: number, height: number): Buffer {
  const header = Buffer.alloc(25)
  header.writeUInt32BE(13, 0)
  header.write('IHDR', 4, 'latin1')
  header.writeUInt32BE(width, 8)
  header.writeUInt32BE(height, 12)
  header.set([8, 0, 0, 0, 0], 16)
  header.writeUInt32BE(crc32(header.subarray(4, 21)) >>> 0, 21)
  const data = deflateSync(Buffer.alloc(100))
  const chunk = Buffer.alloc(12 + data.length)
  chunk.writeUInt32BE(data.length, 0)
  chunk.write('IDAT', 4, 'latin1')
  chunk.set(data, 8)
  chunk.writeUInt32BE(crc32(chunk.subarray(4, 8 + data.length)) >>> 0, 8 + data.length)
  return Buffer.concat([Buffer.from('89504e470d0a1a0a', 'hex'), header, chunk])
}

describe('/api/assets', () => {
  it('keeps a picture under the hash of its bytes and gives the same bytes back', async () => {
    const { status, body } = await upload(good, 'honey.jpg')
    expect(status).toBe(201)
    expect(body).toMatchObject({ hash: createHash('sha256').update(good).digest('hex'), mimeType: 'image/jpeg', widthPx: 320, heightPx: 200 })
    const read = await fetch(`${server.studioUrl}/api/assets/${body.hash}`)
    expect(read.headers.get('content-type')).toBe('image/jpeg')
    expect(Buffer.from(await read.arrayBuffer()).equals(good)).toBe(true)
  })

  it('goes by content, not by name', async () => {
    expect((await upload(good, 'honey.png')).body.mimeType).toBe('image/jpeg')
  })

  it.each([
    ['an empty file', async () => Buffer.alloc(0), 400, 'picture-empty', 'is empty (0 bytes)'],
    ['a cut-off file', async () => good.subarray(0, good.length / 2), 400, 'picture-damaged', 'damaged or cut off'],
    [
      'a text renamed to .png',
      async () => Buffer.from('These are not the pixels you are looking for.'),
      415,
      'picture-format',
      'Use a PNG, JPEG, WebP, AVIF, GIF or SVG',
    ],
    [
      'a drawing that ends early',
      async () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><rect'),
      400,
      'drawing-damaged',
      'a drawing (SVG) that cannot be read',
    ],
    [
      'a picture of 40 megapixels',
      async () =>
        sharp({ create: { width: 8000, height: 5000, channels: 3, background: '#fff' }, limitInputPixels: false })
          .png({ compressionLevel: 1 })
          .toBuffer(),
      413,
      'picture-pixels',
      '40.0 megapixels (8000 × 5000); at most 36',
    ],
    ...(
      [
        [1, 30_000_000],
        [36_000_000, 1],
        [1, 16_385],
      ] as const
    ).map(([width, height]): [string, () => Promise<Buffer>, number, string, string] => [
      `a picture of ${width} × ${height}`,
      async () => pngHeader(width, height),
      413,
      'picture-side',
      `${width} × ${height} pixels; each side may be at most 16384`,
    ]),
  ])('refuses %s, saying what and how to put it right', async (_name, make, status, code, words) => {
    const answer = await upload(await make(), 'poster.png')
    expect(answer.status).toBe(status)
    expect(answer.body.error.code).toBe(code)
    expect(answer.body.error.message).toContain('"poster.png"')
    expect(answer.body.error.message).toContain(words)
  })

  it('refuses a clip that is too large, with its name and the way out', async () => {
    const { status, body } = await upload(Buffer.alloc(MOST_BYTES.clip + 1), 'harvest.mp4')
    expect(status).toBe(413)
    expect(body.error.message).toBe('"harvest.mp4" is larger than 256 MB. Cut it shorter, or export it smaller.')
  })

  /** Sends bytes as they are made, without a length ahead; `onChunk` is told how many have gone. */
  function stream(mib: number, onChunk: (sent: number) => void = () => undefined, headers: Record<string, string> = {}, signal?: AbortSignal) {
    const chunk = new Uint8Array(1024 * 1024)
    let sent = 0
    const body = new ReadableStream<Uint8Array>({
      pull: (controller) => {
        if (sent === mib) return controller.close()
        // The beginning of an MP4 (ISO/IEC 14496-12 §4.3); the rest is nothing.
        controller.enqueue(sent === 0 ? Uint8Array.from([0, 0, 0, 24, ...Buffer.from('ftypisom'), ...chunk.subarray(12)]) : chunk)
        onChunk((sent += 1))
      },
    })
    const init = { method: 'POST', body, duplex: 'half', headers, ...(signal === undefined ? {} : { signal }) }
    return fetch(`${server.studioUrl}/api/assets?name=harvest.mp4`, init as unknown as RequestInit)
  }

  const halfFiles = () => readdirSync(path.join(server.dataDir, 'assets')).filter((name) => !/^[0-9a-f]{64}$/.test(name))

  it('keeps a clip piece by piece: of 200 MB no more than a few are ever in memory, and none is kept afterwards', async () => {
    const before = process.memoryUsage().arrayBuffers
    let most = 0
    const answer = await stream(200, () => (most = Math.max(most, process.memoryUsage().arrayBuffers - before)))
    expect(answer.status).toBe(400)
    expect(((await answer.json()) as { error: { code: string } }).error.code).toBe('clip-damaged')
    expect(most).toBeLessThan(100 * 1024 * 1024)
    expect(halfFiles()).toEqual([])
  })

  it('stops a clip that says nothing of its length where it grows too large, and keeps nothing of it', async () => {
    const answer = await stream(MOST_BYTES.clip / 1024 / 1024 + 8)
    expect(answer.status).toBe(413)
    expect(((await answer.json()) as { error: { code: string } }).error.code).toBe('clip-bytes')
    expect(halfFiles()).toEqual([])
  })

  it('keeps nothing of a file that was given up half way, and takes the next', async () => {
    const leaving = new AbortController()
    const given = stream(100, (sent) => sent === 20 && leaving.abort(), {}, leaving.signal)
    await expect(given).rejects.toThrow('abort')
    await vi.waitFor(() => expect(halfFiles()).toEqual([]))
    expect((await upload(good, 'next.jpg')).status).toBe(201)
  })

  it('takes the bytes of a file as they are, not packed', async () => {
    const answer = await stream(1, undefined, { 'content-encoding': 'gzip' })
    expect(answer.status).toBe(415)
    expect(((await answer.json()) as { error: { code: string } }).error.code).toBe('encoded-body')
  })

  it('knows no file outside its folder', async () => {
    for (const hash of ['..%2F..%2Fgreen-room.sqlite', 'a'.repeat(64)]) {
      expect((await fetch(`${server.studioUrl}/api/assets/${hash}`)).status).toBe(404)
    }
  })

  it('takes twenty pictures and twenty copies of one at once, and keeps no half file', async () => {
    const distinct = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        sharp({ create: { width: 64 + i, height: 40, channels: 3, background: '#a87823' } })
          .png()
          .toBuffer(),
      ),
    )
    const answers = await Promise.all([...distinct, ...Array.from({ length: 20 }, () => distinct[0]!)].map((bytes, i) => upload(bytes, `${i}.png`)))
    expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 201))
    expect(new Set(answers.map(({ body }) => body.hash)).size).toBe(20)
    const files = readdirSync(path.join(server.dataDir, 'assets'))
    expect(files.filter((name) => !/^[0-9a-f]{64}$/.test(name))).toEqual([])
  })

  it('names the file and the way out when the disk refuses, and leaves no half file', async () => {
    const folder = path.join(server.dataDir, 'assets')
    const other = await sharp({ create: { width: 77, height: 33, channels: 3, background: '#1e5b47' } })
      .png()
      .toBuffer()
    renameSync(folder, `${folder}-away`)
    writeFileSync(folder, 'no folder')
    const refused = await upload(other, 'poster.png')
    rmSync(folder)
    renameSync(`${folder}-away`, folder)
    expect(refused.status).toBe(507)
    expect(refused.body.error.message).toMatch(/assets" lies in something that is not a folder/)
    expect((await upload(other, 'poster.png')).status).toBe(201)
    expect(readdirSync(folder).filter((name) => name.endsWith('.part'))).toEqual([])
  })

  it('takes away what an interrupted upload left', async () => {
    const left = path.join(server.dataDir, 'assets', `${'a'.repeat(64)}.17.part`)
    await restartTestServer(server, async () => writeFileSync(left, 'half'))
    expect(existsSync(left)).toBe(false)
  })
})
