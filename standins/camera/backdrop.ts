// What stands behind the presenter in each stand-in, and how the camera sees it.
import type { StandinCamera } from '../../core/show/show.ts'
import type { MakeSheet, Pen } from '../drawing/canvas.ts'
import { BLUE_DYE, clothColour, evenLight, GREEN_DYE, oneSidedLight, twoLamps, type Cloth } from './cloth.ts'
import type { SpillLight } from './spill.ts'
import { drawTable } from './table.ts'
import { drawUntidyRoom } from './untidy-room.ts'

/** Encoded RGB (0..255) of the empty scene at (x, y), in units of a 1280 × 720 picture. */
export type ColourAt = (x: number, y: number, out: Float64Array) => void

export interface Backdrop {
  /** Who is before it. */
  readonly front: 'presenter' | 'hand'
  /** Light it throws on who is before it; null for none. */
  readonly spill: SpillLight | null
  /** What the camera makes of full red, green and blue codes: a cast, or too little light. */
  readonly gains: readonly [number, number, number]
  /** Standard deviation of sensor noise, in 8-bit codes. */
  readonly noise: number
  /** Where it is surely the backdrop, as shares of the picture: what a presenter would click. */
  readonly pick: { readonly x: number; readonly y: number } | null
  /** The empty scene; `makeSheet` is for those that are drawn. */
  readonly colourAt: (makeSheet: MakeSheet, widthPx: number, heightPx: number) => ColourAt
}

const NOISE = 1.6
const NEUTRAL = [1, 1, 1] as const
const PICK = { x: 0.3, y: 0.3 } as const
const GREEN_SPILL: SpillLight = { strength: 0.26, light: [-0.12, 0.62, 0.06] }
const BLUE_SPILL: SpillLight = { strength: 0.26, light: [-0.1, 0.05, 0.6] }

const demoCloth: Cloth = { dye: GREEN_DYE, light: twoLamps, creases: 1 }

function clothBackdrop(cloth: Cloth, part: Partial<Backdrop> = {}): Backdrop {
  return {
    front: 'presenter',
    spill: GREEN_SPILL,
    gains: NEUTRAL,
    noise: NOISE,
    pick: PICK,
    colourAt: () => (x, y, out) => clothColour(cloth, x, y, out),
    ...part,
  }
}

/** A backdrop that is drawn once with a pen, in units of 1280 × 720. */
function drawnBackdrop(draw: (pen: Pen) => void, front: Backdrop['front'] = 'presenter'): Backdrop {
  return {
    front,
    spill: null,
    gains: NEUTRAL,
    noise: NOISE,
    pick: null,
    colourAt: (makeSheet, widthPx, heightPx) => {
      const { pen } = makeSheet(widthPx, heightPx)
      pen.scale(widthPx / 1280, heightPx / 720)
      draw(pen)
      const { data } = pen.getImageData(0, 0, widthPx, heightPx)
      return (x, y, out) => {
        const at = (Math.min(heightPx - 1, Math.floor((y * heightPx) / 720)) * widthPx + Math.min(widthPx - 1, Math.floor((x * widthPx) / 1280))) * 4
        for (let channel = 0; channel < 3; channel += 1) out[channel] = data[at + channel]!
      }
    },
  }
}

/** Every stand-in camera. */
export const backdrops: Readonly<Record<StandinCamera, Backdrop>> = {
  cloth: clothBackdrop(demoCloth),
  evenCloth: clothBackdrop({ dye: GREEN_DYE, light: evenLight, creases: 0 }),
  unevenCloth: clothBackdrop({ dye: GREEN_DYE, light: oneSidedLight, creases: 0.4 }),
  creasedCloth: clothBackdrop({ dye: GREEN_DYE, light: evenLight, creases: 2.6 }),
  noisyCloth: clothBackdrop({ dye: GREEN_DYE, light: evenLight, creases: 0.4 }, { noise: 5.5 }),
  blueCloth: clothBackdrop({ dye: BLUE_DYE, light: evenLight, creases: 0.5 }, { spill: BLUE_SPILL }),
  heavySpill: clothBackdrop({ dye: GREEN_DYE, light: evenLight, creases: 0.5 }, { spill: { ...GREEN_SPILL, strength: 0.62 } }),
  warmLight: clothBackdrop({ dye: GREEN_DYE, light: evenLight, creases: 0.5 }, { gains: [1.06, 0.94, 0.66] }),
  dimLight: clothBackdrop({ dye: GREEN_DYE, light: twoLamps, creases: 0.8 }, { gains: [0.5, 0.5, 0.5], noise: 2.6 }),
  // The cloth's mean luma comes to 40.
  darkNoisyCloth: clothBackdrop({ dye: GREEN_DYE, light: twoLamps, creases: 0.8 }, { gains: [0.28, 0.28, 0.28], noise: 8 }),
  whiteWall: {
    front: 'presenter',
    spill: null,
    gains: NEUTRAL,
    noise: NOISE,
    pick: { x: 0.2, y: 0.25 },
    colourAt: () => (x, y, out) => {
      // Bright and almost even, with a soft shadow at one side of the head.
      const shadow = 0.05 * Math.exp(-((x - 850) ** 2) / 30000 - (y - 330) ** 2 / 60000)
      const shade = 1 - 0.03 * (y / 720) - 0.02 * (x / 1280) - shadow
      out[0] = 246 * shade
      out[1] = 245 * shade
      out[2] = 241 * shade
    },
  },
  untidyRoom: drawnBackdrop(drawUntidyRoom),
  table: drawnBackdrop(drawTable, 'hand'),
}
