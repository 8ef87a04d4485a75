// The looks that come with the program: each a small formula on encoded colour, baked into a cube.
import { parseHex } from '../colour/hex.ts'
import { luma709 } from '../colour/luma.ts'
import { clamp01 } from '../picture/float-picture.ts'
import { bakeLut, type Lut } from './lut.ts'

/** Names of our own looks, as shown in the list from quiet to strong. */
export const ownLooks = [
  'morningTea',
  'windowSeat',
  'beeswax',
  'meadow',
  'sloeBerry',
  'lateTrain',
  'chalk',
  'linen',
  'harvest',
  'newsprint',
  'inkwell',
  'sepia',
  'duskTwoTone',
  'mossTwoTone',
] as const
export type OwnLook = (typeof ownLooks)[number]

/** What a look does to a colour, in this order. */
interface Recipe {
  /** Contrast about the middle code. */
  readonly contrast?: number
  /** Added to black and taken from white: 0.05 lifts black to 5 %. */
  readonly lift?: number
  readonly fade?: number
  readonly saturation?: number
  /** Added to red, green, blue, fully at black (`shade`) and at white (`light`). */
  readonly shade?: readonly [number, number, number]
  readonly light?: readonly [number, number, number]
  /** Grey weights, for looks without colour. */
  readonly grey?: readonly [number, number, number]
  /** Colours that black, the middle and white turn into. */
  readonly tones?: readonly [string, string, string]
}

const recipes: Readonly<Record<OwnLook, Recipe>> = {
  morningTea: { contrast: 1.04, saturation: 1.04, light: [0.025, 0.008, -0.02], shade: [0.008, 0, 0] },
  windowSeat: { contrast: 1.05, saturation: 0.96, light: [-0.015, 0.002, 0.025] },
  beeswax: { contrast: 1.06, saturation: 1.1, light: [0.045, 0.018, -0.05], shade: [0.018, 0.006, -0.01] },
  meadow: { contrast: 1.05, saturation: 1.12, light: [0.005, 0.022, -0.02], shade: [-0.012, 0.01, -0.004] },
  sloeBerry: { contrast: 1.1, saturation: 0.92, shade: [0.02, -0.008, 0.045], light: [0.015, -0.004, 0.01] },
  lateTrain: { contrast: 1.14, saturation: 0.86, shade: [-0.03, 0.008, 0.04], light: [0.03, 0.01, -0.03] },
  chalk: { contrast: 0.9, lift: 0.05, fade: 0.02, saturation: 0.8 },
  linen: { contrast: 0.94, lift: 0.04, saturation: 0.88, light: [0.02, 0.01, -0.012], shade: [0.01, 0.006, 0] },
  harvest: { contrast: 1.12, saturation: 1.22, light: [0.035, 0.012, -0.03], shade: [-0.01, -0.004, 0.012] },
  newsprint: { contrast: 1.02, lift: 0.06, fade: 0.06, grey: [0.3, 0.6, 0.1] },
  inkwell: { contrast: 1.22, grey: [0.45, 0.5, 0.05] },
  sepia: { tones: ['#1a0f07', '#94744f', '#fbf0dc'] },
  duskTwoTone: { tones: ['#241a45', '#b3566b', '#ffe3b0'] },
  mossTwoTone: { tones: ['#10241c', '#4f8067', '#f4efd9'] },
}

const SIZE = 33
const baked = new Map<OwnLook, Lut>()

/** The cube of one of our own looks. */
export function ownLook(name: OwnLook): Lut {
  const known = baked.get(name)
  if (known !== undefined) return known
  const lut = bakeLut(SIZE, recipeFunction(recipes[name]))
  baked.set(name, lut)
  return lut
}

/** Whether a reference names one of our own looks. */
export function isOwnLook(reference: string): reference is OwnLook {
  return (ownLooks as readonly string[]).includes(reference)
}

function recipeFunction(recipe: Recipe): (pixel: Float64Array) => void {
  const { contrast = 1, lift = 0, fade = 0, saturation = 1, shade = [0, 0, 0], light = [0, 0, 0], grey } = recipe
  const tones = recipe.tones?.map(parseHex)
  return (pixel) => {
    if (tones !== undefined) {
      const luma = luma709(pixel[0]!, pixel[1]!, pixel[2]!)
      const [from, to, share] = luma < 0.5 ? [tones[0]!, tones[1]!, luma * 2] : [tones[1]!, tones[2]!, luma * 2 - 1]
      for (let channel = 0; channel < 3; channel += 1) pixel[channel] = from[channel]! * (1 - share) + to[channel]! * share
      return
    }
    const mono = grey === undefined ? null : grey[0] * pixel[0]! + grey[1] * pixel[1]! + grey[2] * pixel[2]!
    const luma = luma709(pixel[0]!, pixel[1]!, pixel[2]!)
    for (let channel = 0; channel < 3; channel += 1) {
      let value = mono ?? luma + saturation * (pixel[channel]! - luma)
      value = softContrast(clamp01(value), contrast)
      value += shade[channel]! * (1 - luma) + light[channel]! * luma
      pixel[channel] = clamp01(lift + value * (1 - lift - fade))
    }
  }
}

/** An S about the middle that keeps black and white: contrast c at ½, v → v^c … mirrored. */
function softContrast(value: number, contrast: number): number {
  if (contrast === 1) return value
  return value < 0.5 ? 0.5 * (2 * value) ** contrast : 1 - 0.5 * (2 - 2 * value) ** contrast
}
