/// <reference lib="webworker" />
// Draws words, forms and the card, and whole scenes for lists of shows, where no picture on air waits for it.
import { StrokePainter, type StrokesRequest } from '../raster/stroke-painter.ts'
import { Heap } from '../cpu/heap.ts'
import { StillLoader } from '../still/still-loader.ts'
import { FontBook } from '../text/font-book.ts'
import { coversOf, type Covers } from '../covers/covers.ts'
import { openRasterCanvas } from '../raster/open-canvas.ts'
import { LocalRasterMaker, type RasterMaker } from '../raster/raster.ts'
import type { FromRaster, RasterFiles, ToRaster } from './protocol.ts'

declare const self: DedicatedWorkerGlobalScope

let maker: RasterMaker | null = null
const painter = new StrokePainter()
let covers: Promise<Covers> | null = null
let files: RasterFiles | null = null

self.onmessage = ({ data }: MessageEvent<ToRaster>) => {
  switch (data.type) {
    case 'start':
      files = data
      maker = new LocalRasterMaker(new FontBook(data.fonts, (self as unknown as { fonts: FontFaceSet }).fonts), openRasterCanvas)
      return
    case 'draw':
      void draw(data)
      return
    case 'strokes':
      paint(data)
      return
    case 'cover':
      void openCovers().then(
        (opened) => opened.ask(data),
        () => post({ type: 'covered', requestId: data.requestId, picture: null }),
      )
      return
    case 'dropCover':
      // Not opened: then there is none to give up.
      void covers?.then(
        (opened) => opened.giveUp(data.requestId),
        () => undefined,
      )
      return
    default:
      data satisfies never
  }
}

async function draw({ requestId, raster }: Extract<ToRaster, { type: 'draw' }>): Promise<void> {
  try {
    const picture = await maker!.make(raster, 0)
    post({ type: 'drawn', requestId, picture }, [picture.data.buffer as ArrayBuffer])
  } catch (error) {
    post({ type: 'failed', requestId, reason: error instanceof Error ? error.message : String(error) })
  }
}

function paint(request: StrokesRequest): void {
  const answer = painter.paint(request)
  const pictures = [answer.lasting, ...answer.alone.map(([, drawn]) => drawn)].flatMap((drawn) => drawn?.picture.data.buffer ?? [])
  post({ type: 'painted', ...answer }, pictures as ArrayBuffer[])
}

/** Covers need a heap of their own; it is made when the first is asked for, and tried again after a failure. */
function openCovers(): Promise<Covers> {
  const { wasmUrl, assetUrlPrefix } = files!
  covers ??= fetch(wasmUrl)
    .then((response) => response.arrayBuffer())
    .then(async (wasm) => {
      const heap = await Heap.create(wasm, () => undefined)
      const stills = new StillLoader()
      return coversOf(
        heap,
        (asset) => stills.load(`${assetUrlPrefix}${asset}`),
        maker!,
        (requestId, picture) => post({ type: 'covered', requestId, picture }, picture === null ? [] : [picture.data.buffer as ArrayBuffer]),
      )
    })
    .catch((error: unknown) => {
      covers = null
      throw error
    })
  return covers
}

function post(message: FromRaster, transfer: Transferable[] = []): void {
  self.postMessage(message, transfer)
}
