// Lets sound out together with its picture: chunks arrive early and wait as long as the picture takes.
import { CHUNK_MS, SOUND_RATE, type VoiceChunk } from './voice-chunk.ts'

/** A rise of the sender's clock against ours is followed this fast; a fall at once. */
const RISE_MS_A_CHUNK = 0.004
/** When so many chunks in a row came later than they should by this much, the source lost sound: what is counted from is set anew. */
const LAGGING_CHUNKS = 25
const LAG_MS = 30
/** The wait changes no faster than this, so that nobody hears it. */
const SLEW_MS_A_CHUNK = 0.6
/** What is later than this against its own due time is given up. */
const LATEST_MS = 700
/** A chunk that jumps this far from the one before belongs to a sender that began anew. */
const JUMP_MS = 2000
/** What waits at most: a wait of half a second and some. */
const MOST_WAITING = 50

export class VoicePacer {
  #waiting: { readonly chunk: VoiceChunk; readonly sentMs: number }[] = []
  /** Offset of the sender's clock to ours for the fastest chunk so far. */
  #baseMs: number | null = null
  /** The fastest of the last chunks, and how many those are. */
  #lately = { offsetMs: Infinity, chunks: 0 }
  #lastSentMs = 0
  #holdMs = 0
  #targetHoldMs = 0
  #dropped = 0

  /** Chunks that came too late, or found no room. */
  get dropped(): number {
    return this.#dropped
  }

  /** How long sound waits now, in ms. */
  get holdMs(): number {
    return this.#holdMs
  }

  /** How long the picture takes from the sender to here, in ms; sound will wait as long. */
  follow(pictureMs: number): void {
    this.#targetHoldMs = Math.max(0, Math.min(500, pictureMs))
  }

  /** A chunk that arrived at `nowMs`. */
  offer(chunk: VoiceChunk, nowMs: number): void {
    const sentMs = (chunk.firstFrame * 1000) / SOUND_RATE
    if (this.#baseMs !== null && Math.abs(sentMs - this.#lastSentMs) > JUMP_MS) this.reset()
    this.#lastSentMs = sentMs
    const offsetMs = nowMs - sentMs
    if (this.#baseMs === null) {
      this.#baseMs = offsetMs
      this.#holdMs = this.#targetHoldMs
    } else this.#baseMs = Math.min(offsetMs, this.#baseMs + RISE_MS_A_CHUNK)
    this.#catchUp(offsetMs)
    const distance = this.#targetHoldMs - this.#holdMs
    this.#holdMs += Math.max(-SLEW_MS_A_CHUNK, Math.min(SLEW_MS_A_CHUNK, distance))
    if (this.#waiting.length >= MOST_WAITING) {
      this.#waiting.shift()
      this.#dropped += 1
    }
    this.#waiting.push({ chunk, sentMs })
  }

  /**
   * A microphone that loses sound for a moment counts on where it was: all that follows would be late for good, and given up.
   * One chunk in time is enough to know that nothing was lost.
   */
  #catchUp(offsetMs: number): void {
    this.#lately = { offsetMs: Math.min(this.#lately.offsetMs, offsetMs), chunks: this.#lately.chunks + 1 }
    if (this.#lately.chunks < LAGGING_CHUNKS) return
    if (this.#baseMs !== null && this.#lately.offsetMs - this.#baseMs > LAG_MS) this.#baseMs = this.#lately.offsetMs
    this.#lately = { offsetMs: Infinity, chunks: 0 }
  }

  /** Takes the next chunk that is due at `nowMs`; null when none is. Late ones are dropped on the way. */
  take(nowMs: number): VoiceChunk | null {
    for (;;) {
      const next = this.#waiting[0]
      if (next === undefined || this.#baseMs === null) return null
      const lateMs = nowMs - (this.#baseMs + next.sentMs + this.#holdMs)
      // Half a chunk early or half a chunk late is the same to the ear, and keeps the mean right when only arrivals wake us.
      if (lateMs < -CHUNK_MS / 2) return null
      this.#waiting.shift()
      if (lateMs <= LATEST_MS) return next.chunk
      this.#dropped += 1
    }
  }

  /** Forgets the sender. */
  reset(): void {
    this.#waiting = []
    this.#baseMs = null
    this.#lately = { offsetMs: Infinity, chunks: 0 }
  }
}
