import { expect, it } from 'vitest'
import { matteErrors } from '../../tests/support/matte-metrics.ts'
import { readMark } from '../../core/marks/frame-mark.ts'
import { treatReference } from '../../core/render/treat-reference.ts'
import { toRgba8 } from '../../core/render/render-reference.ts'
import { chromaKey } from '../../core/steps/chroma-key/index.ts'
import { defaultParams } from '../../core/steps/step.ts'
import { matteOf, pickMean } from '../../tests/support/pictures.ts'
import { backdrops } from './backdrop.ts'
import { nodeCamera } from './node-camera.ts'

const CLOTH_PICK = backdrops.cloth.pick!

const make = (widthPx: number, heightPx: number, seed = 7) => nodeCamera({ widthPx, heightPx, seed })

it('is the same for the same seed and time, and different for others', async () => {
  const [first, second, other] = await Promise.all([make(640, 360), make(640, 360), make(640, 360, 8)])
  expect(first.picture(5000).data).toEqual(second.picture(5000).data)
  // Going back in time gives the same picture again.
  first.picture(9000)
  expect(first.picture(5000).data).toEqual(second.picture(5000).data)
  expect(first.picture(5000).data).not.toEqual(first.picture(5100).data)
  expect(first.picture(5000).data).not.toEqual(other.picture(5000).data)
})

it.each([
  [1280, 720],
  [1920, 1080],
])('carries its frame number at %d × %d', async (widthPx, heightPx) => {
  const camera = await make(widthPx, heightPx)
  for (const timeMs of [0, 40, 123_456]) {
    const { data } = camera.picture(timeMs)
    expect(readMark(widthPx, heightPx, (x, y) => data[y * widthPx + x]!)).toBe(camera.frameNumberAt(timeMs))
  }
  expect(camera.frameNumberAt(1000)).toBe(30)
})

it('has a matte that is true: cloth where it is clear, the drawn presenter where it is opaque', async () => {
  const camera = await make(1280, 720)
  const picture = toRgba8(treatReference(camera.picture(7000), []))
  const matte = camera.matte(7000)
  const foreground = camera.foreground(7000)
  const greenness = (i: number) => picture.data[i * 4 + 1]! - Math.max(picture.data[i * 4]!, picture.data[i * 4 + 2]!)
  let error = 0
  let opaque = 0
  let clear = 0
  let leastGreen = 255
  // Inside the cloth's edges, so that the wall and the lamp don't count.
  for (let y = 40; y < 600; y += 3) {
    for (let x = 200; x < 1080; x += 3) {
      const i = y * 1280 + x
      if (matte[i] === 0) {
        clear += 1
        leastGreen = Math.min(leastGreen, greenness(i))
      }
      if (matte[i] !== 255) continue
      opaque += 1
      for (let channel = 0; channel < 3; channel += 1) error += Math.abs(picture.data[i * 4 + channel]! - foreground.data[i * 4 + channel]!)
    }
  }
  expect(opaque).toBeGreaterThan(10_000)
  expect(clear).toBeGreaterThan(10_000)
  expect(leastGreen).toBeGreaterThan(40)
  // Noise and 4:2:0 chroma are all that differs.
  expect(error / opaque / 3).toBeLessThan(4)
})

it('can be keyed well with a picked colour and default values', async () => {
  const camera = await make(1280, 720)
  for (const timeMs of [1000, 8200]) {
    const picture = camera.picture(timeMs)
    const colour = pickMean(toRgba8(treatReference(picture, [])), 1280 * CLOTH_PICK.x, 720 * CLOTH_PICK.y, 6)
    const steps = [
      { kind: 'crop', params: { left: 13, top: 0, right: 10, bottom: 0, feather: 0 } },
      { kind: 'chromaKey', params: { ...defaultParams(chromaKey.params), colour } },
    ] as const
    const truth = { widthPx: 1280, heightPx: 720, data: camera.matte(timeMs) }
    expect(matteErrors(matteOf(toRgba8(treatReference(picture, steps))), truth).mse).toBeLessThan(0.004)
  }
})

it('has a cloth of mean luma 40 under grain of eight codes, as its darkest stand-in says', async () => {
  const camera = await nodeCamera({ standin: 'darkNoisyCloth' })
  const { data } = toRgba8(treatReference(camera.emptyPicture(), []))
  const lumas: number[] = []
  const steps: number[] = []
  const lumaAt = (i: number) => 0.2126 * data[i * 4]! + 0.7152 * data[i * 4 + 1]! + 0.0722 * data[i * 4 + 2]!
  for (let y = 60; y < 660; y += 5) {
    for (let x = 200; x < 1080; x += 5) {
      lumas.push(lumaAt(y * 1280 + x))
      steps.push((lumaAt(y * 1280 + x + 1) - lumaAt(y * 1280 + x)) ** 2 / 2)
    }
  }
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length
  expect(Math.abs(mean(lumas) - 40)).toBeLessThan(4)
  // Chroma grain adds to that of luma; clipping at black takes a little.
  expect(Math.abs(Math.sqrt(mean(steps)) - 8)).toBeLessThan(2.5)
})
