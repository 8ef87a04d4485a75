// Slides on the server. What they hold is told to general packages; what comes out is read by poppler (pdfinfo, pdftotext) and by LibreOffice itself.
import { execFileSync, spawnSync } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { unzipSync, zipSync } from 'fflate'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { converted, pptxOf, type ToldPage } from '../../tests/support/decks.ts'
import { startTestServer, type TestServer } from '../../tests/support/test-server.ts'
import { Office } from './office.ts'

const told: readonly ToldPage[] = [
  { title: 'First of all', notes: 'Say hello.\nThen wait.' },
  { title: 'Hidden one', notes: 'Nobody sees this.' },
  { title: 'Second page', words: ['A line'] },
  { title: 'Third page', notes: 'Ampersand & <angle> “quotes” Ärger 蜂', hasPicture: true },
]
const shownNotes = ['Say hello.\nThen wait.', '', 'Ampersand & <angle> “quotes” Ärger 蜂']

let server: TestServer
let pptx: Buffer
let odp: Buffer
const folder = mkdtempSync(path.join(tmpdir(), 'green-room-decks-'))
beforeAll(async () => {
  server = await startTestServer()
  pptx = await pptxOf(told, [2])
  odp = converted(pptx, 'pptx', 'odp')
})
afterAll(async () => {
  await server.close()
  rmSync(folder, { recursive: true, force: true })
})

const send = (what: string, body: Buffer | Uint8Array, name = 'class.pptx', on = server) =>
  fetch(`${on.studioUrl}/api/decks/${what}?name=${encodeURIComponent(name)}`, { method: 'POST', body: new Uint8Array(body) })
const refusalOf = async (response: Response) => {
  const { error } = (await response.json()) as { error: { code: string; message: string } }
  return { status: response.status, ...error }
}

/** What poppler reads of a PDF: the words of each page. */
function pagesIn(pdf: Buffer): string[] {
  const file = path.join(folder, `read-${pdf.length}.pdf`)
  writeFileSync(file, pdf)
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
  return text.split('\f').slice(0, -1)
}

const changed = (archive: Buffer, change: (files: Record<string, Uint8Array>) => void): Buffer => {
  const files = { ...unzipSync(archive) }
  change(files)
  return Buffer.from(zipSync(files))
}
const textIn = (files: Record<string, Uint8Array>, name: string) => Buffer.from(files[name]!).toString('utf8')

describe('slides of other programs', () => {
  it.each([
    ['PPTX', 'class.pptx', () => pptx],
    ['ODP', 'class.odp', () => odp],
  ])('%s: a PDF of the pages that are not hidden, in order, and their notes as they were written', async (_kind, name, bytes) => {
    const response = await send('pdf', bytes(), name)
    expect(response.headers.get('content-type')).toContain('application/pdf')
    const pages = pagesIn(Buffer.from(await response.arrayBuffer()))
    expect(pages.map((words) => ['First of all', 'Second page', 'Third page', 'Hidden one'].find((title) => words.includes(title)))).toEqual([
      'First of all',
      'Second page',
      'Third page',
    ])
    const facts = (await (await send('facts', bytes(), name)).json()) as { notes: string[] }
    expect(facts.notes).toEqual(shownNotes)
  })

  it('names typefaces that this computer does not have, and none that it has', async () => {
    const strange = changed(pptx, (files) => {
      files['ppt/slides/slide1.xml'] = Buffer.from(textIn(files, 'ppt/slides/slide1.xml').replaceAll('Liberation Sans', 'Apiary Grotesque'))
    })
    const { missingFamilies } = (await (await send('facts', strange)).json()) as { missingFamilies: string[] }
    expect(missingFamilies).toContain('Apiary Grotesque')
    expect(missingFamilies).not.toContain('Liberation Sans')
  })

  it('fetches nothing that slides link to, and runs no macros', async () => {
    let asked = 0
    const listener = createServer((_request, response) => {
      asked += 1
      response.end()
    })
    await new Promise<void>((resolve) => listener.listen(0, '127.0.0.1', resolve))
    const url = `http://127.0.0.1:${(listener.address() as AddressInfo).port}/spy.png`
    const linkedPptx = changed(pptx, (files) => {
      const slide = 'ppt/slides/slide4.xml'
      const relations = 'ppt/slides/_rels/slide4.xml.rels'
      files[slide] = Buffer.from(textIn(files, slide).replace(/r:embed="(rId\d+)"/, 'r:link="$1"'))
      files[relations] = Buffer.from(textIn(files, relations).replace(/Target="\.\.\/media\/[^"]*"/, `TargetMode="External" Target="${url}"`))
    })
    const linkedOdp = changed(odp, (files) => {
      const content = textIn(files, 'content.xml')
      const ran = path.join(folder, 'macro-ran')
      files['content.xml'] = Buffer.from(
        content
          .replace(/xlink:href="Pictures\/[^"]*"/, `xlink:href="${url}"`)
          .replace(
            '<office:presentation',
            `<office:scripts><office:event-listeners><script:event-listener script:language="ooo:script" script:event-name="dom:load" xlink:href="vnd.sun.star.script:Standard.Module1.Main?language=Basic&amp;location=document" xlink:type="simple"/></office:event-listeners></office:scripts><office:presentation`,
          ),
      )
      files['Basic/Standard/Module1.xml'] = Buffer.from(
        `<?xml version="1.0"?><script:module xmlns:script="http://openoffice.org/2000/script" script:name="Module1" script:language="StarBasic">Sub Main\nOpen "${ran}" For Output As #1\nPrint #1, "x"\nClose #1\nEnd Sub</script:module>`,
      )
    })
    expect(textInArchive(linkedPptx, 'ppt/slides/_rels/slide4.xml.rels')).toContain(url)
    expect(textInArchive(linkedOdp, 'content.xml')).toContain(url)
    expect((await send('pdf', linkedPptx)).status).toBe(200)
    expect([200, 422]).toContain((await send('pdf', linkedOdp, 'class.odp')).status)
    expect([asked, existsSync(path.join(folder, 'macro-ran'))]).toEqual([0, false])
    await new Promise((resolve) => listener.close(resolve))
  })
})

/** The slides with every part packed. */
const packed = () => changed(pptx, () => undefined)
const textInArchive = (archive: Buffer, name: string) => textIn(unzipSync(archive), name)

/** An archive whose list of files says that each packed one is as large as this. */
function claiming(archive: Buffer, bytes: number): Buffer {
  const copy = Buffer.from(archive)
  for (let at = copy.indexOf('PK\x01\x02', 0, 'latin1'); at >= 0; at = copy.indexOf('PK\x01\x02', at + 4, 'latin1'))
    if (copy.readUInt16LE(at + 10) === 8) copy.writeUInt32LE(bytes, at + 24)
  return copy
}

describe('slides that cannot be read', () => {
  const cases: [string, () => Buffer, string, RegExp][] = [
    ['of no bytes', () => Buffer.alloc(0), 'deck-empty', /empty.*save it anew/],
    ['cut off', () => pptx.subarray(0, pptx.length / 2), 'deck-damaged', /damaged/],
    ['that are no archive', () => Buffer.from('Slides, honestly. '.repeat(50)), 'deck-damaged', /Choose a PDF, PPTX or ODP file/],
    [
      'with a password or of an older format',
      () => Buffer.concat([Buffer.from('d0cf11e0a1b11ae1', 'hex'), Buffer.alloc(4000)]),
      'deck-locked',
      /without a password/,
    ],
    ['that are an archive of something else', () => Buffer.from(zipSync({ 'letter.txt': Buffer.from('Dear') })), 'deck-kind', /holds no slides/],
    ['that say they unpack to 40 GB', () => claiming(packed(), 0x7fffffff), 'deck-bomb', /unpacks to more than 1 GB.*PDF/],
    ['that unpack to more than they say', () => claiming(packed(), 10), 'deck-damaged', /damaged/],
    [
      'with more parts than any deck',
      () => Buffer.from(zipSync(Object.fromEntries(Array.from({ length: 20_050 }, (_, i) => [`${i}`, new Uint8Array()])), { level: 0 })),
      'deck-bomb',
      /20050 parts/,
    ],
  ]
  it.each(cases)('%s say what is wrong and what to do', async (_what, bytes, code, words) => {
    for (const what of ['pdf', 'facts']) {
      const refusal = await refusalOf(await send(what, bytes(), 'talk.pptx'))
      expect(refusal).toMatchObject({ code, message: expect.stringMatching(words) })
      expect(refusal.message).toContain('"talk.pptx"')
      expect(refusal.status).toBeLessThan(500)
    }
  })

  it('whose XML is a bomb of entities take no memory', async () => {
    const entities = ['<!ENTITY a "bee bee bee">', ...'bcdefgh'.split('').map((name, i) => `<!ENTITY ${name} "${`&${'abcdefg'[i]};`.repeat(12)}">`)].join('')
    const bomb = changed(pptx, (files) => {
      const notes = textIn(files, 'ppt/notesSlides/notesSlide1.xml')
      files['ppt/notesSlides/notesSlide1.xml'] = Buffer.from(notes.replace(/\?>/, `?><!DOCTYPE x [${entities}]>`).replace('Say hello.', '&h;'))
    })
    const before = process.memoryUsage().heapUsed
    const response = await send('facts', bomb)
    expect([200, 400]).toContain(response.status)
    expect((await response.text()).length).toBeLessThan(100_000)
    expect(process.memoryUsage().heapUsed - before).toBeLessThan(200 * 1024 * 1024)
  })

  it('leave nothing behind', async () => {
    const left = () => readdirSync(tmpdir()).filter((name) => name.startsWith('green-room-deck-') || name.startsWith('green-room-slides-'))
    await expect.poll(left).toEqual([])
  })
})

describe('pictures of pages', () => {
  const picture = (red: number) =>
    sharp({ create: { width: 64, height: 36, channels: 3, background: { r: red, g: 9, b: 9 } } })
      .png()
      .toBuffer()
  const number = (value: number) => {
    const bytes = Buffer.alloc(4)
    bytes.writeUInt32LE(value)
    return bytes
  }
  const framed = (files: readonly Buffer[]) => Buffer.concat([number(files.length), ...files.flatMap((file) => [number(file.length), file])])
  const kept = () => readdirSync(path.join(server.dataDir, 'assets'))

  it('are kept in order, each once', async () => {
    const files = [await picture(10), await picture(20), await picture(10)]
    const response = await send('pages', framed(files), 'class')
    expect(response.status).toBe(201)
    const { pages } = (await response.json()) as { pages: { hash: string; widthPx: number; heightPx: number }[] }
    expect(pages.map(({ widthPx, heightPx }) => [widthPx, heightPx])).toEqual([[64, 36], [64, 36], [64, 36]]) // prettier-ignore
    expect(pages[0]!.hash).toBe(pages[2]!.hash)
    for (const [index, { hash }] of pages.entries()) {
      const bytes = Buffer.from(await (await fetch(`${server.studioUrl}/api/assets/${hash}`)).arrayBuffer())
      expect(bytes.equals(files[index]!)).toBe(true)
    }
  })

  it('are all kept or none: cut off, too many, none, or one that is no picture', async () => {
    const before = kept()
    const good = [await picture(30), await picture(40), await picture(50)]
    const whole = framed(good)
    for (const [body, code] of [
      [whole.subarray(0, whole.length - 5), 'upload-cut-off'],
      [whole.subarray(0, 3), 'upload-cut-off'],
      [Buffer.alloc(0), 'upload-cut-off'],
      [number(0), 'deck-pages'],
      [number(301), 'deck-pages'],
      [Buffer.concat([number(1), number(41 * 1024 * 1024)]), 'picture-bytes'],
      [framed([good[0]!, Buffer.from('no picture'), good[2]!]), 'picture-format'],
      [framed([good[0]!, good[1]!.subarray(0, 80)]), 'picture-damaged'],
    ] as const) {
      const refusal = await refusalOf(await send('pages', body, 'class'))
      expect(refusal.code).toBe(code)
    }
    expect(kept()).toEqual(before)
  })
})

// Servers of its own: of several in one process the last one has the database.
describe('LibreOffice', () => {
  /** A program that is called as LibreOffice is, and never ends; nor does what it starts. */
  const stuck = () => {
    const file = path.join(folder, 'stuck.sh')
    writeFileSync(file, `#!/bin/sh\nsleep 1000 &\necho $! $$ > ${folder}/pids\nwait\n`)
    chmodSync(file, 0o755)
    return file
  }
  // What is dead and not yet cleared away by the system is listed with a Z.
  const isRunning = (pid: number) => /^[^Z]/.test(spawnSync('ps', ['-o', 'stat=', '-p', String(pid)], { encoding: 'utf8' }).stdout.trim())
  const started = async () => {
    await expect
      .poll(() => existsSync(path.join(folder, 'pids')) && readFileSync(path.join(folder, 'pids'), 'utf8').trim().split(' ').length === 2, { timeout: 20_000 })
      .toBe(true)
    return readFileSync(path.join(folder, 'pids'), 'utf8').trim().split(' ').map(Number)
  }

  it('that is not there is said plainly, with what to do', async () => {
    const without = await startTestServer(null, { command: null })
    try {
      expect(await (await fetch(`${without.studioUrl}/api/decks/office`)).json()).toEqual({ isThere: false })
      const refusal = await refusalOf(await send('pdf', pptx, 'talk.pptx', without))
      expect(refusal).toMatchObject({ status: 503, code: 'office-missing', message: expect.stringMatching(/Save the slides as PDF, or install LibreOffice/) })
      // Notes need no LibreOffice.
      expect((await send('facts', pptx, 'talk.pptx', without)).status).toBe(200)
    } finally {
      await without.close()
    }
  })

  it('that takes too long is ended, with all that it started', async () => {
    rmSync(path.join(folder, 'pids'), { force: true })
    const office = new Office({ command: stuck(), longestMs: 1500 })
    const converting = office.toPdf(path.join(folder, 'a.pptx'), 'talk.pptx', new AbortController().signal)
    converting.catch(() => undefined)
    const pids = await started()
    await expect(converting).rejects.toMatchObject({ code: 'deck-slow', message: expect.stringContaining('"talk.pptx" took longer than 1.5 s') })
    await expect.poll(() => pids.some(isRunning)).toBe(false)
    await office.close()
  })

  it('is ended when whoever asked gives up; the next one gets its turn', async () => {
    rmSync(path.join(folder, 'pids'), { force: true })
    const on = await startTestServer(null, { command: stuck(), longestMs: 60_000 })
    try {
      const giving = new AbortController()
      const asked = fetch(`${on.studioUrl}/api/decks/pdf?name=talk.pptx`, { method: 'POST', body: new Uint8Array(pptx), signal: giving.signal })
      asked.catch(() => undefined)
      const pids = await started()
      giving.abort()
      await expect(asked).rejects.toThrow()
      await expect.poll(() => pids.some(isRunning), { timeout: 20_000 }).toBe(false)
      rmSync(path.join(folder, 'pids'))
      const again = new AbortController()
      fetch(`${on.studioUrl}/api/decks/pdf?name=talk.pptx`, { method: 'POST', body: new Uint8Array(pptx), signal: again.signal }).catch(() => undefined)
      expect((await started()).every(isRunning)).toBe(true)
      again.abort()
    } finally {
      await on.close()
    }
  })
})
