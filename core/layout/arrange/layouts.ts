// Where a presenter, a page and more cameras go on a canvas of any shape. Everything is in canvas pixels.
import type { Rect } from '../../box/fit.ts'
import { cropRound, headInBox, USUAL_HEAD, type Head } from './head.ts'

/** In the order they are offered. */
export const layoutNames = ['solo', 'third', 'halves', 'frames', 'shoulder', 'cornerTop', 'cornerBottom', 'above', 'inside', 'table'] as const
export type LayoutName = (typeof layoutNames)[number]

/** On which side the presenter is; on a canvas higher than wide, left means at the top. */
export const presenterSides = ['left', 'right'] as const
export type PresenterSide = (typeof presenterSides)[number]

export interface Layout {
  readonly name: LayoutName
  readonly side: PresenterSide
}

/** A picture that is to be placed. */
export interface Shown {
  readonly widthPx: number
  readonly heightPx: number
}

export interface ShownPresenter extends Shown {
  /** Null when nobody has found one. */
  readonly head: Head | null
}

export interface Arrangement {
  /** A box for each presenter, filled; fewer than there are when the layout has no more room. */
  readonly presenters: readonly Rect[]
  /** The page's box, in which all of it is shown; null without one. */
  readonly page: Rect | null
  readonly divider: Rect | null
  readonly isPageInFront: boolean
  /** Whether what is placed floats, and so has a frame as a rule: the presenters, the page. */
  readonly framesPresenters: boolean
  readonly framesPage: boolean
  /** Whether the page's ink lies in front of the presenter. */
  readonly hasInk: boolean
}

export interface Canvas {
  readonly widthPx: number
  readonly heightPx: number
}

/** Thirds with a thin line between: about 30 px on a canvas 1920 wide (common practice, no source). */
const DIVIDER_SHARE = 30 / 1920
/** Distance of what floats from the edges, of each side: inside the title-safe area of EBU R 95. */
const MARGIN = 0.05
const GAP = 0.025
/** Side of a presenter in a corner, of the canvas's shorter side (common practice, no source). */
const CORNER = 0.36
/** What floats beside a head is not wider, nor higher, than this share of the canvas, so that the presenter stays the larger. */
const SHOULDER = 0.46
/** How much of the height a page above a presenter may take. */
const ABOVE = 0.6
/** And how much it has, however high the presenter's head is. */
const LEAST_ABOVE = 0.4
/** A head and the room above it, of the head's height. */
const HEAD_ROOM = 1.1
/** Proportion of frames when there is no page to take it from, and of places at a table. */
const USUAL_ASPECT = 4 / 3
export const MOST_AT_TABLE = 6

const NOTHING = { page: null, divider: null, isPageInFront: false, framesPresenters: false, framesPage: false, hasInk: false } as const

/** Computes a layout. `page` is null when there is none: the presenters have its place then, where that makes sense. */
export function arrange({ name, side }: Layout, canvas: Canvas, presenters: readonly ShownPresenter[], page: Shown | null): Arrangement {
  const whole = { x: 0, y: 0, width: canvas.widthPx, height: canvas.heightPx }
  const first = presenters.slice(0, 1)
  switch (name) {
    case 'solo':
      return { ...NOTHING, presenters: first.map(() => whole) }
    case 'third':
      return split(canvas, first, 1 / 3, side)
    case 'halves':
      return split(canvas, presenters.slice(0, page === null ? 2 : 1), 1 / 2, side, page === null)
    case 'frames':
      return frames(canvas, presenters, page, side)
    case 'shoulder':
      return { ...NOTHING, presenters: first.map(() => whole), page: page && besideHead(canvas, first[0], page, side), isPageInFront: true, framesPage: true }
    case 'cornerTop':
    case 'cornerBottom':
      return { ...NOTHING, presenters: first.map(() => corner(canvas, side, name === 'cornerTop')), page: page && whole, framesPresenters: true }
    case 'above':
      return above(canvas, first, page)
    case 'inside':
      return { ...NOTHING, presenters: first.map(() => whole), page: page && whole, hasInk: true }
    case 'table':
      return { ...NOTHING, presenters: table(canvas, Math.min(MOST_AT_TABLE, presenters.length)), framesPresenters: presenters.length > 1 }
  }
}

/** The presenter on one side, along the canvas's longer direction, the page on the other; edges on whole pixels. */
function split(canvas: Canvas, presenters: readonly Shown[], share: number, side: PresenterSide, isTwo = false): Arrangement {
  const { widthPx, heightPx } = canvas
  const isWide = widthPx >= heightPx
  const length = isWide ? widthPx : heightPx
  const own = Math.round(length * share)
  const at = side === 'left' ? own : length - own
  const part = (from: number, to: number): Rect =>
    isWide ? { x: from, y: 0, width: to - from, height: heightPx } : { x: 0, y: from, width: widthPx, height: to - from }
  const thick = dividerPx(canvas)
  const [mine, other] = side === 'left' ? [part(0, at), part(at, length)] : [part(at, length), part(0, at)]
  return {
    ...NOTHING,
    presenters: isTwo ? [mine, other].slice(0, presenters.length) : presenters.map(() => mine),
    page: isTwo ? null : other,
    divider: part(at - thick / 2, at + thick / 2),
  }
}

/** How thick a divider is: an even number of pixels, so that it lies in the middle of its seam. */
export function dividerPx({ widthPx, heightPx }: Canvas): number {
  return Math.max(2, 2 * Math.round((Math.max(widthPx, heightPx) * DIVIDER_SHARE) / 2))
}

/** Two of one size beside each other, or above each other on a high canvas; the size has the page's proportion. */
function frames(canvas: Canvas, presenters: readonly ShownPresenter[], page: Shown | null, side: PresenterSide): Arrangement {
  const { widthPx, heightPx } = canvas
  const isWide = widthPx >= heightPx
  const margin = marginsOf(canvas)
  const gap = Math.round(Math.min(widthPx, heightPx) * GAP * 2)
  const aspect = page === null ? USUAL_ASPECT : page.widthPx / page.heightPx
  const roomX = isWide ? (widthPx - 2 * margin.x - gap) / 2 : widthPx - 2 * margin.x
  const roomY = isWide ? heightPx - 2 * margin.y : (heightPx - 2 * margin.y - gap) / 2
  const { width, height } = within(aspect, roomX, roomY)
  const total = isWide ? 2 * width + gap : 2 * height + gap
  const place = (isSecond: boolean): Rect => {
    const along = Math.round(((isWide ? widthPx : heightPx) - total) / 2) + (isSecond ? (isWide ? width : height) + gap : 0)
    return isWide ? { x: along, y: Math.round((heightPx - height) / 2), width, height } : { x: Math.round((widthPx - width) / 2), y: along, width, height }
  }
  const mine = place(side === 'right')
  const other = place(side === 'left')
  const shown = page === null ? presenters.slice(0, 2) : presenters.slice(0, 1)
  return {
    ...NOTHING,
    presenters: shown.map((_, index) => (index === 0 ? mine : other)),
    page: page === null ? null : other,
    framesPresenters: true,
    framesPage: true,
  }
}

/** The largest size of a proportion in a space, in whole pixels. */
function within(aspect: number, width: number, height: number): { readonly width: number; readonly height: number } {
  const used = Math.min(width, height * aspect)
  return { width: Math.max(1, Math.floor(used)), height: Math.max(1, Math.floor(used / aspect)) }
}

/** The page beside the head that fills the canvas, on the side away from the presenter's as far as there is room; else wherever there is most. */
function besideHead(canvas: Canvas, presenter: ShownPresenter | undefined, page: Shown, side: PresenterSide): Rect {
  const { widthPx, heightPx } = canvas
  const margin = marginsOf(canvas)
  const apart = margin.y / 2
  const whole = { x: 0, y: 0, width: widthPx, height: heightPx }
  const found = presenter?.head ?? USUAL_HEAD
  const crop = presenter === undefined ? null : cropRound(found, presenter.widthPx, presenter.heightPx, widthPx / heightPx)
  const head = headInBox(found, crop, whole)
  const most = { width: widthPx * SHOULDER, height: heightPx * (heightPx > widthPx ? SHOULDER : 1 - 2 * MARGIN) }
  const aspect = page.widthPx / page.heightPx
  const fromRight = head.x + head.width + apart
  const fromBelow = head.y + head.height + apart
  const right = { x: fromRight, y: margin.y, width: widthPx - margin.x - fromRight, height: heightPx - 2 * margin.y }
  const left = { x: margin.x, y: margin.y, width: head.x - apart - margin.x, height: heightPx - 2 * margin.y }
  const below = { x: margin.x, y: fromBelow, width: widthPx - 2 * margin.x, height: heightPx - margin.y - fromBelow }
  const over = { x: margin.x, y: margin.y, width: widthPx - 2 * margin.x, height: head.y - apart - margin.y }
  const rooms = (side === 'left' ? [right, left, below, over] : [left, right, below, over]).map((room) => {
    const isBeside = room === right || room === left
    const size = within(aspect, Math.min(room.width, isBeside ? most.width : room.width), Math.min(room.height, most.height))
    return { room, size, area: room.width < 1 || room.height < 1 ? 0 : size.width * size.height }
  })
  const largest = Math.max(...rooms.map(({ area }) => area))
  // The wished side has it unless another gives twice as much.
  const { room, size } = rooms.find(({ area }) => area >= largest / 2)!
  const isBeside = room === right || room === left
  const middle = isBeside ? head.y + head.height / 2 : room.y + room.height / 2
  const x = isBeside ? (room === right ? room.x + room.width - size.width : room.x) : (widthPx - size.width) / 2
  const y = Math.min(room.y + room.height - size.height, Math.max(room.y, middle - size.height / 2))
  return { x: Math.round(x), y: Math.round(y), ...size }
}

function corner(canvas: Canvas, side: PresenterSide, isTop: boolean): Rect {
  const { widthPx, heightPx } = canvas
  const size = Math.round(Math.min(widthPx, heightPx) * CORNER)
  const { x, y } = marginsOf(canvas)
  return { x: side === 'left' ? x : widthPx - x - size, y: isTop ? y : heightPx - y - size, width: size, height: size }
}

function marginsOf({ widthPx, heightPx }: Canvas): { readonly x: number; readonly y: number } {
  return { x: Math.round(widthPx * MARGIN), y: Math.round(heightPx * MARGIN) }
}

/** The page along the top, the presenter below it. */
function above({ widthPx, heightPx }: Canvas, presenters: readonly ShownPresenter[], page: Shown | null): Arrangement {
  // The presenter's head wants room: a picture that fills the width shows as much of its height as its box has.
  const needed = Math.max(0, ...presenters.map((shown) => ((shown.head ?? USUAL_HEAD).height * HEAD_ROOM * widthPx * shown.heightPx) / shown.widthPx))
  const most = Math.max(heightPx * LEAST_ABOVE, Math.min(heightPx * ABOVE, heightPx - needed))
  const upper = page === null ? 0 : Math.round(Math.min(most, (widthPx * page.heightPx) / page.widthPx))
  return {
    ...NOTHING,
    presenters: presenters.map(() => ({ x: 0, y: upper, width: widthPx, height: heightPx - upper })),
    page: page && { x: 0, y: 0, width: widthPx, height: upper },
  }
}

/** Places of one size in rows, the last row in the middle: the number of columns that leaves each the most room. */
function table({ widthPx, heightPx }: Canvas, count: number): Rect[] {
  if (count === 0) return []
  if (count === 1) return [{ x: 0, y: 0, width: widthPx, height: heightPx }]
  const gap = Math.max(1, Math.round(Math.min(widthPx, heightPx) * GAP))
  const sizes = Array.from({ length: count }, (_, i) => {
    const columns = i + 1
    const rows = Math.ceil(count / columns)
    const width = Math.floor((widthPx - gap * (columns + 1)) / columns)
    const height = Math.floor((heightPx - gap * (rows + 1)) / rows)
    return { columns, rows, width, height, room: Math.min(width, height * USUAL_ASPECT) }
  })
  const { columns, rows, width, height } = sizes.reduce((best, size) => (size.room > best.room + 0.5 ? size : best))
  const top = Math.round((heightPx - rows * height - (rows - 1) * gap) / 2)
  return Array.from({ length: count }, (_, index) => {
    const row = Math.floor(index / columns)
    const inRow = Math.min(columns, count - row * columns)
    const left = Math.round((widthPx - inRow * width - (inRow - 1) * gap) / 2)
    return { x: left + (index - row * columns) * (width + gap), y: top + row * (height + gap), width, height }
  })
}
