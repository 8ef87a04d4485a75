// What drawn backgrounds are put together from: areas, lines and discs on one sheet, in the colours of the show.
import type { Rect } from '../box/fit.ts'
import type { FrameForm } from '../box/frame.ts'
import type { Stroke } from '../outline/outline.ts'
import type { Fill } from '../paint/fill.ts'
import { fromShow, type StyleColour } from '../style/style-names.ts'

/** Drawn on a sheet of this size, which is stretched over the canvas so that nothing is left open; forms keep their proportions on 16:9. */
export const WIDTH = 1600
export const HEIGHT = 900

export interface Form {
  readonly fill: Fill
  readonly box: Rect
  readonly form?: FrameForm
  readonly path?: string
  readonly stroke?: Stroke
}

export const ALL: Rect = { x: 0, y: 0, width: WIDTH, height: HEIGHT }
export const plain = (colour: StyleColour, opacity = 1): Fill => ({ kind: 'plain', colour: fromShow(colour), opacity })
type Stop = readonly [at: number, colour: StyleColour, opacity: number]
const stopsOf = (stops: readonly Stop[]) => stops.map(([at, colour, opacity]) => ({ at, colour: fromShow(colour), opacity }))
export const linear = (angleDeg: number, ...stops: readonly Stop[]): Fill => ({ kind: 'linear', angleDeg, stops: stopsOf(stops) })
export const radial = (...stops: readonly Stop[]): Fill => ({ kind: 'radial', stops: stopsOf(stops) })
export const ground = (colour: StyleColour = 'ground'): Form => ({ fill: plain(colour), box: ALL })
export const area = (fill: Fill, path: string): Form => ({ fill, path, box: ALL })
export const lines = (colour: StyleColour, opacity: number, widthPx: number, path: string): Form => ({
  fill: plain(colour, 0),
  box: ALL,
  path,
  stroke: { widthPx, colour: fromShow(colour), opacity },
})
export const disc = (fill: Fill, x: number, y: number, radius: number): Form => ({
  fill,
  form: 'ellipse',
  box: { x: x - radius, y: y - radius, width: 2 * radius, height: 2 * radius },
})
export const round = (value: number) => Math.round(value * 10) / 10

/** A wavy edge from left to right, and all that is below it. */
export function below(y: number, rise: number, length: number, shift: number): string {
  const step = length / 2
  let path = `M0 ${round(y)}`
  let isUp = shift % 2 === 0
  for (let x = 0; x < WIDTH; x += step, isUp = !isUp) {
    const peak = y + (isUp ? -rise : rise)
    path += ` C${round(x + step / 3)} ${round(peak)} ${round(x + (2 * step) / 3)} ${round(peak)} ${round(x + step)} ${round(y)}`
  }
  return `${path} L${WIDTH + length} ${HEIGHT} L0 ${HEIGHT} Z`
}

export const rectangle = (x: number, y: number, width: number, height: number) =>
  `M${round(x)} ${round(y)} L${round(x + width)} ${round(y)} L${round(x + width)} ${round(y + height)} L${round(x)} ${round(y + height)} Z`
/** A circle of four arcs by cubic curves. */
export function circle(x: number, y: number, radius: number): string {
  const k = radius * 0.5523
  const at = (...numbers: number[]) => numbers.map(round).join(' ')
  return `M${at(x + radius, y)} C${at(x + radius, y + k, x + k, y + radius, x, y + radius)} C${at(x - k, y + radius, x - radius, y + k, x - radius, y)} C${at(x - radius, y - k, x - k, y - radius, x, y - radius)} C${at(x + k, y - radius, x + radius, y - k, x + radius, y)} Z`
}
export const many = <T>(count: number, make: (index: number) => T): readonly T[] => Array.from({ length: count }, (_, index) => make(index))
export const joined = (count: number, make: (index: number) => string) => many(count, make).join(' ')
