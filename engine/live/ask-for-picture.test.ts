import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { askForPicture } from './ask-for-picture.ts'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

/** A track whose copies give a picture from the `gives`-th on. */
function still(gives: number) {
  const log: string[] = []
  let copies = 0
  const track = {
    clone: () => {
      copies += 1
      const number = copies
      log.push(`copy ${number}`)
      return { number, stop: () => log.push(`stop ${number}`) }
    },
  } as unknown as MediaStreamTrack
  const streamOf = (copy: MediaStreamTrack) =>
    new ReadableStream<VideoFrame>({
      pull: (controller) => {
        if ((copy as unknown as { number: number }).number >= gives) controller.enqueue({ close: () => log.push('picture closed') } as unknown as VideoFrame)
        else return new Promise(() => undefined)
      },
    })
  return { log, track, streamOf }
}

describe('asking a still screen for a picture', () => {
  it('asks again until one comes, and leaves nothing open', async () => {
    const { log, track, streamOf } = still(2)
    askForPicture(track, streamOf)
    await vi.advanceTimersByTimeAsync(10_000)
    expect(log).toEqual(['copy 1', 'stop 1', 'copy 2', 'picture closed', 'stop 2'])
  })

  it('asks ever more seldom where none comes', async () => {
    const { log, track, streamOf } = still(99)
    const stop = askForPicture(track, streamOf)
    await vi.advanceTimersByTimeAsync(60_000)
    expect(log.filter((line) => line.startsWith('copy')).length).toBeLessThan(12)
    stop()
    expect(log.filter((line) => line.startsWith('copy'))).toHaveLength(log.filter((line) => line.startsWith('stop')).length)
  })

  it('stops when it is told to, before a picture and while one is waited for', async () => {
    const early = still(1)
    askForPicture(early.track, early.streamOf)()
    const late = still(9)
    const stop = askForPicture(late.track, late.streamOf)
    await vi.advanceTimersByTimeAsync(1000)
    stop()
    await vi.advanceTimersByTimeAsync(10_000)
    expect(early.log).toEqual([])
    expect(late.log).toEqual(['copy 1', 'stop 1'])
  })

  it('a track that ends while it is read is asked no more', async () => {
    const { log, track } = still(9)
    askForPicture(track, () => new ReadableStream({ start: (controller) => controller.error(new Error('ended')) }))
    await vi.advanceTimersByTimeAsync(10_000)
    askForPicture(track, () => new ReadableStream({ start: (controller) => controller.close() }))
    await vi.advanceTimersByTimeAsync(10_000)
    expect(log).toEqual(['copy 1', 'stop 1', 'copy 2', 'stop 2'])
  })
})
