// What a page may put into a question: anything. What is no question is none, and no number that is none gets through.
import { describe, expect, it } from 'vitest'
import { ANY_BOUNDS, pictureWish } from '../webcam/driver/constraints.ts'
import { readQuestion } from './crossing.ts'

describe('a question from a page', () => {
  it('is read as it was asked', () => {
    const wish = pictureWish({ width: { min: 640, ideal: 1280 }, frameRate: 30, advanced: [{ height: 360 }] })
    expect(readQuestion(JSON.stringify({ type: 'camera', wish }))).toEqual({ type: 'camera', wish })
    expect(readQuestion(JSON.stringify({ type: 'microphone', wish: { channels: 1, echoCancellation: true } }))).toEqual({
      type: 'microphone',
      wish: { channels: 1, echoCancellation: true },
    })
    for (const type of ['hello', 'identify', 'source']) expect(readQuestion(JSON.stringify({ type, extra: 1 }))).toEqual({ type })
  })

  it.each([undefined, '', 'null', '[]', '3', '{', '{"type":"sites"}', '{"type":"constructor"}', '{"type":{"a":1}}'])('%j is none', (text) =>
    expect(readQuestion(text)).toBeNull(),
  )

  it('brings no value that is not of its kind, and no more sets than a page needs', () => {
    const raw = {
      type: 'camera',
      wish: {
        required: { width: { min: 'x', max: null, ideal: 1e400 }, resizeModes: ['none', 'stretch'] },
        advanced: Array(500).fill({ width: 3 }),
        prefersCrop: 'yes',
      },
    }
    const read = readQuestion(JSON.stringify(raw)) as { wish: ReturnType<typeof pictureWish> }
    expect(read.wish.required).toEqual({ ...ANY_BOUNDS, resizeModes: ['none'] })
    expect(read.wish.advanced).toHaveLength(20)
    expect(read.wish.prefersCrop).toBe(false)
    expect(readQuestion(JSON.stringify({ type: 'microphone', wish: { channels: 6 } }))).toEqual({
      type: 'microphone',
      wish: { channels: 2, echoCancellation: false },
    })
  })
})
