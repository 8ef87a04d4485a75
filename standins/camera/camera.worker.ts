/// <reference lib="webworker" />
// A stand-in camera on its own thread: posts a frame through a port whenever the clock says so.
import { i420ByteLength } from '../../core/picture/picture.ts'
import { browserSheet } from '../drawing/canvas.ts'
import { ClothCamera } from './cloth-camera.ts'

declare const self: DedicatedWorkerGlobalScope

interface StartMessage {
  readonly port: MessagePort
  readonly mixWasmUrl: string
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
  readonly seed: number
}

/** Buffers in flight: one on show, one on its way, one being drawn. */
const BUFFERS = 3

self.onmessage = ({ data }: MessageEvent<StartMessage>) => void start(data)

async function start({ port, mixWasmUrl, ...options }: StartMessage): Promise<void> {
  const mixWasm = await (await fetch(mixWasmUrl)).arrayBuffer()
  const camera = await ClothCamera.create(browserSheet, mixWasm, options)
  const free = Array.from({ length: BUFFERS }, () => new Uint8Array(i420ByteLength(options.widthPx, options.heightPx)))
  port.onmessage = ({ data: reply }: MessageEvent<{ type: 'return'; data: Uint8Array<ArrayBuffer> } | { type: 'stop' }>) => {
    if (reply.type === 'stop') self.close()
    else free.push(reply.data)
  }
  // Frames lie on a grid of wall-clock time, so that the number in a frame tells when it was due.
  const periodMs = 1000 / options.frameRate
  const wait = () => setTimeout(shoot, periodMs - (Date.now() % periodMs))
  const shoot = () => {
    const buffer = free.pop()
    if (buffer !== undefined) {
      const timeMs = Math.round(Date.now() / periodMs) * periodMs + 0.001
      camera.draw(timeMs, buffer)
      port.postMessage({ frameNumber: camera.frameNumberAt(timeMs), widthPx: options.widthPx, heightPx: options.heightPx, data: buffer }, [buffer.buffer])
    }
    wait()
  }
  wait()
}
