/// <reference lib="webworker" />
// A stand-in microphone on its own thread: posts a chunk of sound through a port whenever the clock says so.
import { CHUNK_FRAMES, CHUNK_MS, SOUND_RATE } from '../../core/sound/voice-chunk.ts'
import { DrawnVoice } from './drawn-voice.ts'

declare const self: DedicatedWorkerGlobalScope

interface StartMessage {
  readonly port: MessagePort
  readonly seed: number
}

/** Chunks that a late microphone makes up for; beyond that it leaves a gap. */
const MOST_BEHIND = 20

/** The presenter is asked to clap; `atMs` is wall-clock time. */
interface CueMessage {
  readonly type: 'clap'
  readonly atMs: number
}

let voice: DrawnVoice | null = null

self.onmessage = ({ data }: MessageEvent<StartMessage | CueMessage>) => {
  if (!('type' in data)) start(data)
  else voice?.clap((data.atMs * SOUND_RATE) / 1000)
}

function start({ port, seed }: StartMessage): void {
  const drawn = new DrawnVoice(seed)
  voice = drawn
  let chunk = Math.floor(Date.now() / CHUNK_MS)
  const speak = () => {
    const due = Math.floor(Date.now() / CHUNK_MS)
    chunk = Math.max(chunk, due - MOST_BEHIND)
    for (; chunk < due; chunk += 1) {
      const left = new Float32Array(CHUNK_FRAMES)
      drawn.draw(chunk * CHUNK_FRAMES, left)
      const right = left.slice()
      port.postMessage({ left, right }, [left.buffer, right.buffer])
    }
    setTimeout(speak, Math.max(1, (due + 1) * CHUNK_MS - Date.now()))
  }
  speak()
}
