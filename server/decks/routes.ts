// Slides: made into PDF where that is needed, their notes, and the pictures of their pages, kept all or none.
import { createWriteStream } from 'node:fs'
import { mkdtemp, open, rename, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { Router, type Request, type Response } from 'express'
import { MOST_BYTES } from '../../core/schema/limits.ts'
import type { AssetStore } from '../assets/asset-store.ts'
import { HttpError } from '../http-error.ts'
import { missingFamilies } from './families.ts'
import type { Office } from './office.ts'
import { openOfficeArchive, type OfficeArchive } from './office-archive.ts'
import { officeFacts } from './office-facts.ts'
import { pagesTooLarge, PageStream } from './page-stream.ts'

/** How a file of the older binary formats begins, and one that is protected by a password ([MS-CFB] §2.2). */
const COMPOUND_FILE = Buffer.from('d0cf11e0a1b11ae1', 'hex')

/** /api/decks: whether slides of other programs can be read; their PDF; their notes; pictures of pages. */
export function deckRoutes(assets: AssetStore, office: Office): Router {
  const router = Router()
  router.get('/office', (_request, response) => {
    response.json({ isThere: office.isThere() })
  })
  router.post('/pdf', async (request, response) => {
    await withSlides(request, response, async (file, name, archive, signal) => {
      // LibreOffice goes by the ending.
      const ending = `${file}.${archive.kind}`
      archive.close()
      await rename(file, ending)
      const pdf = await office.toPdf(ending, name, signal)
      response.type('application/pdf').send(pdf)
    })
  })
  router.post('/facts', async (request, response) => {
    await withSlides(request, response, async (_file, name, archive) => {
      const { notes, families } = await officeFacts(archive).catch((error: Error) => {
        throw new HttpError(400, 'deck-damaged', `"${name}" is damaged (${error.message}). Save it anew.`)
      })
      response.json({ notes, missingFamilies: await missingFamilies(families) })
    })
  })
  router.post('/pages', async (request, response) => {
    const name = nameOf(request)
    requirePlain(request, name)
    // What says that it is too large is not read at all.
    if (Number(request.headers['content-length']) > MOST_BYTES.pages) throw pagesTooLarge()
    const pages = new PageStream(request.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>)
    try {
      const count = await pages.readCount()
      const files = Array.from({ length: count }, (_, index) => ({
        fileName: `${name.slice(0, 180)} ${index + 1}`,
        open: () => {
          // Who gave up hears nothing more, and nothing is kept.
          if (response.closed) throw new HttpError(400, 'upload-cut-off', `The pages of "${name}" did not arrive whole. Send them again.`)
          return Promise.resolve(pages.next())
        },
      }))
      const kept = await assets.receiveAll(files)
      response.status(201).json({ pages: kept.map(({ hash, widthPx, heightPx }) => ({ hash, widthPx, heightPx })) })
    } catch (error) {
      if (!request.readableAborted) throw error
      throw new HttpError(400, 'upload-cut-off', `The pages of "${name}" did not arrive whole. Send them again.`)
    }
  })
  return router
}

/** Keeps the body as a file for as long as `use` takes; whoever sent it may give up at any moment. */
async function withSlides(
  request: Request,
  response: Response,
  use: (file: string, name: string, archive: OfficeArchive, signal: AbortSignal) => Promise<void>,
): Promise<void> {
  const name = nameOf(request)
  requirePlain(request, name)
  const givenUp = new AbortController()
  response.once('close', () => givenUp.abort())
  const folder = await mkdtemp(path.join(tmpdir(), 'green-room-deck-'))
  const file = path.join(folder, 'slides')
  try {
    await pipeline(request.iterator({ destroyOnReturn: false }), limited(name), createWriteStream(file))
    await requireNoCompoundFile(file, name)
    const archive = await openOfficeArchive(file, name)
    try {
      await use(file, name, archive, givenUp.signal)
    } finally {
      archive.close()
    }
  } catch (error) {
    // Nobody is there to hear of it.
    if (givenUp.signal.aborted) return
    throw error
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

function limited(name: string): Transform {
  let byteLength = 0
  return new Transform({
    transform: (chunk: Buffer, _encoding, done) => {
      byteLength += chunk.length
      done(byteLength > MOST_BYTES.deck ? deckTooLarge(name) : null, chunk)
    },
  })
}

function deckTooLarge(name: string): HttpError {
  return new HttpError(413, 'deck-bytes', `"${name}" is larger than ${MOST_BYTES.deck / 1024 ** 2} MB. Make its pictures smaller, or split it in two.`)
}

async function requireNoCompoundFile(file: string, name: string): Promise<void> {
  const handle = await open(file)
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(COMPOUND_FILE.length), 0, COMPOUND_FILE.length, 0)
    if (bytesRead === 0) throw new HttpError(400, 'deck-empty', `"${name}" is empty (0 bytes). Choose the file again, or save it anew.`)
    if (!buffer.equals(COMPOUND_FILE)) return
  } finally {
    await handle.close()
  }
  throw new HttpError(400, 'deck-locked', `"${name}" is protected by a password, or of an older format. Save it as PPTX without a password, or as PDF.`)
}

function requirePlain(request: Request, name: string): void {
  if ((request.headers['content-encoding'] ?? 'identity') !== 'identity') {
    throw new HttpError(415, 'encoded-body', `"${name}" came with a content-encoding. Send the bytes of the file as they are.`)
  }
}

function nameOf(request: Request): string {
  const { name } = request.query
  if (typeof name === 'string' && name.length > 0 && name.length <= 200) return name
  throw new HttpError(400, 'bad-name', 'name must be 1 to 200 characters: the name of the file.')
}
