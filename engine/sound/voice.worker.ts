/// <reference lib="webworker" />
// The thread that sends the voice: no work of the page or of the picture makes it stutter.
import type { FromVoice, SourceChunk, ToVoice } from './voice-protocol.ts'
import { VoiceSender } from './voice-sender.ts'

declare const self: DedicatedWorkerGlobalScope

const sender = new VoiceSender((level) => self.postMessage({ type: 'level', level } satisfies FromVoice))
let source: MessagePort | null = null

let isListening = false

function hear(chunk: SourceChunk): void {
  if (isListening) {
    const samples = chunk.left.map((left, i) => (left + chunk.right[i]!) / 2)
    self.postMessage({ type: 'heard', atMs: performance.timeOrigin + performance.now(), samples } satisfies FromVoice, [samples.buffer])
  }
  sender.take(chunk, performance.now())
}

self.onmessage = ({ data }: MessageEvent<ToVoice>) => {
  switch (data.type) {
    case 'settings':
      return sender.set(data.settings)
    case 'source':
      source?.close()
      source = data.port
      sender.renew()
      if (source !== null) source.onmessage = ({ data: chunk }: MessageEvent<SourceChunk>) => hear(chunk)
      return
    case 'channel':
      return sender.add(data.channel)
    case 'listen':
      isListening = data.isOn
      return
    case 'clearClipping':
      return sender.clearClipping()
    default:
      data satisfies never
  }
}
