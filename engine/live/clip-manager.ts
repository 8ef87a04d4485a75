// The clips of a show: each plays on a thread of its own while somebody looks, and rests while nobody does.
import { isClip } from '../../core/inputs/clip.ts'
import type { ClipInput, Show } from '../../core/show/show.ts'
import type { ClipReport, ClipWish, FromClip, ToClip } from '../clip/clip-protocol.ts'
import type { LiveSupply } from '../protocol.ts'
import { LiveOwner, type Opened } from './live-owner.ts'
import type { LiveState } from './live-state.ts'

export interface ClipHost {
  readonly makeWorker: () => Worker
  readonly assetUrl: (asset: string) => string
}

export interface ClipManagerEvents {
  readonly onSupply: (inputId: string, supply: LiveSupply) => void
  readonly onGone: (inputId: string) => void
  /** 'live': it plays. 'paused': by the presenter, or because nobody looks. 'ended': it came to its end. */
  readonly onState: (inputId: string, state: LiveState) => void
  readonly onReport: (inputId: string, report: ClipReport) => void
}

interface OpenClip extends Opened {
  readonly worker: Worker
  readonly port: MessagePort
}

interface KnownClip {
  readonly owner: LiveOwner<OpenClip>
  readonly asset: string
  input: ClipInput
  /** What its worker was last told to play. */
  wish: string
  /** Whether the presenter has paused it. */
  isPaused: boolean
  isSeen: boolean
}

export class ClipManager {
  readonly #host: ClipHost
  readonly #events: ClipManagerEvents
  readonly #known = new Map<string, KnownClip>()

  constructor(host: ClipHost, events: ClipManagerEvents) {
    this.#host = host
    this.#events = events
  }

  /** Opens and closes clips as the show has them. Those that are `seen` play unless they were paused; one that plays once begins when it comes into sight. */
  follow(show: Show, seen: ReadonlySet<string>): void {
    const clips = show.inputs.filter(isClip)
    const ids = new Set(clips.map(({ id }) => id))
    for (const inputId of [...this.#known.keys()]) if (!ids.has(inputId)) this.#forget(inputId)
    for (const input of clips) {
      const clip = this.#known.get(input.id)
      if (clip?.asset !== input.asset) {
        if (clip !== undefined) this.#forget(input.id)
        this.#begin(input, seen.has(input.id))
        continue
      }
      clip.input = input
      const wish = wishOf(input)
      if (clip.wish !== JSON.stringify(wish)) {
        clip.wish = JSON.stringify(wish)
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

  /** Begins anew; one that was paused goes on, and one that failed is tried again. */
  playFromStart(inputId: string): void {
    const clip = this.#known.get(inputId)
    if (clip?.owner.state.phase === 'failed') return this.#openAgain(clip, false)
    this.#command(inputId, { type: 'restart' }, false)
    this.#command(inputId, { type: 'play' }, false)
  }

  /** Gives every clip to an engine that has started anew. */
  restart(): void {
    for (const clip of this.#known.values()) this.#openAgain(clip, clip.isPaused)
  }

  dispose(): void {
    for (const inputId of [...this.#known.keys()]) this.#forget(inputId)
  }

  #command(inputId: string, message: ToClip, isPaused: boolean): void {
    const clip = this.#known.get(inputId)
    if (clip === undefined) return
    clip.isPaused = isPaused
    send(clip, message)
  }

  #setSeen(clip: KnownClip, isSeen: boolean): void {
    if (clip.isSeen === isSeen) return
    clip.isSeen = isSeen
    if (clip.isPaused) return
    if (isSeen && !clip.input.loops) send(clip, { type: 'restart' })
    send(clip, { type: isSeen ? 'play' : 'pause' })
  }

  #begin(input: ClipInput, isSeen: boolean): void {
    const { id } = input
    const owner = new LiveOwner<OpenClip>(
      {
        onState: (state) => this.#events.onState(id, state),
        onOpened: ({ port }) => this.#events.onSupply(id, { type: 'port', port }),
        onGone: () => this.#events.onGone(id),
        failureOf: () => 'broken',
      },
      null,
    )
    const clip: KnownClip = { owner, asset: input.asset, input, wish: '', isPaused: false, isSeen }
    this.#known.set(id, clip)
    void owner.start(() => this.#open(clip))
  }

  #openAgain(clip: KnownClip, isPaused: boolean): void {
    clip.isPaused = isPaused
    void clip.owner.retry()
  }

  #open(clip: KnownClip): OpenClip {
    const worker = this.#host.makeWorker()
    const wish = wishOf(clip.input)
    clip.wish = JSON.stringify(wish)
    const { port1, port2 } = new MessageChannel()
    const opened: OpenClip = { worker, port: port2, phase: 'starting', stop: () => worker.terminate() }
    worker.onmessage = ({ data }: MessageEvent<FromClip>) => {
      if (clip.owner.opened !== opened) return
      if (data.type === 'report') this.#report(clip, data.report)
      else clip.owner.fail('broken', data.reason)
    }
    worker.onerror = (event) => {
      if (clip.owner.opened === opened) clip.owner.fail('broken', event.message)
    }
    worker.postMessage({ type: 'start', url: this.#host.assetUrl(clip.asset), port: port1, wish, plays: clip.isSeen && !clip.isPaused } satisfies ToClip, [
      port1,
    ])
    return opened
  }

  #report({ owner, input }: KnownClip, report: ClipReport): void {
    const phase = report.isOver ? 'ended' : report.isPlaying ? 'live' : 'paused'
    this.#events.onReport(input.id, report)
    if (owner.state.phase !== phase) owner.tell(phase)
  }

  #forget(inputId: string): void {
    this.#known.get(inputId)?.owner.dispose()
    this.#known.delete(inputId)
  }
}

/** One that has failed hears nothing; it is told everything when it is opened again. */
function send({ owner }: KnownClip, message: ToClip): void {
  owner.opened?.worker.postMessage(message)
}

function wishOf({ fromMs, toMs, rate, loops }: ClipInput): ClipWish {
  return { fromUs: fromMs * 1000, toUs: toMs === null ? null : toMs * 1000, rate, loops }
}
