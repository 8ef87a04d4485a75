// Frames of layers against plain geometry: every pixel as the mean of 16 × 16 points, each of which is in the ring, in the picture or on the
// ground and nowhere else. The rule for a point is written here anew: a rounded box by distance to its corner circles, an ellipse by its equation.
import { newInputLayer } from '../../core/layers/input.ts'
import { describe, expect, it } from 'vitest'
import { planFrame } from '../../core/stage/plan-frame.ts'
import { renderReference } from '../../core/render/render-reference.ts'
import type { ColourInput, Frame, Show } from '../../core/show/show.ts'
import { showCase } from '../support/random-shows.ts'

const WIDTH = 160
const HEIGHT = 120
const POINTS = 16
/** Codes of 255 that a pixel may differ by. */
const MOST_CODES = 6

const ground = [1, 1, 1] as const
const picture = [0, 0, 0.2] as const
const ring = [0.8, 0.1, 0.1] as const

interface Box {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly angleDeg: number
}

/** Whether a point of the box's own axes lies in a form grown by `px` on every side. */
function isIn(form: 'box' | 'ellipse', { width, height }: Box, radius: number, px: number, x: number, y: number): boolean {
  const [halfX, halfY] = [width / 2 + px, height / 2 + px]
  const [across, down] = [Math.abs(x), Math.abs(y)]
  if (halfX <= 0 || halfY <= 0) return false
  if (form === 'ellipse') return (across / halfX) ** 2 + (down / halfY) ** 2 <= 1
  if (across > halfX || down > halfY) return false
  const corner = Math.min(radius === 0 ? 0 : Math.max(0, radius + px), halfX, halfY)
  const [overX, overY] = [across - (halfX - corner), down - (halfY - corner)]
  return overX <= 0 || overY <= 0 || Math.hypot(overX, overY) <= corner
}

function expectedPicture(box: Box, frame: Frame, opacity: number): Float64Array {
  const out = new Float64Array(WIDTH * HEIGHT * 3)
  const angle = (box.angleDeg * Math.PI) / 180
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
  const form = frame.form === 'ellipse' ? 'ellipse' : 'box'
  const { border } = frame
  const [outerPx, innerPx] = border === null ? [0, 0] : border.side === 'inside' ? [0, -border.widthPx] : [border.widthPx, 0]
  for (let y = 0; y < HEIGHT; y += 1) {
    for (let x = 0; x < WIDTH; x += 1) {
      for (let point = 0; point < POINTS * POINTS; point += 1) {
        const dx = x + ((point % POINTS) + 0.5) / POINTS - (box.x + box.width / 2)
        const dy = y + (Math.floor(point / POINTS) + 0.5) / POINTS - (box.y + box.height / 2)
        const [ownX, ownY] = [dx * cos + dy * sin, dy * cos - dx * sin]
        let colour: readonly number[] = ground
        const over = (above: readonly number[], share: number) => (colour = colour.map((below, i) => below + (above[i]! - below) * share * opacity))
        const isInside = isIn(form, box, frame.cornerRadiusPx, innerPx, ownX, ownY)
        const isRing = border !== null && !isInside && isIn(form, box, frame.cornerRadiusPx, outerPx, ownX, ownY)
        const isPicture = isIn(form, box, frame.cornerRadiusPx, 0, ownX, ownY)
        const under = isPicture ? picture : ground
        if (isRing) over(under.map((below, i) => below + (ring[i]! - below) * border.opacity), 1)
        else if (isPicture) over(picture, 1)
        for (let channel = 0; channel < 3; channel += 1) out[(y * WIDTH + x) * 3 + channel]! += colour[channel]! / (POINTS * POINTS)
      }
    }
  }
  return out
}

const cases: readonly (readonly [string, Box, Partial<Frame>, number])[] = [
  ['a rounded box, inside border', { x: 30, y: 20, width: 90, height: 70, angleDeg: 0 }, { cornerRadiusPx: 24, border: { widthPx: 6, colour: '#cc1a1a', opacity: 1, side: 'inside' } }, 1],
  ['turned, inside border', { x: 35.5, y: 22.25, width: 80, height: 60, angleDeg: 17 }, { cornerRadiusPx: 12, border: { widthPx: 5, colour: '#cc1a1a', opacity: 1, side: 'inside' } }, 1],
  ['turned, outside border', { x: 40, y: 30, width: 70, height: 50, angleDeg: -33 }, { cornerRadiusPx: 10, border: { widthPx: 7, colour: '#cc1a1a', opacity: 1, side: 'outside' } }, 1],
  ['a hairline', { x: 40, y: 30, width: 70, height: 50, angleDeg: 8 }, { cornerRadiusPx: 20, border: { widthPx: 0.8, colour: '#cc1a1a', opacity: 1, side: 'inside' } }, 1],
  ['a see-through border', { x: 40, y: 30, width: 70, height: 50, angleDeg: 21 }, { cornerRadiusPx: 16, border: { widthPx: 9, colour: '#cc1a1a', opacity: 0.5, side: 'inside' } }, 1],
  ['an ellipse, outside border', { x: 40, y: 30, width: 80, height: 60, angleDeg: 0 }, { form: 'ellipse', border: { widthPx: 5, colour: '#cc1a1a', opacity: 1, side: 'outside' } }, 1],
  ['half faded', { x: 30, y: 20, width: 90, height: 70, angleDeg: 11 }, { cornerRadiusPx: 24, border: { widthPx: 6, colour: '#cc1a1a', opacity: 1, side: 'inside' } }, 0.5],
]

describe('a frame has no hairline of the ground on its curves and slants, and no fringe of the picture outside it', () => {
  it.each(cases)('%s', (_, box, part, opacity) => {
    const base = showCase(301).show
    const colour: ColourInput = { id: 'c', kind: 'colour', name: 'C', colour: '#000033', treatment: [] }
    const wall: ColourInput = { ...colour, id: 'w', colour: '#ffffff' }
    const canvas = { widthPx: WIDTH, heightPx: HEIGHT, frameRate: 30 }
    let count = 0
    const makeId = () => `f${(count += 1)}`
    const framed = newInputLayer(colour, canvas, makeId)
    const frame: Frame = { ...framed.frame, ...part }
    const layers = [newInputLayer(wall, canvas, makeId), { ...framed, opacity, placement: { ...framed.placement, ...box }, frame }]
    const show: Show = { ...base, canvas, inputs: [colour, wall], scenes: [{ ...base.scenes[0]!, layers }] }
    const { data } = renderReference(planFrame(show, { scene: show.scenes[0]! }, 0, new Map()), new Map())
    const expected = expectedPicture(box, frame, opacity)
    let worst = 0
    for (let at = 0; at < WIDTH * HEIGHT; at += 1)
      for (let channel = 0; channel < 3; channel += 1) worst = Math.max(worst, Math.abs(data[at * 4 + channel]! - expected[at * 3 + channel]!) * 255)
    expect(worst).toBeLessThanOrEqual(MOST_CODES)
  })
})
