/// <reference lib="webworker" />
// The thread that sends the voice: no work of the page or of the picture makes it stutter.
import type { FromVoice, SourceChunk, ToVoice } from './voice-protocol.ts'
import { VoiceSender } from './voice-sender.ts'

declare const self: DedicatedWorkerGlobalScope

const sender = new VoiceSender((level) => self.postMessage({ type: 'level', level } satisfies FromVoice))
let source: MessagePort | null = null

self.onmessage = ({ data }: MessageEvent<ToVoice>) => {
  switch (data.type) {
    case 'settings':
      return sender.set(data.settings)
    case 'source':
      source?.close()
      source = data.port
      sender.renew()
      if (source !== null) source.onmessage = ({ data: chunk }: MessageEvent<SourceChunk>) => sender.take(chunk, performance.now())
      return
    case 'channel':
      return sender.add(data.channel)
    case 'clearClipping':
      return sender.clearClipping()
    default:
      data satisfies never
  }
}
