// The clips of a show: each plays on a thread of its own while somebody looks, and rests while nobody does.
import { isClip } from '../../core/inputs/clip.ts'
import type { ClipInput, Show } from '../../core/show/show.ts'
import type { ClipReport, ClipWish, FromClip, ToClip } from '../clip/clip-protocol.ts'
import type { LiveSupply } from '../protocol.ts'

export interface ClipState extends ClipReport {
  /** Why it cannot be played; null while it can. */
  readonly failure: string | null
}

export interface ClipHost {
  readonly makeWorker: () => Worker
  readonly assetUrl: (asset: string) => string
}

export interface ClipManagerEvents {
  readonly onSupply: (inputId: string, supply: LiveSupply) => void
  readonly onGone: (inputId: string) => void
  readonly onState: (inputId: string, state: ClipState) => void
}

interface OpenClip {
  readonly asset: string
  readonly worker: Worker
  wish: string
  loops: boolean
  /** Whether the presenter has stopped it. */
  isPaused: boolean
  isSeen: boolean
}

const UNKNOWN: ClipReport = { isPlaying: false, isOver: false, mediaUs: 0, durationUs: 0, widthPx: 0, heightPx: 0, skipped: 0, damage: null }

export class ClipManager {
  readonly #host: ClipHost
  readonly #events: ClipManagerEvents
  readonly #open = new Map<string, OpenClip>()

  constructor(host: ClipHost, events: ClipManagerEvents) {
    this.#host = host
    this.#events = events
  }

  /** Opens and closes clips as the show has them. Those that are `seen` play unless they were paused; one that plays once begins when it comes into sight. */
  follow(show: Show, seen: ReadonlySet<string>): void {
    const clips = show.inputs.filter(isClip)
    const ids = new Set(clips.map(({ id }) => id))
    for (const inputId of [...this.#open.keys()]) if (!ids.has(inputId)) this.#close(inputId)
    for (const input of clips) {
      const clip = this.#open.get(input.id)
      if (clip?.asset !== input.asset) {
        if (clip !== undefined) this.#close(input.id)
        this.#start(input, seen.has(input.id), false)
        continue
      }
      const wish = wishOf(input)
      if (clip.wish !== JSON.stringify(wish)) {
        clip.wish = JSON.stringify(wish)
        clip.loops = input.loops
        send(clip, { type: 'wish', wish })
      }
      this.#setSeen(clip, seen.has(input.id))
    }
  }

  play(inputId: string): void {
    this.#command(inputId, { type: 'play' }, false)
  }

  pause(inputId: string): void {
    this.#command(inputId, { type: 'pause' }, true)
  }

  /** Begins anew; one that was paused goes on. */
  restart(inputId: string): void {
    this.#command(inputId, { type: 'restart' }, false)
    this.#command(inputId, { type: 'play' }, false)
  }

  /** Gives every clip to an engine that has started anew. */
  restartAll(show: Show): void {
    for (const input of show.inputs.filter(isClip)) {
      const before = this.#open.get(input.id)
      if (before === undefined) continue
      this.#close(input.id)
      this.#start(input, before.isSeen, before.isPaused)
    }
  }

  dispose(): void {
    for (const inputId of [...this.#open.keys()]) this.#close(inputId)
  }

  #command(inputId: string, message: ToClip, isPaused: boolean): void {
    const clip = this.#open.get(inputId)
    if (clip === undefined) return
    clip.isPaused = isPaused
    send(clip, message)
  }

  #setSeen(clip: OpenClip, isSeen: boolean): void {
    if (clip.isSeen === isSeen) return
    clip.isSeen = isSeen
    if (clip.isPaused) return
    if (isSeen && !clip.loops) send(clip, { type: 'restart' })
    send(clip, { type: isSeen ? 'play' : 'pause' })
  }

  #start(input: ClipInput, isSeen: boolean, isPaused: boolean): void {
    const worker = this.#host.makeWorker()
    const wish = wishOf(input)
    const clip: OpenClip = { asset: input.asset, worker, wish: JSON.stringify(wish), loops: input.loops, isPaused, isSeen }
    this.#open.set(input.id, clip)
    const { port1, port2 } = new MessageChannel()
    const isCurrent = () => this.#open.get(input.id) === clip
    worker.onmessage = ({ data }: MessageEvent<FromClip>) => {
      if (!isCurrent()) return
      if (data.type === 'report') this.#events.onState(input.id, { ...data.report, failure: null })
      else this.#fail(input.id, data.reason)
    }
    worker.onerror = (event) => {
      if (isCurrent()) this.#fail(input.id, event.message)
    }
    send(clip, { type: 'start', url: this.#host.assetUrl(input.asset), port: port1, wish, plays: isSeen && !isPaused }, [port1])
    this.#events.onSupply(input.id, { type: 'port', port: port2 })
  }

  #fail(inputId: string, failure: string): void {
    this.#events.onState(inputId, { ...UNKNOWN, failure })
  }

  #close(inputId: string): void {
    this.#open.get(inputId)?.worker.terminate()
    this.#open.delete(inputId)
    this.#events.onGone(inputId)
  }
}

function send(clip: OpenClip, message: ToClip, transfer: Transferable[] = []): void {
  clip.worker.postMessage(message, transfer)
}

function wishOf({ fromMs, toMs, rate, loops }: ClipInput): ClipWish {
  return { fromUs: fromMs * 1000, toUs: toMs === null ? null : toMs * 1000, rate, loops }
}
