// The voice desk on a thread of its own: a meeting page that is busy does not hold the sound up.
import { VoiceDesk, type SoundOutlet, type VoiceChannel } from './voice-desk.ts'

export type ToVoiceDesk =
  | { readonly type: 'add'; readonly outlet: SoundOutlet }
  | { readonly type: 'change'; readonly id: string; readonly channels: 1 | 2 }
  | { readonly type: 'connect'; readonly channel: VoiceChannel }
  | { readonly type: 'disconnect' }
  | { readonly type: 'follow'; readonly holdMs: number }
  | { readonly type: 'close' }

export type FromVoiceDesk = { readonly type: 'ready' } | { readonly type: 'ended'; readonly id: string }

const WATCH_EVERY_MS = 20

const say = (message: FromVoiceDesk) => (self as unknown as { postMessage(message: FromVoiceDesk): void }).postMessage(message)
const desk = new VoiceDesk((id) => say({ type: 'ended', id }))

self.onmessage = ({ data }: MessageEvent<ToVoiceDesk>) => {
  switch (data.type) {
    case 'add':
      return desk.add(data.outlet)
    case 'change':
      return desk.change(data.id, data.channels)
    case 'connect':
      return desk.connect(data.channel)
    case 'disconnect':
      return desk.disconnect()
    case 'follow':
      return desk.follow(data.holdMs)
    case 'close':
      return desk.close()
    default:
      data satisfies never
  }
}
setInterval(() => desk.watch(), WATCH_EVERY_MS)
say({ type: 'ready' })
