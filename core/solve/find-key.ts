// "Find it for me": solves key, edge and spill from one picture, and from one of the empty cloth if there is one.
import { formatHex, parseHex, type Rgb } from '../colour/hex.ts'
import { CB_PER_BLUE, CR_PER_RED, luma709 } from '../colour/luma.ts'
import { fieldOfPlate, fieldOfSurface, type GainField } from '../matte/backdrop.ts'
import { keyFigures, type KeyFigures } from '../matte/figures.ts'
import type { RgbaPicture } from '../picture/picture.ts'
import { plainContext } from '../steps/chain.ts'
import { chromaKey } from '../steps/chroma-key/index.ts'
import type { StepCall, StepParams } from '../steps/index.ts'
import { denoise as denoiseStep } from '../steps/denoise/index.ts'
import { matteEdge } from '../steps/matte-edge/index.ts'
import { spill } from '../steps/spill/index.ts'
import { defaultParams, type StepContext } from '../steps/step.ts'
import { clothEnds, type ClothEnds } from './cloth-ends.ts'
import { findCloth, quantile, type FoundCloth } from './fit-backdrop.ts'

export interface KeyTask {
  /** The picture as it reaches the key: cropped, balanced, exposed. Cropped parts are clear. */
  readonly picture: RgbaPicture
  /** About the cloth's colour; the hue counts. */
  readonly hint: Rgb
  /** The empty cloth, treated like the picture, and the name by which the key step will find it. */
  readonly plate: { readonly reference: string; readonly picture: RgbaPicture } | null
  /** The three steps as they are now, for the figures before. */
  readonly before: readonly StepCall[]
  /** Treats the picture with steps, straight alpha: exactly, or by a live executor, which is quicker. */
  readonly treat: (picture: RgbaPicture, calls: readonly StepCall[], context: StepContext) => RgbaPicture
  /** Told the share done, 0..1. */
  readonly onProgress?: (share: number) => void
}

export interface KeySolution {
  /** Where grain is as strong as the cloth's colour, it is calmed first; null where it is not. */
  readonly denoise: StepParams<'denoise'> | null
  readonly chromaKey: StepParams<'chromaKey'>
  readonly matteEdge: StepParams<'matteEdge'>
  readonly spill: StepParams<'spill'>
  /** Null when no key was on. */
  readonly before: KeyFigures | null
  readonly after: KeyFigures
  /** What a crop should take off at the sides; null for nothing. */
  readonly ends: ClothEnds | null
}

/** A cloth this even needs no surface. */
const EVEN_ENOUGH = 1.06
const WEDGE = 0.4
/** So far from the cloth a pixel is surely the presenter, in pixels of a picture 720 high. */
const SAFE_DISTANCE = 22
const STEP = 2
/** Likeness that cloth has at least, and that a presenter has at most. */
const LEAST_CLOTH = 0.45
const MOST_PRESENTER = 0.5
/** Edges less like the cloth than this, and more where there is grain, are left to the ramp: solving them would thin what is opaque. */
const LEAST_LOW = 0.22
const SOLVED_BLACK = 0.06
const MOST_BLACK = 0.2
const BLACK_PER_GRAIN = 2
/** Grain of the likeness that needs no more black, and from which on it is calmed first. */
const CALM_GRAIN = 0.03
const STRONG_GRAIN = 0.08
/** The deviation of a normal distribution over the median of its absolute values. */
const DEVIATION_OF_MEDIAN = 1.4826
/** Differences up to so many deviations are taken for noise. */
const NOISE_REACH = 3

/** The solved steps in order. */
export function solvedCalls({ denoise, chromaKey, matteEdge, spill }: Omit<KeySolution, 'before' | 'after' | 'ends'>): StepCall[] {
  return [
    ...(denoise === null ? [] : [{ kind: 'denoise', params: denoise } as const]),
    { kind: 'chromaKey', params: chromaKey },
    { kind: 'matteEdge', params: matteEdge },
    { kind: 'spill', params: spill },
  ]
}

/** Solves the steps. Null when no cloth of that hue is in the picture. */
export function findKey(task: KeyTask): KeySolution | null {
  const { plate } = task
  const report = task.onProgress ?? (() => undefined)
  const first = findCloth(task.picture, task.hint)
  if (first === null) return null
  report(0.1)
  const context: StepContext = {
    ...plainContext(task.picture.widthPx, task.picture.heightPx),
    picture: (reference) => (plate !== null && reference === plate.reference ? plate.picture : null),
  }
  const denoise = denoiseFor(grainOf(likenessOf(task.picture, first.colour, null)), task.picture, first)
  const picture = denoise === null ? task.picture : task.treat(task.picture, [{ kind: 'denoise', params: denoise }], context)
  const cloth = denoise === null ? first : (findCloth(picture, task.hint) ?? first)
  report(0.2)
  const base = backdropValues(cloth, plate?.reference ?? null)
  const field = fieldOf(base, parseHex(base.colour), picture, plate?.picture ?? null)
  const likeness = likenessOf(picture, parseHex(base.colour), field)
  report(0.3)
  const grain = grainOf(likeness)
  const { tolerance, softness } = rampFrom(likeness, picture, grain)
  const black = blackFor(grain)
  const solved = {
    denoise,
    chromaKey: { ...base, tolerance, softness, spill: 0 },
    matteEdge: { ...defaultParams(matteEdge.params), detail: 1, black, white: 1 - black },
    spill: { ...defaultParams(spill.params), colour: base.colour, reach: reachFrom(picture, parseHex(base.colour), likeness), keepLuma: 'off' as const },
  }
  report(0.4)
  const figuresOf = (calls: readonly StepCall[]) => keyFigures(task.treat(task.picture, calls, context), cloth.colour)
  const hadKey = task.before.some((call) => call.kind === 'chromaKey')
  const before = hadKey ? figuresOf(task.before) : null
  report(0.7)
  const after = figuresOf(solvedCalls(solved))
  report(1)
  return { ...solved, before, after, ends: clothEnds(picture, cloth.colour) }
}

/** Grain of the likeness in the cloth: its deviation from one looked-at pixel to the next, from the median of absolute differences. */
function grainOf({ columns, data }: Likeness): number {
  const differences: number[] = []
  for (let i = 1; i < data.length; i += 1) {
    if (i % columns === 0 || !(data[i]! > LEAST_CLOTH) || !(data[i - 1]! > LEAST_CLOTH)) continue
    differences.push(Math.abs(data[i]! - data[i - 1]!))
  }
  return differences.length === 0 ? 0 : (quantile(differences, 0.5) * DEVIATION_OF_MEDIAN) / Math.SQRT2
}

/** Grain that blurs cloth and presenter into each other is calmed over neighbours; not in time, where a hand would leave a trail. */
function denoiseFor(grain: number, picture: RgbaPicture, cloth: FoundCloth): StepParams<'denoise'> | null {
  if (grain < STRONG_GRAIN) return null
  const { min, max } = denoiseStep.params.noise
  return { time: 0, space: 1, noise: Math.min(max, Math.max(min, Math.ceil(NOISE_REACH * lumaGrain(picture, cloth.colour)))) }
}

/** Deviation of luma in codes where the picture is about the cloth's colour. */
function lumaGrain({ widthPx, heightPx, data }: RgbaPicture, colour: Rgb): number {
  const luma = luma709(...colour) * 255
  const differences: number[] = []
  const lumaAt = (at: number) => luma709(data[at]!, data[at + 1]!, data[at + 2]!)
  for (let y = 0; y < heightPx; y += STEP) {
    for (let x = 0; x + 1 < widthPx; x += STEP) {
      const at = (y * widthPx + x) * 4
      const here = lumaAt(at)
      if (data[at + 3]! >= 250 && Math.abs(here - luma) < luma / 2) differences.push(Math.abs(lumaAt(at + 4) - here))
    }
  }
  return differences.length === 0 ? 0 : (quantile(differences, 0.5) * DEVIATION_OF_MEDIAN) / Math.SQRT2
}

/** Opacity up to which the solved edge is clear: grain leaves more of a veil. */
function blackFor(grain: number): number {
  return Math.round(Math.min(MOST_BLACK, SOLVED_BLACK + BLACK_PER_GRAIN * Math.max(0, grain - CALM_GRAIN)) * 100) / 100
}

function backdropValues(cloth: FoundCloth, plate: string | null): StepParams<'chromaKey'> {
  const usual = { ...defaultParams(chromaKey.params), colour: formatHex(cloth.colour) }
  if (plate !== null) return { ...usual, backdrop: 'plate', plate, surface: cloth.surface }
  return cloth.unevenness > EVEN_ENOUGH ? { ...usual, backdrop: 'fitted', surface: cloth.surface } : { ...usual, surface: cloth.surface }
}

function fieldOf(values: StepParams<'chromaKey'>, key: Rgb, { widthPx, heightPx }: RgbaPicture, plate: RgbaPicture | null): GainField | null {
  if (values.backdrop === 'plate' && plate !== null) return fieldOfPlate(plate, key, widthPx, heightPx)
  return values.backdrop === 'fitted' ? fieldOfSurface(values.surface, key, widthPx, heightPx) : null
}

/** How like the backdrop every second pixel is, as the key step measures it: 1 for the backdrop; NaN where the picture is clear. */
function likenessOf(picture: RgbaPicture, key: Rgb, field: GainField | null): { readonly columns: number; readonly rows: number; readonly data: Float32Array } {
  const luma = luma709(...key)
  const keyCb = (key[2] - luma) * CB_PER_BLUE
  const keyCr = (key[0] - luma) * CR_PER_RED
  const strength = Math.hypot(keyCb, keyCr)
  const columns = Math.ceil(picture.widthPx / STEP)
  const rows = Math.ceil(picture.heightPx / STEP)
  const data = new Float32Array(columns * rows)
  for (let row = 0; row < rows; row += 1) {
    for (let column = 0; column < columns; column += 1) {
      const x = column * STEP
      const y = row * STEP
      const at = (y * picture.widthPx + x) * 4
      const gain = field === null ? 1 : field.gains[Math.floor(y / field.cellPx) * field.columns + Math.floor(x / field.cellPx)]!
      const red = Math.min(1, (picture.data[at]! / 255) * gain)
      const green = Math.min(1, (picture.data[at + 1]! / 255) * gain)
      const blue = Math.min(1, (picture.data[at + 2]! / 255) * gain)
      const y709 = luma709(red, green, blue)
      const cb = (blue - y709) * CB_PER_BLUE
      const cr = (red - y709) * CR_PER_RED
      const along = (cb * keyCb + cr * keyCr) / strength
      const across = Math.abs(cb * keyCr - cr * keyCb) / strength
      data[row * columns + column] = picture.data[at + 3]! < 250 ? NaN : (along - WEDGE * across) / strength
    }
  }
  return { columns, rows, data }
}

type Likeness = ReturnType<typeof likenessOf>

/** The ramp that clears nearly all of the cloth and keeps nearly all that is far from it. */
function rampFrom(likeness: Likeness, picture: RgbaPicture, grain: number): { readonly tolerance: number; readonly softness: number } {
  const isCloth = safeBlocks(likeness, picture, (value) => value > LEAST_CLOTH)
  const isInside = safeBlocks(likeness, picture, (value) => value < MOST_PRESENTER)
  const cloth = Array.from(likeness.data).filter((_, i) => isCloth[i] === 1)
  const inside = Array.from(likeness.data).filter((_, i) => isInside[i] === 1)
  // Cloth: all but two in a thousand lie above, with a little room for the next frame's grain.
  const high = Math.min(0.95, Math.max(0.45, quantile(cloth, 0.002) - 0.02))
  const low = Math.min(high - 0.15, Math.max(LEAST_LOW + Math.max(0, grain - CALM_GRAIN), quantile(inside, 0.998) + 0.03))
  const rounded = (value: number) => Math.round(value * 100) / 100
  return { tolerance: rounded(1 - high), softness: rounded(high - low) }
}

/** How far spill may reach without dulling what the presenter wears: the inside's own colours set the limit. */
function reachFrom(picture: RgbaPicture, key: Rgb, likeness: Likeness): number {
  const luma = luma709(...key)
  const keyCb = (key[2] - luma) * CB_PER_BLUE
  const keyCr = (key[0] - luma) * CR_PER_RED
  const strength = Math.hypot(keyCb, keyCr)
  const slopes: number[] = []
  const isInside = safeBlocks(likeness, picture, (value) => value < MOST_PRESENTER)
  for (let i = 0; i < isInside.length; i += 1) {
    if (isInside[i] === 0) continue
    const at = (Math.floor(i / likeness.columns) * STEP * picture.widthPx + (i % likeness.columns) * STEP) * 4
    const [red, green, blue] = [picture.data[at]! / 255, picture.data[at + 1]! / 255, picture.data[at + 2]! / 255]
    const y = luma709(red, green, blue)
    const cb = (blue - y) * CB_PER_BLUE
    const cr = (red - y) * CR_PER_RED
    const along = (cb * keyCb + cr * keyCr) / strength
    const across = Math.abs(cb * keyCr - cr * keyCb) / strength
    // Nearly grey pixels have no hue to protect.
    if (across > 0.05) slopes.push(Math.max(0, along / across))
  }
  const wedge = Math.min(0.8, quantile(slopes, 0.95) + 0.02)
  return Math.round((1 - wedge / 0.8) * 100) / 100
}

/** 1 where a pixel lies in a block that, with its neighbours, holds nothing but what passes; clear pixels (NaN) never do. */
function safeBlocks({ columns, rows, data }: Likeness, picture: RgbaPicture, passes: (value: number) => boolean): Uint8Array {
  const size = Math.max(2, Math.round((SAFE_DISTANCE * picture.heightPx) / 720 / STEP))
  const across = Math.ceil(columns / size)
  const down = Math.ceil(rows / size)
  const blockOf = (i: number) => Math.floor(Math.floor(i / columns) / size) * across + Math.floor((i % columns) / size)
  const isSpoilt = new Uint8Array(across * down)
  for (let i = 0; i < data.length; i += 1) if (!passes(data[i]!)) isSpoilt[blockOf(i)] = 1
  const isSafe = isSpoilt.map((_, block) => {
    const x = block % across
    const y = Math.floor(block / across)
    for (let row = Math.max(0, y - 1); row <= Math.min(down - 1, y + 1); row += 1) {
      for (let column = Math.max(0, x - 1); column <= Math.min(across - 1, x + 1); column += 1) if (isSpoilt[row * across + column] === 1) return 0
    }
    return 1
  })
  return Uint8Array.from(data, (_, i) => isSafe[blockOf(i)]!)
}
