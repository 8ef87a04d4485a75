import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { ClipPicture, MovingPictures, PlayedPart } from './moving-pictures.ts'
import type { FromClip, ToClip } from './clip-protocol.ts'

const PICTURE_US = 40_000

/** A clip of ten pictures whose sixth cannot be decoded. It notes how many readers wait for a picture at once. */
class DamagedPictures implements MovingPictures {
  readonly durationUs = 10 * PICTURE_US
  readonly cutOff = null
  readonly asked: number[] = []
  mostReaders = 0
  #readers = 0
  #at = 0
  #part: PlayedPart = { fromUs: 0, toUs: this.durationUs, loops: false }

  seek(part: PlayedPart): void {
    this.#part = part
    this.#at = part.fromUs
  }

  async next(take: (bytes: number) => Uint8Array<ArrayBuffer>): Promise<ClipPicture | null> {
    this.#readers += 1
    this.mostReaders = Math.max(this.mostReaders, this.#readers)
    try {
      await Promise.resolve()
      if (this.#at >= this.#part.toUs) return null
      const mediaUs = this.#at
      if (mediaUs >= 5 * PICTURE_US) throw new Error('the sixth picture is damaged')
      this.#at += PICTURE_US
      this.asked.push(mediaUs)
      return { lap: 0, mediaUs, picture: { format: 'rgba', widthPx: 2, heightPx: 2, data: take(16) } }
    } finally {
      this.#readers -= 1
    }
  }

  skip(): Promise<number | null> {
    return Promise.resolve(null)
  }

  close(): void {}
}

const pictures = new DamagedPictures()
vi.mock('./open-clip.ts', () => ({ openClip: () => Promise.resolve(pictures) }))

const posted: FromClip[] = []
const thread = { onmessage: null as ((event: { data: ToClip }) => void) | null, postMessage: (message: FromClip) => posted.push(message), close: () => {} }

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('self', thread)
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(new Blob([]))))
})

afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('plays what comes before the damage from the start again, with one reader at a time', async () => {
  await import('./clip.worker.ts')
  const { port1 } = new MessageChannel()
  const wish = { fromUs: 0, toUs: null, rate: 1, loops: false }
  thread.onmessage!({ data: { type: 'start', url: '/clip', port: port1, wish, plays: true } })
  await vi.advanceTimersByTimeAsync(1000)
  expect(posted.filter(({ type }) => type === 'failed')).toEqual([])
  const last = posted.findLast((message) => message.type === 'report')!.report
  expect(last.damage).toEqual({ fromUs: 4 * PICTURE_US, reason: 'the sixth picture is damaged' })
  expect(last.isOver).toBe(true)
  // The file's five good pictures until the damage is met; then, up to where the last good one begins, once more.
  const good = [0, 1, 2, 3, 4].map((i) => i * PICTURE_US)
  expect(pictures.asked).toEqual([...good, ...good.slice(0, 4)])
  expect(pictures.mostReaders).toBe(1)
  port1.close()
})
