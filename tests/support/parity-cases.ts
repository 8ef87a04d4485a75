// What both live executors are compared with the reference on: seeded pictures, steps and limits. Runs in browsers too.
import type { Plane } from '../../core/picture/float-picture.ts'
import { rgbaToI420 } from './i420.ts'
import type { Picture, RgbaPicture } from '../../core/picture/picture.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { steps, type AnyStep, type StepCall, type StepKind } from '../../core/steps/index.ts'
import { defaultParams, type ParamSpecs } from '../../core/steps/step.ts'
import { randomCall } from './random-steps.ts'

/** Steps that are given pure noise, too: they look at one pixel at a time. */
const pointWise = new Set<StepKind>(['crop', 'balance', 'tone', 'colour', 'colourKey', 'lumaKey', 'look'])
/** Share of pixels that may differ by more than a step's limit. */
export const ALLOWED_SHARE = 0.001
export const STEP_SEEDS = [11, 12, 13, 14, 15, 16]
export const CHAIN_SEEDS = [21, 22, 23, 24, 25, 26, 27, 28]
/** Chains of random steps may differ more: codes, and share of pixels beyond. */
export const CHAIN_LIMIT = 6
export const CHAIN_ALLOWED_SHARE = 0.01

/** A picture with every sort of colour and opacity. */
export function randomPicture(seed: number, widthPx = 96, heightPx = 64, isOpaque = false): RgbaPicture {
  const random = seededRandom(seed)
  const data = Uint8Array.from({ length: widthPx * heightPx * 4 }, (_, i) => (i % 4 === 3 && isOpaque ? 255 : Math.floor(random() * 256)))
  return { format: 'rgba', widthPx, heightPx, data }
}

/** Straight pixels of codes, premultiplied, so that colours of clear pixels don't count. */
export function premultiplied(data: ArrayLike<number>, scale: number): Float64Array {
  return Float64Array.from({ length: data.length }, (_, i) =>
    i % 4 === 3 ? data[i]! * scale : data[i]! * scale * data[i - (i % 4) + 3]! * (scale === 1 ? 1 / 255 : 1),
  )
}

/** A mask with a soft round person in it. */
export function roundMask(widthPx = 24, heightPx = 16): Plane {
  const data = Float32Array.from({ length: widthPx * heightPx }, (_, i) => {
    const distance = Math.hypot((i % widthPx) / widthPx - 0.5, Math.floor(i / widthPx) / heightPx - 0.6)
    return Math.min(1, Math.max(0, (0.4 - distance) * 5))
  })
  return { widthPx, heightPx, data }
}

/**
 * Codes that 99.9 % of pixels stay within. What divides by a small opacity, or by a gain, passes its rounding on; the sigma
 * filter of denoise takes or leaves a neighbour whole, so that half a code may decide.
 */
export const limits: Readonly<Record<StepKind, number>> = {
  framing: 2,
  crop: 2,
  denoise: 4,
  balance: 2,
  tone: 2,
  colour: 2,
  chromaKey: 4,
  colourKey: 2,
  lumaKey: 2,
  matteEdge: 3,
  spill: 2,
  room: 4,
  look: 2,
  sharpen: 3,
}

/** A picture of broad patches of colour with a little grain, opacity mostly full. */
export function smoothPicture(seed: number, widthPx: number, heightPx: number, isOpaque = false): RgbaPicture {
  const random = seededRandom(seed % 100)
  const waves = Array.from({ length: 4 }, () => [random() * 0.2, random() * 0.2, random() * 6, 40 + random() * 80] as const)
  const grain = seededRandom(seed)
  const data = Uint8Array.from({ length: widthPx * heightPx * 4 }, (_, i) => {
    const channel = i % 4
    const x = (i >> 2) % widthPx
    const y = Math.floor((i >> 2) / widthPx)
    const [fx, fy, phase, height] = waves[channel]!
    const value = 128 + height * Math.sin(x * fx + y * fy + phase) + (grain() - 0.5) * 10
    if (channel === 3) return isOpaque || value > 60 ? 255 : Math.max(0, value * 3)
    return Math.min(255, Math.max(0, Math.round(value)))
  })
  return { format: 'rgba', widthPx, heightPx, data }
}

/** The pictures (frames in a row) and the step of one seeded test. */
export function stepCases(step: AnyStep, seed: number): { readonly call: StepCall; readonly runs: readonly (readonly Picture[])[] } {
  const call = randomCall(step, seededRandom(seed))
  // A real frame is smooth; noise alone would test the noise.
  const frames = [seed, seed + 100].map((each) => smoothPicture(each, 96, 64))
  const coded = frames.map((frame) => rgbaToI420({ ...frame, data: frame.data.map((value, i) => (i % 4 === 3 ? 255 : value)) }))
  return { call, runs: pointWise.has(step.kind) ? [frames, [randomPicture(seed)], coded] : [frames, coded] }
}

/** A chain of three to seven random steps, and two frames for it. */
export function chainCase(seed: number): { readonly chain: readonly StepCall[]; readonly frames: readonly Picture[] } {
  const random = seededRandom(seed)
  const chain = steps.filter(() => random() < 0.35).map((step) => randomCall(step, random))
  return { chain, frames: [seed, seed + 100].map((each) => rgbaToI420(smoothPicture(each, 96, 64, true))) }
}

/** A step as it is for the stand-in camera: usual values, the cloth's colour. */
export function usualCall(step: AnyStep): StepCall {
  const { kind } = step
  return { kind, params: { ...defaultParams(step.params as ParamSpecs), ...(kind === 'chromaKey' ? { colour: '#2bb552' } : {}) } } as unknown as StepCall
}
