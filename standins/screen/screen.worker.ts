/// <reference lib="webworker" />
// The stand-in screen on its own thread: like a real one it gives a picture when something has changed, and nothing while all is still.
import { browserSheet } from '../drawing/canvas.ts'
import { pointerAt, SCREEN_HEIGHT_PX, SCREEN_WIDTH_PX } from './drawn-screen.ts'
import { SCREEN_BYTES, ScreenCodes } from './screen-codes.ts'

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
  const screen = new ScreenCodes(browserSheet)
  const free = Array.from({ length: BUFFERS }, () => new Uint8Array(SCREEN_BYTES))
  port.onmessage = ({ data: reply }: MessageEvent<{ type: 'return'; data: Uint8Array<ArrayBuffer> } | { type: 'stop' }>) => {
    if (reply.type === 'stop') self.close()
    else free.push(reply.data)
  }
  let isShown = false
  const look = () => {
    const timeMs = Date.now()
    const buffer = pointerAt(timeMs).isMoving || !isShown ? free.pop() : undefined
    if (buffer !== undefined) {
      const frameNumber = screen.write(timeMs, buffer)
      port.postMessage({ frameNumber, widthPx: SCREEN_WIDTH_PX, heightPx: SCREEN_HEIGHT_PX, data: buffer }, [buffer.buffer])
      isShown = true
    }
    setTimeout(look, everyMs)
  }
  look()
}
