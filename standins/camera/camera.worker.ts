/// <reference lib="webworker" />
// A stand-in camera on its own thread: posts a frame through a port whenever the clock says so.
import { i420ByteLength } from '../../core/picture/picture.ts'
import type { StandinCamera } from '../../core/show/show.ts'
import { browserSheet } from '../drawing/canvas.ts'
import { DrawnCamera } from './drawn-camera.ts'

declare const self: DedicatedWorkerGlobalScope

interface StartMessage {
  readonly port: MessagePort
  readonly mixWasmUrl: string
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
  readonly seed: number
  readonly standin: StandinCamera
}

/** Buffers in flight: one on show, two on their way, one being drawn. */
const BUFFERS = 4
/** Frames that a late camera makes up for; beyond that it skips. */
const MOST_BEHIND = 3
/** A device takes no time from the machine: on one too slow to draw each frame, the stand-in rests this share of what a frame took. */
const REST_SHARE = 0.5

/** The presenter is asked to clap; `atMs` is wall-clock time. */
interface CueMessage {
  readonly type: 'clap'
  readonly atMs: number
}

let camera: DrawnCamera | null = null

self.onmessage = ({ data }: MessageEvent<StartMessage | CueMessage>) => {
  if (!('type' in data)) void start(data)
  else if (camera !== null) camera.clapCueMs = data.atMs
}

async function start({ port, mixWasmUrl, ...options }: StartMessage): Promise<void> {
  const mixWasm = await (await fetch(mixWasmUrl)).arrayBuffer()
  const drawn = await DrawnCamera.create(browserSheet, mixWasm, options)
  camera = drawn
  const free = Array.from({ length: BUFFERS }, () => new Uint8Array(i420ByteLength(options.widthPx, options.heightPx)))
  port.onmessage = ({ data: reply }: MessageEvent<{ type: 'return'; data: Uint8Array<ArrayBuffer> } | { type: 'stop' }>) => {
    if (reply.type === 'stop') self.close()
    else free.push(reply.data)
  }
  // Frames lie on a grid of wall-clock time, so that the number in a frame tells when it was due. A sensor
  // does not skip because the machine is busy: late frames are made up for, up to a few.
  const periodMs = 1000 / options.frameRate
  let slot = Math.floor(Date.now() / periodMs)
  let drawMs = 0
  const wait = () => setTimeout(shoot, Math.max(drawMs * REST_SHARE, (slot + 1) * periodMs - Date.now()))
  const shoot = () => {
    slot = Math.max(slot + 1, Math.floor(Date.now() / periodMs) - MOST_BEHIND)
    const buffer = free.pop()
    if (buffer !== undefined) {
      // A little past the beginning of the slot, so that rounding does not move it.
      const timeMs = slot * periodMs + 0.01
      const beganMs = performance.now()
      drawn.draw(timeMs, buffer)
      drawMs = performance.now() - beganMs
      port.postMessage({ frameNumber: drawn.frameNumberAt(timeMs), widthPx: options.widthPx, heightPx: options.heightPx, data: buffer }, [buffer.buffer])
    }
    wait()
  }
  wait()
}
