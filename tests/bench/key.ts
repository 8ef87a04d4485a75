// How good the key is as numbers: usual values, found values, found with a clean plate, and what general tools make of
// the same pictures, against true mattes and true foregrounds.
import { execFileSync } from 'node:child_process'
import { parseHex, formatHex } from '../../core/colour/hex.ts'
import { matteErrors, type Matte, type MatteErrors } from '../support/matte-metrics.ts'
import type { Picture, RgbaPicture } from '../../core/picture/picture.ts'
import { toRgba8 } from '../../core/render/render-reference.ts'
import { treatReference } from '../../core/render/treat-reference.ts'
import type { Heap } from '../../engine/cpu/heap.ts'
import { treatStill } from '../../engine/cpu/treat-still.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { standinCameras } from '../../core/show/show.ts'
import { findKey, solvedCalls } from '../../core/solve/find-key.ts'
import { plainContext } from '../../core/steps/chain.ts'
import { chromaKey } from '../../core/steps/chroma-key/index.ts'
import type { StepCall } from '../../core/steps/index.ts'
import { defaultParams, type StepContext } from '../../core/steps/step.ts'
import { backdrops } from '../../standins/camera/backdrop.ts'
import { loadMatte, loadPicture } from '../references/cases.ts'
import { matteOf, pickMean } from '../support/pictures.ts'
import { nodeCamera } from '../../standins/camera/node-camera.ts'

export interface KeyErrors extends MatteErrors {
  /** Mean colour of the backdrop in the edge beyond that of the true foreground, in 8-bit codes, weighted by opacity. */
  readonly fringe: number
  /** Share of truly opaque pixels that came out below 0.97. */
  readonly seeThrough: number
}

/** One picture in all ways; means over its frames. */
export interface VariantFigures {
  /** The key step's usual values with the backdrop's colour picked. */
  readonly defaults: KeyErrors
  /** What "find it for me" gives, solved on the first frame. */
  readonly found: KeyErrors
  /** The same with a picture of the empty cloth. */
  readonly plate: KeyErrors | null
  /** ffmpeg's chromakey, the best of a dozen settings for the first frame. */
  readonly chromakey: KeyErrors
  /** The plain colour-difference formula. */
  readonly colourDifference: KeyErrors
}

export interface KeyBench {
  readonly variants: Readonly<Record<string, VariantFigures>>
}

const FRAME_TIMES = [2200, 8200, 5500]
/** Every stand-in that sits before a cloth. */
const CLOTHS = standinCameras.filter((standin) => !['whiteWall', 'untidyRoom', 'table'].includes(standin))
const CROP: StepCall = { kind: 'crop', params: { left: 13, top: 0, right: 10, bottom: 0, feather: 0 } }

/** A picture with what is true of it. */
interface Sample {
  readonly picture: RgbaPicture
  readonly matte: Matte
  readonly front: RgbaPicture
}

export async function benchKey(say: (text: string) => void): Promise<KeyBench> {
  const variants: Record<string, VariantFigures> = {}
  const heap = await nodeHeap()
  say('key: greenscreen.png')
  const picture = await loadPicture('greenscreen.png')
  const sample = { picture, matte: await loadMatte('greenscreen_alpha.png'), front: await loadPicture('greenscreen_fg.png') }
  variants['greenscreen'] = figuresOf(heap, [sample], pickMean(picture, 12, 12, 6), null)

  for (const standin of CLOTHS) {
    say(`key: ${standin}`)
    const camera = await nodeCamera({ standin })
    const cropped = (frame: Picture) => toRgba8(treatReference(frame, [CROP]))
    const samples = FRAME_TIMES.map((timeMs) => ({
      picture: cropped(camera.picture(timeMs)),
      matte: { widthPx: 1280, heightPx: 720, data: camera.matte(timeMs) },
      front: camera.foreground(timeMs, true),
    }))
    const { x, y } = backdrops[standin].pick!
    variants[standin] = figuresOf(heap, samples, pickMean(samples[0]!.picture, 1280 * x, 720 * y, 6), toRgba8(treatReference(camera.emptyPicture(), [])))
  }
  return { variants }
}

function figuresOf(heap: Heap, samples: readonly Sample[], colour: string, plate: RgbaPicture | null): VariantFigures {
  const first = samples[0]!
  const { widthPx, heightPx } = first.picture
  const context: StepContext = { ...plainContext(widthPx, heightPx), picture: () => plate }
  const usual: StepCall = { kind: 'chromaKey', params: { ...defaultParams(chromaKey.params), colour } }
  const treat = (picture: RgbaPicture, calls: readonly StepCall[], resources: StepContext) => treatStill(heap, picture, calls, { resources })
  const inOurs = (calls: readonly StepCall[]) => meanOver(samples, colour, (picture) => treat(picture, calls, context))
  const solve = (withPlate: RgbaPicture | null): readonly StepCall[] => {
    const found = findKey({
      picture: first.picture,
      hint: parseHex(colour),
      plate: withPlate === null ? null : { reference: 'plate', picture: withPlate },
      before: [usual],
      treat,
    })
    if (found === null) throw new Error('no cloth was found')
    return solvedCalls(found)
  }
  const settings = bestChromakey(first, colour)
  return {
    defaults: inOurs([usual]),
    found: inOurs(solve(null)),
    plate: plate === null ? null : inOurs(solve(plate)),
    chromakey: meanOver(samples, colour, (picture) => withFfmpeg(picture, settings)),
    colourDifference: meanOver(samples, colour, (picture) => byColourDifference(picture, colour)),
  }
}

function meanOver(samples: readonly Sample[], colour: string, keyed: (picture: RgbaPicture) => RgbaPicture): KeyErrors {
  const all = samples.map((sample) => errorsOf(keyed(sample.picture), sample, colour))
  const mean = (name: keyof KeyErrors) => all.reduce((sum, errors) => sum + errors[name], 0) / all.length
  return { sad: mean('sad'), mse: mean('mse'), gradient: mean('gradient'), fringe: mean('fringe'), seeThrough: mean('seeThrough') }
}

function errorsOf(result: RgbaPicture, { matte: truth, front }: Sample, colour: string): KeyErrors {
  const matte = matteOf(result)
  const [red, green, blue] = parseHex(colour)
  const channel = blue > green && blue > red ? 2 : 1
  const excess = ({ data }: RgbaPicture, at: number) => data[at + channel]! - Math.max(data[at]!, data[at + (channel === 1 ? 2 : 1)]!)
  let opaque = 0
  let low = 0
  let weight = 0
  let sum = 0
  truth.data.forEach((alpha, i) => {
    if (alpha === 255) {
      opaque += 1
      if (matte.data[i]! < 0.97 * 255) low += 1
    }
    if (alpha < 13 || alpha > 242) return
    weight += matte.data[i]!
    sum += matte.data[i]! * Math.max(0, excess(result, i * 4) - Math.max(0, excess(front, i * 4)))
  })
  return { ...matteErrors(matte, truth), fringe: sum / Math.max(1, weight), seeThrough: low / opaque }
}

/** Textbook formula (from memory): α = 1 − clip((G − max(R, B)) / (Gk − max(Rk, Bk))), and G limited to max(R, B). */
function byColourDifference(picture: RgbaPicture, colour: string): RgbaPicture {
  const key = parseHex(colour)
  const main = key[2] > key[1] ? 2 : 1
  const other = main === 1 ? 2 : 1
  const span = key[main] - Math.max(key[0], key[other])
  const data = Uint8Array.from(picture.data)
  for (let at = 0; at < data.length; at += 4) {
    const limit = Math.max(data[at]!, data[at + other]!)
    const share = (data[at + main]! - limit) / 255 / span
    data[at + 3] = Math.round(data[at + 3]! * (1 - Math.min(1, Math.max(0, share))))
    data[at + main] = Math.min(data[at + main]!, limit)
  }
  return { ...picture, data }
}

function bestChromakey(sample: Sample, colour: string): string {
  let best = ''
  let least = Infinity
  for (const similarity of [0.06, 0.1, 0.14, 0.18]) {
    for (const blend of [0.04, 0.08, 0.16]) {
      const settings = `chromakey=0x${formatHex(parseHex(colour)).slice(1)}:${similarity}:${blend}`
      const mse = meanSquare(matteOf(withFfmpeg(sample.picture, settings)), sample.matte)
      if (mse >= least) continue
      least = mse
      best = settings
    }
  }
  return best
}

function meanSquare(estimate: Matte, truth: Matte): number {
  return truth.data.reduce((sum, value, i) => sum + (value - estimate.data[i]!) ** 2, 0) / truth.data.length
}

/** What ffmpeg's filter makes of a picture; what was cropped stays clear. */
function withFfmpeg(picture: RgbaPicture, filter: string): RgbaPicture {
  const size = `${picture.widthPx}x${picture.heightPx}`
  const bytes = execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgba',
      '-s',
      size,
      '-i',
      '-',
      '-vf',
      `format=yuva444p,${filter},format=rgba`,
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgba',
      '-',
    ],
    { input: picture.data, maxBuffer: 1 << 26 },
  )
  const data = new Uint8Array(bytes)
  for (let at = 3; at < data.length; at += 4) if (picture.data[at] === 0) data[at] = 0
  return { ...picture, data }
}
