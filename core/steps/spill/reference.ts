// Straight, sRGB-encoded colour.
import { parseHex } from '../../colour/hex.ts'
import { CB_PER_BLUE, CR_PER_RED, LUMA_B, LUMA_G, LUMA_R, luma709 } from '../../colour/luma.ts'
import { placesInCells, type Between } from '../../filter/bilinear.ts'
import { sampleWeight, sureness } from '../../matte/solve-edges.ts'
import { PullPush } from '../../matte/pull-push.ts'
import { clamp01 } from '../../picture/float-picture.ts'
import type { ParamsOf, PointFunction } from '../step.ts'
import type { spillParams } from './params.ts'

/** A backdrop with less colour than this casts none. */
const LEAST_CHROMA = 0.02
/** Colour across the backdrop's direction that forgives as much along it, at no reach. */
const WIDEST_WEDGE = 0.8
const LEAST_LUMA = 0.02
/** The presenter's own colour is gathered in cells, from every second pixel of every second row, as far as it is surely opaque and clean. */
export const CELL_PX = 8
export const SAMPLE_STEP = 2
/** Colours with this share of the backdrop in them are not clean at all, and with less of it by what it lacks. */
export const SPILT = 0.16

/** How much backdrop light is in a colour, in shares of the backdrop; 0 for none. */
export type SpillMeter = (red: number, green: number, blue: number) => number

/**
 * Measures spill: with p the colour along the backdrop's direction in the BT.709 colour-difference plane, q across it
 * and k the backdrop's strength, the share is max(0, p − wedge·|q|) / k. Null for a grey backdrop.
 */
export function spillMeter({ colour, reach }: Pick<ParamsOf<typeof spillParams>, 'colour' | 'reach'>): SpillMeter | null {
  const [keyRed, keyGreen, keyBlue] = parseHex(colour)
  const keyLuma = luma709(keyRed, keyGreen, keyBlue)
  const keyCb = (keyBlue - keyLuma) * CB_PER_BLUE
  const keyCr = (keyRed - keyLuma) * CR_PER_RED
  const strength = Math.hypot(keyCb, keyCr)
  if (strength < LEAST_CHROMA) return null
  const alongCb = keyCb / strength
  const alongCr = keyCr / strength
  const wedge = spillWedge(reach)
  return (red, green, blue) => {
    const luma = LUMA_R * red + LUMA_G * green + LUMA_B * blue
    const cb = (blue - luma) * CB_PER_BLUE
    const cr = (red - luma) * CR_PER_RED
    const excess = cb * alongCb + cr * alongCr - wedge * Math.abs(cb * alongCr - cr * alongCb)
    return excess > 0 ? excess / strength : 0
  }
}

/** Colour across the backdrop's direction that forgives as much along it. */
export function spillWedge(reach: number): number {
  return WIDEST_WEDGE * (1 - reach)
}

/** Red, green, blue that come in for one whole backdrop. */
export function replacementLight(params: ParamsOf<typeof spillParams>): readonly [number, number, number] {
  const instead = params.replace === 'backdrop' ? parseHex(params.light) : ([1, 1, 1] as const)
  return replacement(params, parseHex(params.colour), instead[0], instead[1], instead[2])
}

/** Takes share t of the backdrop K off and puts light of one colour in its place: C − t·K + t·light; null when nothing changes. */
export function prepareSpill(params: ParamsOf<typeof spillParams>): PointFunction | null {
  const meter = spillMeter(params)
  if (meter === null || params.amount === 0) return null
  const key = parseHex(params.colour)
  const [red, green, blue] = replacementLight(params)
  const { amount } = params
  return (pixel) => {
    const share = amount * meter(pixel[0]!, pixel[1]!, pixel[2]!)
    if (share === 0) return
    pixel[0] = clamp01(pixel[0]! + share * (red - key[0]))
    pixel[1] = clamp01(pixel[1]! + share * (green - key[1]))
    pixel[2] = clamp01(pixel[2]! + share * (blue - key[2]))
  }
}

/** The light that comes in for one whole backdrop: as bright as the backdrop if luma is kept; else grey gives nothing, a colour itself. */
function replacement(
  { keepLuma, replace }: ParamsOf<typeof spillParams>,
  key: readonly [number, number, number],
  red: number,
  green: number,
  blue: number,
): readonly [number, number, number] {
  if (keepLuma === 'off') return replace === 'neutral' ? [0, 0, 0] : [red, green, blue]
  const scale = luma709(...key) / Math.max(LEAST_LUMA, luma709(red, green, blue))
  return [red * scale, green * scale, blue * scale]
}

/** Spill replaced by the presenter's own colour, spread from where it is opaque and clean. For pictures of one size. */
export class EdgeSpill {
  readonly #widthPx: number
  readonly #heightPx: number
  readonly #front: PullPush
  readonly #columns: Between
  readonly #rows: Between

  constructor(widthPx: number, heightPx: number) {
    this.#widthPx = widthPx
    this.#heightPx = heightPx
    this.#front = new PullPush(Math.ceil(widthPx / CELL_PX), Math.ceil(heightPx / CELL_PX))
    this.#columns = placesInCells(widthPx, CELL_PX)
    this.#rows = placesInCells(heightPx, CELL_PX)
  }

  /** Cleans in place. `one` is the value of a full channel: 1 for doubles, 255 for bytes. */
  clean(data: Float64Array | Uint8Array, one: number, params: ParamsOf<typeof spillParams>): void {
    const meter = spillMeter(params)
    if (meter === null || params.amount === 0) return
    this.#gather(data, one, meter)
    const front = this.#front.run()
    if (front === null) return
    const trust = this.#front.trust
    const key = parseHex(params.colour)
    const half = one === 1 ? 0 : 0.5
    const cells = this.#front.sums.columns
    for (let y = 0; y < this.#heightPx; y += 1) {
      const top = this.#rows.below[y]! * cells
      const bottom = this.#rows.above[y]! * cells
      const shareY = this.#rows.share[y]!
      for (let x = 0; x < this.#widthPx; x += 1) {
        const at = (y * this.#widthPx + x) * 4
        if (data[at + 3] === 0) continue
        const share = params.amount * trust * meter(data[at]! / one, data[at + 1]! / one, data[at + 2]! / one)
        if (share === 0) continue
        const shareX = this.#columns.share[x]!
        const own = [0, 0, 0]
        for (let channel = 0; channel < 3; channel += 1) {
          const left = front[(top + this.#columns.below[x]!) * 3 + channel]! * (1 - shareY) + front[(bottom + this.#columns.below[x]!) * 3 + channel]! * shareY
          const right = front[(top + this.#columns.above[x]!) * 3 + channel]! * (1 - shareY) + front[(bottom + this.#columns.above[x]!) * 3 + channel]! * shareY
          own[channel] = (left * (1 - shareX) + right * shareX) / one
        }
        const light = replacement(params, key, own[0]!, own[1]!, own[2]!)
        for (let channel = 0; channel < 3; channel += 1) {
          data[at + channel] = clamp01(data[at + channel]! / one + share * (light[channel]! - key[channel]!)) * one + half
        }
      }
    }
  }

  #gather(data: Float64Array | Uint8Array, one: number, meter: SpillMeter): void {
    const sums = this.#front.sums
    sums.data.fill(0)
    for (let y = 0; y < this.#heightPx; y += SAMPLE_STEP) {
      for (let x = 0; x < this.#widthPx; x += SAMPLE_STEP) {
        const at = (y * this.#widthPx + x) * 4
        const clean = clamp01(1 - meter(data[at]! / one, data[at + 1]! / one, data[at + 2]! / one) / SPILT)
        const weight = sampleWeight(clean * sureness(data[at + 3]! / one))
        if (weight === 0) continue
        const to = (Math.floor(y / CELL_PX) * sums.columns + Math.floor(x / CELL_PX)) * 4
        for (let channel = 0; channel < 3; channel += 1) sums.data[to + channel]! += weight * data[at + channel]!
        sums.data[to + 3]! += weight
      }
    }
  }
}
