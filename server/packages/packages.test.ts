// Shows that travel: what is exported is imported the same, and whatever else claims to be a show is refused in words, with nothing changed.
import { execFile, execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { request as httpRequest, type ClientRequest } from 'node:http'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { promisify } from 'node:util'
import { strToU8, unzipSync, zipSync, type Zippable } from 'fflate'
import { Ajv2020 } from 'ajv/dist/2020.js'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { seedDemos } from '../../demo/seed.ts'
import { DEMO_SHOW_ID } from '../../demo/show.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import type { Show } from '../../core/show/show.ts'
import { startTestServer, type TestServer } from '../../tests/support/test-server.ts'

// One server at a time: the models of a process belong to one database.
let server: TestServer
let folder: string
let good: Uint8Array
let exported: Show
let framesBefore: readonly string[]

/** A server for one group of tests, with the demo or empty. */
function withServer(isSeeded: boolean): void {
  beforeAll(async () => {
    server = await startTestServer()
    if (isSeeded) await seedDemos(server.shows, server.assets)
  })
  afterAll(() => server.close())
}

beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'green-room-zip-'))
  const first = await startTestServer()
  await seedDemos(first.shows, first.assets)
  good = (await download(first, DEMO_SHOW_ID)).bytes
  exported = (await first.shows.get(DEMO_SHOW_ID)).show
  framesBefore = await frameHashes(exported, first)
  await first.close()
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** Hashes of the frames of some scenes, drawn by the command line from the stored document and the files of a server. */
async function frameHashes(show: Show, { dataDir }: TestServer): Promise<readonly string[]> {
  const document = path.join(folder, 'drawn.json')
  writeFileSync(document, JSON.stringify(show))
  const hashes: string[] = []
  for (const { id } of [show.scenes[0]!, show.scenes.at(-1)!]) {
    const out = path.join(folder, 'drawn.png')
    const tsx = path.resolve('node_modules/tsx/dist/cli.mjs')
    const command = [tsx, path.resolve('server/cli/still.ts'), '--show', document, '--scene', id, '--asset-dir', path.join(dataDir, 'assets'), '--out', out]
    await promisify(execFile)(process.execPath, [...command, '--executor', 'cpu'])
    hashes.push(createHash('sha256').update(readFileSync(out)).digest('hex'))
  }
  return hashes
}

async function download(from: TestServer, id: string) {
  const response = await fetch(`${from.studioUrl}/api/packages/${id}`)
  return { response, bytes: new Uint8Array(await response.arrayBuffer()) }
}

interface Answer {
  readonly status: number
  readonly body: { readonly id: string; readonly show: { readonly name: string }; readonly error: { readonly code: string; readonly message: string } }
}

async function upload(bytes: Uint8Array, to = server): Promise<Answer> {
  const response = await fetch(`${to.studioUrl}/api/packages`, { method: 'POST', body: bytes as BodyInit, headers: { 'content-type': 'application/zip' } })
  return { status: response.status, body: (await response.json()) as Answer['body'] }
}

/** An upload whose head says something before its body has come; throws when the connection goes. */
function withHead(headers: Readonly<Record<string, string>>, send: (sending: ClientRequest) => void): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const sending = httpRequest(
      `${server.studioUrl}/api/packages`,
      { method: 'POST', headers: { 'content-type': 'application/zip', ...headers } },
      (response) => {
        let text = ''
        response.on('data', (chunk: Buffer) => (text += chunk.toString()))
        response.on('end', () => {
          sending.destroy()
          resolve({ status: response.statusCode!, body: JSON.parse(text) as Answer['body'] })
        })
      },
    )
    sending.once('error', reject)
    send(sending)
  })
}

/** Files of the store that are not whole; or all. */
const leftovers = (isAll = false) => readdirSync(path.join(server.dataDir, 'assets')).filter((name) => isAll || name.endsWith('.part'))

/** The good archive with files changed, added, or taken out (null). */
function changed(change: Readonly<Record<string, Uint8Array | null>>): Uint8Array {
  const files: Zippable = { ...unzipSync(good) }
  for (const [name, bytes] of Object.entries(change)) {
    if (bytes === null) delete files[name]
    else files[name] = bytes
  }
  return zipSync(files, { level: 1 })
}

const filesOf = () => Object.keys(unzipSync(good))
const assetNames = () => filesOf().filter((name) => name.startsWith('assets/'))
const json = (value: unknown) => strToU8(JSON.stringify(value))
const parsed = (name: string) => JSON.parse(new TextDecoder().decode(unzipSync(good)[name])) as Record<string, unknown>

describe('export', () => {
  withServer(true)

  it('is a zip archive that another program opens, with the document, its schema and the files by their SHA-256', async () => {
    const { response, bytes } = await download(server, DEMO_SHOW_ID)
    expect(response.headers.get('content-type')).toBe('application/zip')
    expect(response.headers.get('content-disposition')).toContain('Reading a brood frame.zip')
    const file = path.join(folder, 'show.zip')
    writeFileSync(file, bytes)
    // Python's zipfile reads it, and finds every checksum right (docs.python.org/3/library/zipfile.html, testzip).
    const python = 'import sys, zipfile; z = zipfile.ZipFile(sys.argv[1]); assert z.testzip() is None; print("\\n".join(z.namelist()))'
    const names = execFileSync('python3', ['-c', python, file], { encoding: 'utf8' }).trim().split('\n')
    expect(names).toEqual(filesOf())
    expect(names).toEqual(expect.arrayContaining(['contents.json', 'show.json', 'show.schema.json']))
    expect(assetNames().length).toBeGreaterThan(2)
    for (const [name, content] of Object.entries(unzipSync(bytes))) {
      if (name.startsWith('assets/')) expect(name).toContain(createHash('sha256').update(content).digest('hex'))
    }
  })

  it('holds a document that its own schema accepts (Ajv, JSON Schema 2020-12)', () => {
    const validate = new Ajv2020({ strict: false, validateFormats: false }).compile(parsed('show.schema.json'))
    expect(validate(parsed('show.json')), JSON.stringify(validate.errors)).toBe(true)
    expect(validate({ ...parsed('show.json'), name: 5 })).toBe(false)
  })

  it('is the same to the byte each time', async () => {
    const [one, two] = [await download(server, DEMO_SHOW_ID), await download(server, DEMO_SHOW_ID)]
    expect(Buffer.from(one.bytes).equals(Buffer.from(two.bytes))).toBe(true)
  })

  it('names what it lacks, and is imported without it', async () => {
    const [hash] = assetNames().map((name) => name.slice(7, 71))
    const file = path.join(server.dataDir, 'assets', hash!)
    const bytes = readFileSync(file)
    rmSync(file)
    const lacking = (await download(server, DEMO_SHOW_ID)).bytes
    const contents = JSON.parse(new TextDecoder().decode(unzipSync(lacking)['contents.json'])) as { missing: string[] }
    expect(contents.missing).toEqual([hash])
    expect((await upload(lacking)).status).toBe(201)
    writeFileSync(file, bytes)
  })

  it('of a show that is not there is refused', async () => {
    expect((await download(server, 'gone')).response.status).toBe(404)
  })
})

describe('import', () => {
  withServer(false)

  it('makes the same show elsewhere: the document to the byte, and every file', async () => {
    const { status, body } = await upload(good)
    expect(status).toBe(201)
    const hashOf = (value: unknown) => createHash('sha256').update(JSON.stringify(value)).digest('hex')
    expect(hashOf((await server.shows.get(body.id)).show)).toBe(hashOf(exported))
    const frames = await frameHashes((await server.shows.get(body.id)).show, server)
    expect(new Set(frames).size).toBe(frames.length)
    expect(frames).toEqual(framesBefore)
    const again = (await download(server, body.id)).bytes
    expect(unzipSync(again)['show.json']).toEqual(unzipSync(good)['show.json'])
    for (const name of assetNames()) expect(Buffer.from(unzipSync(again)[name]!).equals(Buffer.from(unzipSync(good)[name]!)), name).toBe(true)
    const named = (JSON.parse(new TextDecoder().decode(unzipSync(again)['contents.json'])) as { files: unknown }).files
    expect(named).toEqual(parsed('contents.json')['files'])
  })

  it('of the same archive twice makes two shows', async () => {
    const [one, two] = [await upload(good), await upload(good)]
    expect(one.body.id).not.toBe(two.body.id)
  })

  it('takes an archive that Python packed anew, with a folder of its own for the files', async () => {
    const [from, to] = [path.join(folder, 'from.zip'), path.join(folder, 'to.zip')]
    writeFileSync(from, good)
    const python = `
import sys, zipfile
source, target = zipfile.ZipFile(sys.argv[1]), zipfile.ZipFile(sys.argv[2], "w", zipfile.ZIP_DEFLATED)
target.writestr(zipfile.ZipInfo("assets/"), b"")
for name in reversed(source.namelist()): target.writestr(name, source.read(name))
target.close()`
    execFileSync('python3', ['-c', python, from, to])
    expect((await upload(readFileSync(to))).status).toBe(201)
  })

  it('answers what says that it is too large before any of it is sent, and keeps nothing', async () => {
    const { status, body } = await withHead({ 'content-length': String(2e9) }, (sending) => sending.write('PK'))
    expect([status, body.error.code]).toEqual([413, 'package-bytes'])
    expect(body.error.message).toContain('larger than 1 GB')
    expect(leftovers()).toEqual([])
  })

  it('keeps nothing of an archive whose sender goes away', async () => {
    const before = await server.shows.list()
    const gone = withHead({ 'content-length': String(good.byteLength) }, (sending) => {
      sending.write(good.subarray(0, Math.floor(good.byteLength / 2)), () => sending.destroy())
    })
    await expect(gone).rejects.toThrow()
    await expect.poll(leftovers).toEqual([])
    expect(await server.shows.list()).toEqual(before)
  })

  it('keeps no files of a show that is too long to be stored', async () => {
    for (const name of leftovers(true)) rmSync(path.join(server.dataDir, 'assets', name))
    const show = parsed('show.json') as unknown as Show
    const text = show.contents.find((content) => content.kind === 'text')!
    const blocks = Array.from({ length: LIMITS.blocks }, () => ({ ...text.text.blocks[0]!, text: 'x'.repeat(LIMITS.textLength) }))
    const long = Array.from({ length: 1300 }, (_, i) => ({ ...text, id: `long-${i}`, text: { ...text.text, blocks } }))
    const { status, body } = await upload(changed({ 'show.json': json({ ...show, contents: [...show.contents, ...long] }) }))
    expect([status, body.error.code]).toEqual([413, 'too-large'])
    expect(body.error.message).toContain('Split it into two shows')
    expect(leftovers(true)).toEqual([])
  })

  it('takes a show of an earlier version', async () => {
    const v7 = readFileSync(path.resolve('tests/fixtures/show-v7.json'))
    const { status, body } = await upload(
      zipSync({ 'show.json': v7, 'contents.json': json({ format: 'green-room-package', version: 1, files: [], missing: hashesIn(v7) }) }),
    )
    expect([status, body.error?.message]).toEqual([201, undefined])
    expect((await server.shows.get(body.id)).show.version).toBe(10)
  })
})

const hashesIn = (text: Uint8Array) => [...new Set(new TextDecoder().decode(text).match(/[0-9a-f]{64}/g) ?? [])]

/** Where the header of a file begins in the list at the end of an archive: a signature, then 46 bytes before the name. */
function centralHeaderOf(bytes: Buffer, name: string): number {
  return bytes.indexOf(Buffer.from(name), bytes.indexOf(Buffer.from('504b0102', 'hex'))) - 46
}

/** What is on the disk and in the database. */
async function state(of: TestServer) {
  const files = readdirSync(path.join(of.dataDir, 'assets')).sort()
  return { files, shows: await of.shows.list(), rows: (await of.database.sequelize.query('SELECT hash FROM assets ORDER BY hash'))[0] }
}

describe('what is refused', () => {
  withServer(false)
  let before: Awaited<ReturnType<typeof state>>
  beforeEach(async () => (before = await state(server)))

  async function expectRefused(bytes: Uint8Array, status: number, code: string, words: RegExp) {
    const { status: got, body } = await upload(bytes)
    expect([got, body.error?.code], body.error?.message).toEqual([status, code])
    expect(body.error.message).toMatch(words)
    expect(await state(server), 'nothing was changed').toEqual(before)
  }

  /** An archive written by Python, where fflate would not write such a thing. */
  async function byPython(script: string): Promise<Uint8Array> {
    const [from, to] = [path.join(folder, 'good.zip'), path.join(folder, 'hostile.zip')]
    writeFileSync(from, good)
    const head = `
import sys, zipfile, os
source, target = zipfile.ZipFile(sys.argv[1]), zipfile.ZipFile(sys.argv[2], "w", zipfile.ZIP_DEFLATED)
def copy(but=()):
    for name in source.namelist():
        if name not in but: target.writestr(name, source.read(name))
`
    await promisify(execFile)('python3', ['-c', `${head}${script}\ntarget.close()`, from, to])
    return readFileSync(to)
  }

  it('no archive at all, an empty one, and one that is cut off or damaged', async () => {
    await expectRefused(strToU8('hello, this is no archive'), 400, 'package-damaged', /no zip archive/)
    await expectRefused(new Uint8Array(0), 400, 'package-damaged', /no zip archive/)
    await expectRefused(zipSync({}), 400, 'package-incomplete', /"contents\.json" is missing/)
    await expectRefused(good.slice(0, good.length - 400), 400, 'package-damaged', /damaged/)
    const spoiled = good.slice()
    for (let i = 0; i < 64; i += 1) spoiled[Math.floor(good.length / 2) + i]! ^= 0xff
    await expectRefused(spoiled, 400, 'file-changed', /was changed or damaged/)
  })

  it('paths that lead out of the archive, strangers, and names that come twice', async () => {
    for (const name of ['../evil.txt', '/etc/passwd', 'assets/../../x', 'C:\\\\x', 'assets\\\\x', '..\\\\evil']) {
      await expectRefused(
        await byPython(`copy()\ntarget.writestr(zipfile.ZipInfo("${name}"), b"x")`),
        400,
        name.includes('\\') || name.includes('..') || name.startsWith('/') ? 'package-damaged' : 'package-stranger',
        /archive/,
      )
    }
    await expectRefused(changed({ 'run.sh': strToU8('#!/bin/sh') }), 400, 'package-stranger', /"run\.sh", which is no part of a show/)
    await expectRefused(changed({ 'assets/readme.txt': strToU8('hello') }), 400, 'package-stranger', /readme/)
    await expectRefused(
      await byPython('copy()\nimport warnings; warnings.simplefilter("ignore")\ntarget.writestr("show.json", b"{}")'),
      400,
      'package-twice',
      /"show\.json" twice/,
    )
  })

  it('links', async () => {
    const name = assetNames()[0]!
    const script = `copy(["${name}"])\ninfo = zipfile.ZipInfo("${name}")\ninfo.create_system = 3\ninfo.external_attr = (0o120777 << 16)\ntarget.writestr(info, "/etc/passwd")`
    await expectRefused(await byPython(script), 400, 'package-link', /is a link to another file/)
  })

  it('ten thousand files, and a bomb, before anything is unpacked', async () => {
    await expectRefused(
      await byPython('copy()\nfor i in range(10000): target.writestr("assets/%064x" % i, b"")'),
      400,
      'package-files',
      /holds 100\d\d files; at most 600/,
    )
    const bomb = 'copy(["contents.json"])\ntarget.writestr("contents.json", b" " * (64 << 20))'
    await expectRefused(await byPython(bomb), 400, 'package-text', /"contents\.json" is larger than 1 MB/)
    // The list of files says that each of nine has 256 MB (APPNOTE.TXT 6.3.10, §4.3.12: uncompressed size at offset 24).
    const many = Object.fromEntries(Array.from({ length: 9 }, (_, i) => [`assets/${String(i).repeat(64)}`, strToU8('x')]))
    const huge = Buffer.from(changed(many))
    for (const name of Object.keys(many)) huge.writeUInt32LE(1 << 28, centralHeaderOf(huge, name) + 24)
    await expectRefused(huge, 400, 'package-bytes', /unpacks to more than 2 GB/)
  })

  it('a size that lies', async () => {
    // The list of files says that contents.json has one byte (APPNOTE.TXT 6.3.10, §4.3.12: uncompressed size at offset 24).
    const bytes = Buffer.from(changed({}))
    bytes.writeUInt32LE(1, centralHeaderOf(bytes, 'contents.json') + 24)
    await expectRefused(bytes, 400, 'package-damaged', /damaged/)
  })

  it('encrypted files', async () => {
    const bytes = Buffer.from(changed({}))
    const at = centralHeaderOf(bytes, 'contents.json')
    bytes.writeUInt16LE(bytes.readUInt16LE(at + 8) | 1, at + 8)
    await expectRefused(bytes, 400, 'package-locked', /encrypted/)
  })

  it('a file that is not what its name says, one that is missing, and one that is no picture', async () => {
    const [name, next] = assetNames() as [string, string]
    await expectRefused(changed({ [name]: unzipSync(good)[next]! }), 400, 'file-changed', /is not the file that its name says/)
    await expectRefused(changed({ [name]: null }), 400, 'package-incomplete', /lacks a file of the show/)
    const text = strToU8('not a picture')
    const hash = createHash('sha256').update(text).digest('hex')
    const show = JSON.stringify(parsed('show.json')).replaceAll(name.slice(7, 71), hash)
    await expectRefused(changed({ [name]: null, [`assets/${hash}.png`]: text, 'show.json': strToU8(show) }), 415, 'picture-format', /not a picture/)
  })

  it('drawings with scripts and outside references', async () => {
    const name = assetNames()[0]!
    for (const inside of [
      '<script>alert(1)</script>',
      '<image href="http://example.com/x.png" width="9" height="9"/>',
      '<rect onload="x()" width="9" height="9"/>',
    ]) {
      const svg = strToU8(`<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40">${inside}</svg>`)
      const hash = createHash('sha256').update(svg).digest('hex')
      const show = JSON.stringify(parsed('show.json')).replaceAll(name.slice(7, 71), hash)
      await expectRefused(changed({ [name]: null, [`assets/${hash}.svg`]: svg, 'show.json': strToU8(show) }), 415, 'picture-drawing', /drawing \(SVG\)/)
    }
  })

  it('documents that are no shows, out of bounds, or of a newer Green Room', async () => {
    await expectRefused(changed({ 'show.json': strToU8('{ "format": ') }), 400, 'package-json', /"show\.json" in this archive is not valid JSON/)
    await expectRefused(changed({ 'show.json': json({ ...parsed('show.json'), name: '' }) }), 400, 'bad-input', /show\.name/)
    await expectRefused(changed({ 'show.json': json({ ...parsed('show.json'), version: 99 }) }), 400, 'bad-input', /newer Green Room/)
    await expectRefused(changed({ 'contents.json': json({ ...parsed('contents.json'), version: 2 }) }), 400, 'package-newer', /newer Green Room/)
    await expectRefused(changed({ 'contents.json': json({ format: 'else' }) }), 400, 'package-contents', /out of bounds/)
  })

  it('an archive that says that it is too large is not read', async () => {
    const { request } = await import('node:http')
    const { hostname, port } = new URL(server.studioUrl)
    const status = await new Promise<number>((resolve, reject) => {
      const sent = request({ hostname, port, path: '/api/packages', method: 'POST', headers: { 'content-length': 2 * 1024 ** 3 } }, (answer) =>
        resolve(answer.statusCode!),
      )
      sent.on('error', reject)
      sent.flushHeaders()
    })
    expect(status).toBe(413)
  })
})

describe('files that nothing names', () => {
  withServer(true)

  it('are listed a day after they came, and taken away when the presenter says so; what a version names stays', async () => {
    const imported = (await server.assets.add(Buffer.from(await pictureOf('#336699')), 'spare.png')).hash
    const call = async (init?: RequestInit) =>
      (await fetch(`${server.studioUrl}/api/unused-files${init === undefined ? '' : '/remove'}`, init)).json() as Promise<Record<string, unknown>>
    expect(await call()).toEqual({ files: [] })
    await server.database.sequelize.query('UPDATE assets SET createdAt = :old', { replacements: { old: new Date(Date.now() - 2 * 86_400_000) } })
    expect(((await call())['files'] as { hash: string }[]).map(({ hash }) => hash)).toContain(imported)
    const used = readdirSync(path.join(server.dataDir, 'assets')).filter((hash) => hash !== imported)
    const send = (hashes: readonly string[]) => call({ method: 'POST', body: JSON.stringify({ hashes }), headers: { 'content-type': 'application/json' } })
    const named = (await download(server, DEMO_SHOW_ID)).bytes
    const inShow = Object.keys(unzipSync(named)).flatMap((name) => (name.startsWith('assets/') ? [name.slice(7, 71)] : []))
    expect(await send([imported, ...inShow])).toEqual({ removed: [imported] })
    expect(readdirSync(path.join(server.dataDir, 'assets')).sort()).toEqual(used.sort())
  })
})

async function pictureOf(colour: string): Promise<Uint8Array> {
  const { default: sharp } = await import('sharp')
  return sharp({ create: { width: 8, height: 8, channels: 3, background: colour } })
    .png()
    .toBuffer()
}
