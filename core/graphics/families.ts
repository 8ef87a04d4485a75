// Families of graphics: what sits behind words, and which of the show's colours the words then have. A family looks the same in every kind.
import type { Rect } from '../box/fit.ts'
import type { Frame } from '../box/frame.ts'
import type { Appearance } from '../motion/appearance.ts'
import { namedEasings } from '../motion/easing.ts'
import { fromShow, type StyleColour } from '../style/style-names.ts'
import { bandOf, fading, inset, plain, type Part } from './parts.ts'

export const graphicFamilies = ['ruled', 'card', 'block', 'open'] as const
export type GraphicFamily = (typeof graphicFamilies)[number]

/** Where a plate stands on the canvas: along the bottom or the side, across the middle, or in a corner. */
export type Stand = 'bottom' | 'side' | 'middle' | 'corner'

export interface Ground {
  /** From back to front. */
  readonly parts: readonly Part[]
  /** Where words have room. */
  readonly room: Rect
  readonly head: StyleColour
  readonly body: StyleColour
}

export interface Family {
  /** What is put behind words in a box; `unit` is a pixel of a canvas of 720 lines, `opacity` that of the plate. */
  readonly ground: (box: Rect, unit: number, stand: Stand, opacity: number, canvas: Rect) => Ground
  /** A frame around the whole picture. */
  readonly border: (canvas: Rect, unit: number) => readonly Part[]
  /** How a photo in it is framed. */
  readonly photo: (unit: number) => Partial<Frame>
  readonly entrance: Omit<Appearance, 'delayMs'>
}

const ringed = (widthPx: number, colour: StyleColour): Partial<Frame> => ({
  form: 'ellipse',
  border: { widthPx, colour: fromShow(colour), opacity: 1, side: 'inside' },
})

const come = (kind: Appearance['kind'], durationMs: number, side: Appearance['side'] = 'left') => ({ kind, durationMs, side, easing: namedEasings.easeOut })

/** A box with a rule along its top. */
const ruled: Family = {
  ground: (box, unit, _stand, opacity) => {
    const thick = 6 * unit
    return {
      parts: [
        { type: 'plate', box: { ...box, y: box.y + thick, height: box.height - thick }, fill: plain('panel', opacity), turn: 0 },
        { type: 'plate', box: { ...box, height: thick }, fill: plain('accent'), turn: 0 },
      ],
      room: inset(box, thick + 14 * unit, 26 * unit, 16 * unit),
      head: 'ink',
      body: 'ink',
    }
  },
  border: (canvas, unit) => {
    const thick = 14 * unit
    const edge = (box: Rect): Part => ({ type: 'plate', box, fill: plain('panel'), turn: 0 })
    return [
      edge({ ...canvas, height: thick }),
      edge({ ...canvas, y: canvas.height - thick, height: thick }),
      edge({ ...canvas, y: thick, width: thick, height: canvas.height - 2 * thick }),
      edge({ x: canvas.width - thick, y: thick, width: thick, height: canvas.height - 2 * thick }),
      {
        type: 'plate',
        box: { x: thick, y: canvas.height - thick - 5 * unit, width: canvas.width - 2 * thick, height: 5 * unit },
        fill: plain('accent'),
        turn: 0,
      },
    ]
  },
  photo: () => ({}),
  entrance: come('wipe', 500),
}

/** A round card that casts a shadow, with a pill at its beginning. */
const card: Family = {
  ground: (box, unit, stand, opacity) => {
    const around = stand === 'side' ? inset(box, 20 * unit) : box
    const pill = { x: around.x + 20 * unit, y: around.y + 20 * unit, width: 10 * unit, height: Math.max(1, around.height - 40 * unit) }
    const radius = Math.min(26 * unit, around.height / 2)
    const shadow = { dx: 0, dy: 6 * unit, blurPx: 24 * unit, colour: '#000000', opacity: 0.35 * opacity }
    return {
      parts: [
        { type: 'plate', box: around, fill: plain('panel', opacity), frame: { cornerRadiusPx: radius, shadow }, turn: 0 },
        { type: 'plate', box: pill, fill: plain('accent'), frame: { cornerRadiusPx: 5 * unit }, turn: 0 },
      ],
      room: inset(around, 16 * unit, 28 * unit, 16 * unit, 48 * unit),
      head: 'ink',
      body: 'ink',
    }
  },
  border: (canvas, unit) => {
    const thick = 18 * unit
    const border = { widthPx: thick, colour: 'show:accent', opacity: 1, side: 'inside' as const }
    return [{ type: 'plate', box: canvas, fill: plain('panel', 0), frame: { border, cornerRadiusPx: 44 * unit }, turn: 0 }]
  },
  photo: () => ({ form: 'ellipse' }),
  entrance: come('grow', 380),
}

/** Solid blocks of the accent, with a step of the ground colour under them. */
const block: Family = {
  ground: (box, unit, stand, opacity) => {
    const step = 12 * unit
    const isTall = stand === 'side'
    const main = isTall ? { ...box, x: box.x + step, width: box.width - step } : { ...box, height: box.height - step }
    const under = isTall
      ? { x: box.x, y: box.y, width: step, height: box.height * 0.42 }
      : { x: box.x, y: box.y + box.height - step, width: box.width * 0.42, height: step }
    return {
      parts: [
        { type: 'plate', box: under, fill: plain('ground'), turn: 0 },
        { type: 'plate', box: main, fill: plain('accent', opacity), turn: 0 },
      ],
      room: inset(main, 14 * unit, 26 * unit),
      head: 'onAccent',
      body: 'onAccent',
    }
  },
  border: (canvas, unit) => {
    const long = 150 * unit
    const thick = 20 * unit
    const corner = (isRight: boolean, isBottom: boolean): Part[] => {
      const x = isRight ? canvas.width - long : 0
      const y = isBottom ? canvas.height - long : 0
      return [
        { type: 'plate', box: { x, y: isBottom ? canvas.height - thick : 0, width: long, height: thick }, fill: plain('accent'), turn: 0 },
        {
          type: 'plate',
          box: { x: isRight ? canvas.width - thick : 0, y: isBottom ? y : thick, width: thick, height: long - thick },
          fill: plain('accent'),
          turn: 0,
        },
      ]
    }
    return [...corner(false, false), ...corner(true, false), ...corner(false, true), ...corner(true, true)]
  },
  photo: () => ({}),
  entrance: come('slide', 420),
}

/** No plate: the picture grows dark where words stand, and a short line is drawn under them. */
const open: Family = {
  ground: (box, unit, stand, opacity, canvas) => ({
    parts: [{ type: 'plate', ...darkness(box, unit, stand, Math.max(0.86, opacity), canvas), turn: 0 }, ...lineOf(box, unit, stand)],
    room: inset(box, 10 * unit, 26 * unit, 18 * unit),
    head: 'panel',
    body: 'panel',
  }),
  border: (canvas, unit) => {
    const gap = 26 * unit
    const border = { widthPx: 3 * unit, colour: 'show:panel', opacity: 1, side: 'inside' as const }
    return [{ type: 'plate', box: inset(canvas, gap), fill: plain('panel', 0), frame: { border }, turn: 0 }]
  },
  photo: (unit) => ringed(3 * unit, 'panel'),
  entrance: come('fade', 450),
}

/** Under words along the bottom or across the middle, beside those at the side; a corner has no room for it. */
function lineOf(box: Rect, unit: number, stand: Stand): readonly Part[] {
  const thick = 4 * unit
  const line = (at: Rect): Part => ({ type: 'plate', box: at, fill: plain('panel'), frame: { cornerRadiusPx: thick / 2 }, turn: 1 })
  const width = Math.min(120 * unit, box.width / 3)
  switch (stand) {
    case 'bottom':
      return [line({ x: box.x + 26 * unit, y: box.y + box.height - 10 * unit, width, height: thick })]
    case 'middle':
      return [line({ x: box.x + (box.width - width) / 2, y: box.y + box.height - 10 * unit, width, height: thick })]
    case 'side':
      return [line({ x: box.x + 4 * unit, y: box.y + box.height * 0.06, width: thick, height: box.height * 0.88 })]
    case 'corner':
      return []
    default:
      return stand satisfies never
  }
}

/** All of it is dark before the words begin: from the side, from below, as a band across, or as a plate in a corner. */
function darkness(box: Rect, unit: number, stand: Stand, opacity: number, canvas: Rect): Pick<Part & { type: 'plate' }, 'box' | 'fill' | 'frame'> {
  const reach = 70 * unit
  switch (stand) {
    case 'side':
      return { box: { ...box, x: box.x - reach, width: box.width + reach }, fill: fading('ground', 90, opacity, reach / (box.width + reach)) }
    case 'bottom': {
      const y = Math.max(0, box.y - reach)
      const height = canvas.height - y
      return { box: { ...canvas, y, height }, fill: fading('ground', 180, opacity, (box.y - y) / height) }
    }
    case 'middle': {
      const y = Math.max(0, box.y - reach)
      const height = Math.min(canvas.height, box.y + box.height + reach) - y
      return { box: { ...canvas, y, height }, fill: bandOf('ground', opacity, (box.y - y) / height, (box.y + box.height - y) / height) }
    }
    case 'corner':
      return { box, fill: plain('ground', opacity), frame: { cornerRadiusPx: 16 * unit } }
    default:
      return stand satisfies never
  }
}

export const families: Readonly<Record<GraphicFamily, Family>> = { ruled, card, block, open }
