import { expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import { i420ByteLength, type I420Picture } from './picture.ts'
import { turnI420 } from './turn.ts'

const made = (widthPx: number, heightPx: number): I420Picture => {
  const random = seededRandom(widthPx * 31 + heightPx)
  const data = Uint8Array.from({ length: i420ByteLength(widthPx, heightPx) }, () => random() * 256)
  return { format: 'i420', widthPx, heightPx, matrix: 'bt709', range: 'limited', data }
}
const turned = (picture: I420Picture, turn: 0 | 90 | 180 | 270) => turnI420(picture, turn, new Uint8Array(picture.data.length))

it.each([
  [6, 4],
  [5, 3],
  [1, 7],
  [1, 1],
])('%i × %i: four quarter turns are none, two are half a turn, the upper left goes to the upper right', (width, height) => {
  const picture = made(width, height)
  const quarter = turned(picture, 90)
  expect([quarter.widthPx, quarter.heightPx]).toEqual([height, width])
  expect(quarter.data[height - 1]).toBe(picture.data[0])
  expect(turned(turned(quarter, 90), 180).data).toEqual(picture.data)
  expect(turned(quarter, 90).data).toEqual(turned(picture, 180).data)
  expect(turned(quarter, 270).data).toEqual(picture.data)
  expect(turned(picture, 0)).toBe(picture)
})
