import { newClip } from '../../core/inputs/clip.ts'
import { describe, expect, it } from 'vitest'
import { testShow } from '../../tests/support/shows.ts'
import { addInput, removeInput, updateInput } from '../../core/show/edits.ts'
import type { ClipInput, Show } from '../../core/show/show.ts'
import type { ClipReport, FromClip, ToClip } from '../clip/clip-protocol.ts'
import { ClipManager } from './clip-manager.ts'

const loop: ClipInput = newClip('Loop', 'a'.repeat(64), () => 'loop')
const once: ClipInput = { ...loop, id: 'once', loops: false }
const none = new Set<string>()
const REPORT: ClipReport = { isPlaying: false, isOver: false, mediaUs: 0, durationUs: 9, widthPx: 2, heightPx: 2, skipped: 0, damage: null }

class FakeWorker {
  readonly sent: string[] = []
  onmessage: ((event: { data: FromClip }) => void) | null = null
  onerror: ((event: { message: string }) => void) | null = null
  postMessage(message: ToClip): void {
    this.sent.push(message.type === 'start' ? `start ${message.plays ? 'playing' : 'at rest'}` : message.type)
  }
  terminate(): void {
    this.sent.push('terminated')
  }
}

function page() {
  const workers: FakeWorker[] = []
  const log: string[] = []
  const manager = new ClipManager(
    {
      makeWorker: () => {
        const worker = new FakeWorker()
        workers.push(worker)
        return worker as unknown as Worker
      },
      assetUrl: (asset) => `/api/assets/${asset}`,
    },
    {
      onSupply: (inputId) => log.push(`${inputId} supplied`),
      onGone: (inputId) => log.push(`${inputId} gone`),
      onState: (inputId, state) => log.push(`${inputId} ${state.phase === 'failed' ? state.detail : state.phase}`),
      onReport: (inputId, { mediaUs }) => log.push(`${inputId} at ${mediaUs}`),
    },
  )
  return { manager, workers, log }
}

const withClips = (...clips: ClipInput[]): Show => clips.reduce<Show>((show, clip) => addInput(show, clip), testShow())

describe('clips', () => {
  it('play while they are seen and rest while they are not; one that plays once begins when it comes into sight', () => {
    const { manager, workers } = page()
    const show = withClips(loop, once)
    manager.follow(show, new Set(['loop']))
    expect(workers.map(({ sent }) => sent)).toEqual([['start playing'], ['start at rest']])
    manager.follow(show, new Set(['once']))
    expect(workers.map(({ sent }) => sent.slice(1))).toEqual([['pause'], ['restart', 'play']])
    manager.follow(show, new Set(['once']))
    expect(workers[1]!.sent).toHaveLength(3)
  })

  it('one that the presenter has stopped stays so, until it is played or begun anew', () => {
    const { manager, workers } = page()
    const show = withClips(loop)
    manager.follow(show, new Set(['loop']))
    manager.pause('loop')
    manager.follow(show, none)
    manager.follow(show, new Set(['loop']))
    expect(workers[0]!.sent).toEqual(['start playing', 'pause'])
    manager.playFromStart('loop')
    expect(workers[0]!.sent.slice(2)).toEqual(['restart', 'play'])
  })

  it('another part or rate is told, another file is another clip, one that is removed ends', () => {
    const { manager, workers, log } = page()
    const show = withClips(loop)
    manager.follow(show, none)
    const faster = updateInput(show, 'loop', (input) => ({ ...input, rate: 2 }) as ClipInput)
    manager.follow(faster, none)
    manager.follow(faster, none)
    expect(workers[0]!.sent).toEqual(['start at rest', 'wish'])
    manager.follow(
      updateInput(faster, 'loop', (input) => ({ ...input, asset: 'b'.repeat(64) }) as ClipInput),
      none,
    )
    expect(workers[0]!.sent.at(-1)).toBe('terminated')
    expect(workers).toHaveLength(2)
    manager.follow(removeInput(faster, 'loop'), none)
    expect(workers[1]!.sent.at(-1)).toBe('terminated')
    expect(log.filter((line) => !line.endsWith('starting'))).toEqual(['loop supplied', 'loop gone', 'loop supplied', 'loop gone'])
    const before = log.length
    // What comes late from one that has ended is let go.
    workers[0]!.onmessage!({ data: { type: 'failed', reason: 'late' } })
    expect(log).toHaveLength(before)
  })

  it('a file that cannot be played says why; a new engine gets every clip as it was', () => {
    const { manager, workers, log } = page()
    const show = withClips(loop)
    manager.follow(show, new Set(['loop']))
    workers[0]!.onmessage!({ data: { type: 'failed', reason: 'it is broken' } })
    expect(log.at(-1)).toBe('loop it is broken')
    manager.pause('loop')
    manager.restart()
    expect(workers[1]!.sent).toEqual(['start at rest'])
    manager.dispose()
    expect(workers[1]!.sent.at(-1)).toBe('terminated')
  })

  it('says whether it plays, rests or is at its end, and where, each state once', () => {
    const { manager, workers, log } = page()
    manager.follow(withClips(loop), new Set(['loop']))
    const report = (part: Partial<ClipReport>) => workers[0]!.onmessage!({ data: { type: 'report', report: { ...REPORT, ...part } } })
    log.length = 0
    report({ isPlaying: true, mediaUs: 1 })
    report({ isPlaying: true, mediaUs: 2 })
    report({ isPlaying: false, mediaUs: 3 })
    report({ isPlaying: false, isOver: true, mediaUs: 4 })
    expect(log).toEqual(['loop at 1', 'loop live', 'loop at 2', 'loop at 3', 'loop paused', 'loop at 4', 'loop ended'])
  })

  it('a thread that breaks is a state too: its pictures go, and playing from the start tries again', () => {
    const { manager, workers, log } = page()
    manager.follow(withClips(loop), new Set(['loop']))
    workers[0]!.onerror!({ message: 'out of memory' })
    expect(log.slice(-2)).toEqual(['loop gone', 'loop out of memory'])
    expect(workers[0]!.sent.at(-1)).toBe('terminated')
    manager.pause('loop')
    expect(workers[0]!.sent.at(-1)).toBe('terminated')
    manager.playFromStart('loop')
    expect(workers[1]!.sent).toEqual(['start playing'])
    expect(log.slice(-2)).toEqual(['loop supplied', 'loop starting'])
  })
})
