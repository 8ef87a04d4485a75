import { describe, expect, it } from 'vitest'
import { testShow } from '../../tests/support/shows.ts'
import { addInput, removeInput, updateInput } from '../../core/show/edits.ts'
import type { ClipInput, Show } from '../../core/show/show.ts'
import type { FromClip, ToClip } from '../clip/clip-protocol.ts'
import { ClipManager } from './clip-manager.ts'

const loop: ClipInput = { id: 'loop', kind: 'clip', name: 'Loop', asset: 'a'.repeat(64), fromMs: 0, toMs: null, rate: 1, loops: true, treatment: [] }
const once: ClipInput = { ...loop, id: 'once', loops: false }
const none = new Set<string>()

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
      onState: (inputId, { failure, isPlaying }) => log.push(`${inputId} ${failure ?? (isPlaying ? 'plays' : 'rests')}`),
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
    manager.restart('loop')
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
    expect(log).toEqual(['loop supplied', 'loop gone', 'loop supplied', 'loop gone'])
    // What comes late from one that has ended is let go.
    workers[0]!.onmessage!({ data: { type: 'failed', reason: 'late' } })
    expect(log).toHaveLength(4)
  })

  it('a file that cannot be played says why; a new engine gets every clip as it was', () => {
    const { manager, workers, log } = page()
    const show = withClips(loop)
    manager.follow(show, new Set(['loop']))
    workers[0]!.onmessage!({ data: { type: 'failed', reason: 'it is broken' } })
    expect(log.at(-1)).toBe('loop it is broken')
    manager.pause('loop')
    manager.restartAll(show)
    expect(workers[1]!.sent).toEqual(['start at rest'])
    manager.dispose()
    expect(workers[1]!.sent.at(-1)).toBe('terminated')
  })
})
