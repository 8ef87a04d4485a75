/// <reference lib="webworker" />
// The stand-in screen on its own thread: like a real one it gives a picture when something has changed, and nothing while all is still.
import { i420ByteLength } from '../../core/picture/picture.ts'
import { MARK_COLUMNS, MARK_LIMIT, MARK_RATE, markCells, markGeometry } from '../../core/marks/frame-mark.ts'
import { browserSheet, type Pen } from '../drawing/canvas.ts'
import { rgbaToI420Into } from '../drawing/to-i420.ts'
import { drawDashboard, drawPointer, pointerAt, SCREEN_HEIGHT_PX, SCREEN_WIDTH_PX } from './drawn-screen.ts'

declare const self: DedicatedWorkerGlobalScope

interface StartMessage {
  readonly port: MessagePort
  readonly fontUrl: string
  readonly frameRate: number
}

/** Its pointer moves at this rate and no faster. */
const MOST_RATE = 15
const BUFFERS = 4
let everyMs = 1000 / MOST_RATE

function setRate(frameRate: number): void {
  everyMs = 1000 / Math.min(MOST_RATE, frameRate)
}

self.onmessage = ({ data }: MessageEvent<StartMessage | { readonly type: 'clap' } | { readonly type: 'rate'; readonly frameRate: number }>) => {
  // Nobody claps on a screen.
  if (!('type' in data)) void start(data)
  else if (data.type === 'rate') setRate(data.frameRate)
}

async function start({ port, fontUrl, frameRate }: StartMessage): Promise<void> {
  setRate(frameRate)
  const face = new FontFace('Screen Sans', `url(${fontUrl})`, { weight: '400 700' })
  self.fonts.add(await face.load())
  const still = browserSheet(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
  drawDashboard(still.pen)
  const sheet = browserSheet(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
  const free = Array.from({ length: BUFFERS }, () => new Uint8Array(i420ByteLength(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)))
  port.onmessage = ({ data: reply }: MessageEvent<{ type: 'return'; data: Uint8Array<ArrayBuffer> } | { type: 'stop' }>) => {
    if (reply.type === 'stop') self.close()
    else free.push(reply.data)
  }
  let isShown = false
  const look = () => {
    const timeMs = Date.now()
    const { x, y, isMoving } = pointerAt(timeMs)
    const buffer = isMoving || !isShown ? free.pop() : undefined
    if (buffer !== undefined) {
      const frameNumber = Math.floor((timeMs * MARK_RATE) / 1000)
      sheet.pen.drawImage(still.source, 0, 0)
      drawPointer(sheet.pen, x, y)
      drawMark(sheet.pen, frameNumber)
      rgbaToI420Into(sheet.pen.getImageData(0, 0, SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX).data, SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX, buffer)
      port.postMessage({ frameNumber, widthPx: SCREEN_WIDTH_PX, heightPx: SCREEN_HEIGHT_PX, data: buffer }, [buffer.buffer])
      isShown = true
    }
    setTimeout(look, everyMs)
  }
  look()
}

function drawMark(pen: Pen, frameNumber: number): void {
  const { cellPx, x, y } = markGeometry(SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
  markCells(frameNumber % MARK_LIMIT).forEach((cell, i) => {
    pen.fillStyle = cell === 1 ? '#ffffff' : '#000000'
    pen.fillRect(x + (i % MARK_COLUMNS) * cellPx, y + Math.floor(i / MARK_COLUMNS) * cellPx, cellPx, cellPx)
  })
}
