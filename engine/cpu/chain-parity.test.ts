// Chains of steps, wherever they are split: steps that do nothing, several spatial ones, cameras in 4:2:0.
import { beforeAll, describe, expect, it } from 'vitest'
import type { Picture } from '../../core/picture/picture.ts'
import type { FloatPicture } from '../../core/picture/float-picture.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { treatFloat, treatReference } from '../../core/render/treat-reference.ts'
import { steps, type StepCall } from '../../core/steps/index.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { nodeCamera } from '../../standins/camera/node-camera.ts'
import { rgbaToI420 } from '../../tests/support/i420.ts'
import { CHAIN_ALLOWED_SHARE, CHAIN_LIMIT, premultiplied, roundMask, smoothPicture } from '../../tests/support/parity-cases.ts'
import { differenceOf } from '../../tests/support/pictures.ts'
import { randomCall } from '../../tests/support/random-steps.ts'
import { stepWith } from '../../tests/support/steps.ts'
import type { Heap } from './heap.ts'
import { stillTreater } from './treat-still.ts'

/** Each does nothing at these values, and two of them work in space. */
const idle: readonly StepCall[] = [
  stepWith('denoise', { time: 0, space: 0 }),
  stepWith('sharpen', { amount: 0 }),
  stepWith('framing'),
  stepWith('crop'),
  stepWith('matteEdge', { detail: 0, black: 0, white: 1, specks: 0, holes: 0, choke: 0, feather: 0 }),
]
/** Does next to nothing, but does it: the picture is kept in 8 bits before and after. */
const hardlyAnything = stepWith('sharpen', { amount: 0.001, radius: 0.5 })
const person = roundMask()

let heap: Heap
let camera: Picture
beforeAll(async () => {
  heap = await nodeHeap()
  camera = (await nodeCamera({ widthPx: 320, heightPx: 180 })).picture(8200)
})

function live(picture: Picture, calls: readonly StepCall[]): Uint8Array {
  const treater = stillTreater(heap, calls, { person })
  const data = Uint8Array.from(treater.frame(picture).data)
  treater.dispose()
  return data
}

function exact(picture: Picture, calls: readonly StepCall[]): Float64Array {
  return premultiplied(treatReference(picture, calls, { person }).data, 255)
}

function inCodes(picture: FloatPicture): Picture {
  return { format: 'rgba', widthPx: picture.widthPx, heightPx: picture.heightPx, data: Uint8Array.from(picture.data, (value) => Math.round(value * 255)) }
}

/** How far the reference moves by itself when it keeps 8 bits between any two steps. */
function roundedReference(picture: Picture, calls: readonly StepCall[]): Float64Array {
  let current = picture
  for (const call of calls) current = inCodes(treatReference(current, [call], { person }))
  return premultiplied(current.data, 1)
}

function chainOf(seed: number): StepCall[] {
  const random = seededRandom(seed)
  return steps.filter(() => random() < 0.4).map((step) => randomCall(step, random))
}

function pictureOf(seed: number): Picture {
  return seed % 2 === 0 ? camera : rgbaToI420(smoothPicture(seed, 96, 64, true))
}

const seeds = Array.from({ length: 24 }, (_, i) => 101 + i)

describe('a soft edge solved after a key, on a camera in 4:2:0', () => {
  const chain = [stepWith('colourKey', { colour: '#95a05b', tight: 0.1, wide: 0.35 }), stepWith('matteEdge', { detail: 0.7 })]
  const cases: readonly (readonly [string, readonly StepCall[]])[] = [
    ['alone', chain],
    ['behind a step that does nothing', [idle[0]!, ...chain]],
    ['behind a spatial step that does next to nothing', [hardlyAnything, ...chain]],
    ['with one between key and edge', [chain[0]!, hardlyAnything, chain[1]!]],
  ]

  it.each(cases)('%s: within six codes of the reference of the chain alone', (_name, calls) => {
    const { max, shareAbove } = differenceOf(exact(camera, chain), premultiplied(live(camera, calls), 1), CHAIN_LIMIT)
    expect(shareAbove, `largest ${max}`).toBeLessThanOrEqual(0.001)
  })

  it.each([
    ['a wall', chain],
    // Much of the wall is a little opaque here, so that the key's own colours weigh.
    ['the cloth, and a wide range about it', [stepWith('colourKey', { colour: '#2bb552', tight: 0.12, wide: 0.4 }), stepWith('matteEdge', { detail: 1 })]],
  ])('keyed on %s, moves by little when its picture is rounded to 8 bits', (_name, calls) => {
    const rounded = inCodes(treatReference(camera, []))
    const { max, shareAbove } = differenceOf(exact(camera, calls), exact(rounded, calls), CHAIN_LIMIT)
    expect(shareAbove, `largest ${max}`).toBeLessThanOrEqual(0.001)
  })
})

describe('codes of 4:2:0 that stand for no colour', () => {
  it('are clipped before the first step, so that a spatial one in front changes nothing', () => {
    const random = seededRandom(7)
    const patches = Array.from({ length: 36 }, () => Math.floor(random() * 256))
    const plane = (widthPx: number, heightPx: number, first: number) =>
      Array.from(
        { length: widthPx * heightPx },
        (_, i) => patches[(first + Math.floor(((i % widthPx) * 4) / widthPx) + 4 * Math.floor((3 * Math.floor(i / widthPx)) / heightPx)) % 36]!,
      )
    const data = Uint8Array.from([...plane(64, 48, 0), ...plane(32, 24, 12), ...plane(32, 24, 24)])
    const picture: Picture = { format: 'i420', widthPx: 64, heightPx: 48, matrix: 'bt709', range: 'limited', data }
    const paler = stepWith('colour', { saturation: 0.4 })
    const alone = premultiplied(live(picture, [paler]), 1)
    expect(differenceOf(exact(picture, [paler]), alone, 2)).toMatchObject({ shareAbove: 0 })
    expect(differenceOf(premultiplied(live(picture, [hardlyAnything, paler]), 1), alone, 2)).toMatchObject({ shareAbove: 0 })
  })
})

describe('random chains', () => {
  it.each(seeds)('seed %d: as near to the reference as 8 bits between steps allow', (seed) => {
    const picture = pictureOf(seed)
    const chain = chainOf(seed)
    const wanted = exact(picture, chain)
    const { max, shareAbove } = differenceOf(wanted, premultiplied(live(picture, chain), 1), CHAIN_LIMIT)
    const rounding = differenceOf(wanted, roundedReference(picture, chain), CHAIN_LIMIT)
    expect(shareAbove, `largest ${max}, by rounding ${rounding.max}: ${JSON.stringify(chain)}`).toBeLessThanOrEqual(
      Math.max(CHAIN_ALLOWED_SHARE, 1.5 * rounding.shareAbove),
    )
  })

  it.each(seeds)('seed %d: steps that do nothing change nothing, wherever they are put', (seed) => {
    const picture = pictureOf(seed)
    const chain = chainOf(seed)
    const random = seededRandom(seed + 1000)
    const padded = [...chain, null].flatMap((call) => [
      ...(random() < 0.6 ? [idle[Math.floor(random() * idle.length)]!] : []),
      ...(call === null ? [] : [call]),
    ])
    expect(differenceOf(premultiplied(live(picture, padded), 1), premultiplied(live(picture, chain), 1), 0)).toMatchObject({ max: 0 })
  })

  it.each(seeds.slice(0, 12))('seed %d: the reference is the same in one go and step by step', (seed) => {
    const picture = pictureOf(seed)
    const chain = chainOf(seed)
    let current = treatReference(picture, [])
    // The person's mask moves with the picture within one treatment only.
    for (const call of chain) current = treatFloat(current, [call], {})
    const whole = treatReference(picture, chain)
    expect(differenceOf(current.data, whole.data, 1e-9).max).toBeLessThan(1e-9)
  })
})
