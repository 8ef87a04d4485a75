// What the page says to the worker that sends the voice, and back.
import type { MeterReading } from '../../core/sound/loudness.ts'
import type { VoiceSettings } from '../../core/sound/voice-chain.ts'

export type ToVoice =
  | { readonly type: 'settings'; readonly settings: VoiceSettings }
  /** A port from which chunks of both sides come: a microphone's worklet, or a stand-in. Null: none. */
  | { readonly type: 'source'; readonly port: MessagePort | null }
  /** A meeting's sound channel; the worker fills it until it closes. */
  | { readonly type: 'channel'; readonly channel: RTCDataChannel }
  | { readonly type: 'clearClipping' }
  /** Post what is heard, for finding claps. */
  | { readonly type: 'listen'; readonly isOn: boolean }

/** What a source posts: a chunk of both sides at 48 kHz. */
export interface SourceChunk {
  readonly left: Float32Array<ArrayBuffer>
  readonly right: Float32Array<ArrayBuffer>
}

/** How loud the voice is, twenty times a second. */
export interface VoiceLevel {
  readonly left: MeterReading
  readonly right: MeterReading
  /** The only side that carries sound, when one is silent. */
  readonly onlySide: 'left' | 'right' | null
}

export type FromVoice =
  | { readonly type: 'level'; readonly level: VoiceLevel }
  /** Ten milliseconds as the source gave them, both sides mixed, and when the last of it came on the clock that all threads share. */
  | { readonly type: 'heard'; readonly atMs: number; readonly samples: Float32Array<ArrayBuffer> }
