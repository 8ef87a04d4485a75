// Where a box that is moved or sized comes to rest: on edges, centres and thirds of the canvas, on its safe areas, on other boxes, or
// where gaps between boxes are equal. Everything in canvas pixels; boxes are upright.
import type { Canvas } from './arrange/layouts.ts'
import type { Rect } from '../box/fit.ts'
import { safeArea } from './safe-area.ts'

export type Axis = 'x' | 'y'

/** Why a line is one that boxes come to rest on. Earlier ones win where two are equally near. */
export const snapReasons = ['canvasEdge', 'canvasCentre', 'box', 'third', 'safe'] as const
export type SnapReason = (typeof snapReasons)[number]

/** A line to show: at `at` along its axis, across the other one from `from` to `to`. */
export interface SnapLine {
  readonly kind: 'line'
  readonly axis: Axis
  readonly at: number
  readonly from: number
  readonly to: number
  readonly reason: SnapReason
}

/** A gap to show: along its axis from `from` to `to`, at `at` across. */
export interface SnapGap {
  readonly kind: 'gap'
  readonly axis: Axis
  readonly from: number
  readonly to: number
  readonly at: number
}

export type SnapGuide = SnapLine | SnapGap

export interface Snapped {
  /** What is to be added to the box's position. */
  readonly dx: number
  readonly dy: number
  readonly guides: readonly SnapGuide[]
}

/** A span along an axis and what it covers across. */
interface Span {
  readonly from: number
  readonly to: number
  readonly acrossFrom: number
  readonly acrossTo: number
}

interface Target {
  readonly at: number
  readonly reason: SnapReason
  readonly acrossFrom: number
  readonly acrossTo: number
}

const AXES: readonly Axis[] = ['x', 'y']

/** Where a moved box comes to rest: its edges or its centre on a line, or its gaps equal to others; each axis for itself, at most `reach` away. */
export function snapMove(box: Rect, others: readonly Rect[], canvas: Canvas, reach: number): Snapped {
  const guides: SnapGuide[] = []
  const by = AXES.map((axis) => {
    const span = spanOf(box, axis)
    const spans = others.map((other) => spanOf(other, axis))
    const line = nearestLine([span.from, (span.from + span.to) / 2, span.to], targetsOf(axis, spans, canvas), reach)
    const gap = nearestGap(span, spans, reach)
    if (line !== null && (gap === null || Math.abs(line.delta) <= Math.abs(gap.delta))) {
      guides.push(...line.lines.map((target) => lineOf(axis, target, span)))
      return line.delta
    }
    if (gap === null) return 0
    guides.push(...gap.gaps.map(({ from, to }) => ({ kind: 'gap' as const, axis, from, to, at: middleAcross(span, spans) })))
    return gap.delta
  })
  return { dx: by[0]!, dy: by[1]!, guides }
}

/** Where edges that are dragged come to rest: `edges` names those of the box that move, -1 the first of an axis, 1 the last, 0 none. */
export function snapEdges(
  box: Rect,
  edges: { readonly x: -1 | 0 | 1; readonly y: -1 | 0 | 1 },
  others: readonly Rect[],
  canvas: Canvas,
  reach: number,
): Snapped {
  const guides: SnapGuide[] = []
  const by = AXES.map((axis) => {
    if (edges[axis] === 0) return 0
    const span = spanOf(box, axis)
    const spans = others.map((other) => spanOf(other, axis))
    const line = nearestLine([edges[axis] < 0 ? span.from : span.to], targetsOf(axis, spans, canvas), reach)
    if (line === null) return 0
    guides.push(...line.lines.map((target) => lineOf(axis, target, span)))
    return line.delta
  })
  return { dx: by[0]!, dy: by[1]!, guides }
}

function spanOf({ x, y, width, height }: Rect, axis: Axis): Span {
  return axis === 'x' ? { from: x, to: x + width, acrossFrom: y, acrossTo: y + height } : { from: y, to: y + height, acrossFrom: x, acrossTo: x + width }
}

/** The lines of an axis that boxes come to rest on. */
function targetsOf(axis: Axis, spans: readonly Span[], { widthPx, heightPx }: Canvas): Target[] {
  const [length, across] = axis === 'x' ? [widthPx, heightPx] : [heightPx, widthPx]
  const whole = (at: number, reason: SnapReason): Target => ({ at, reason, acrossFrom: 0, acrossTo: across })
  const safe = (['title', 'action'] as const).flatMap((kind) => {
    const area = spanOf(safeArea(kind, widthPx, heightPx), axis)
    return [whole(area.from, 'safe'), whole(area.to, 'safe')]
  })
  return [
    whole(0, 'canvasEdge'),
    whole(length, 'canvasEdge'),
    whole(length / 2, 'canvasCentre'),
    ...spans.flatMap(({ from, to, acrossFrom, acrossTo }) => [from, (from + to) / 2, to].map((at): Target => ({ at, reason: 'box', acrossFrom, acrossTo }))),
    whole(length / 3, 'third'),
    whole((2 * length) / 3, 'third'),
    ...safe,
  ]
}

/** The smallest step that brings one of some places onto a target, and every target that one then lies on. */
function nearestLine(
  places: readonly number[],
  targets: readonly Target[],
  reach: number,
): { readonly delta: number; readonly lines: readonly Target[] } | null {
  let best: { readonly delta: number; readonly rank: number } | null = null
  for (const target of targets) {
    for (const place of places) {
      const delta = target.at - place
      if (Math.abs(delta) > reach) continue
      const rank = snapReasons.indexOf(target.reason)
      if (best === null || Math.abs(delta) < Math.abs(best.delta) - 1e-9 || (Math.abs(Math.abs(delta) - Math.abs(best.delta)) <= 1e-9 && rank < best.rank))
        best = { delta, rank }
    }
  }
  if (best === null) return null
  const { delta } = best
  return { delta, lines: targets.filter((target) => places.some((place) => Math.abs(place + delta - target.at) < 1e-6)) }
}

function lineOf(axis: Axis, target: Target, span: Span): SnapLine {
  return {
    kind: 'line',
    axis,
    at: target.at,
    from: Math.min(target.acrossFrom, span.acrossFrom),
    to: Math.max(target.acrossTo, span.acrossTo),
    reason: target.reason,
  }
}

/**
 * The smallest step after which the gap to a neighbour equals another gap: the one to the neighbour on the other side, or one between two
 * boxes side by side. Only boxes that face each other count.
 */
function nearestGap(
  span: Span,
  spans: readonly Span[],
  reach: number,
): { readonly delta: number; readonly gaps: readonly { readonly from: number; readonly to: number }[] } | null {
  const facing = spans.filter((other) => other.acrossFrom < span.acrossTo && other.acrossTo > span.acrossFrom)
  const before = nearest(facing.filter(({ to }) => to <= span.from + reach))
  const after = facing
    .filter(({ from }) => from >= span.to - reach)
    .reduce<Span | null>((found, other) => (found === null || other.from < found.from ? other : found), null)
  const length = span.to - span.from
  const tries: { readonly delta: number; readonly gaps: readonly { readonly from: number; readonly to: number }[] }[] = []
  if (before !== null && after !== null && after.from - before.to >= length) {
    const gap = (after.from - before.to - length) / 2
    tries.push({
      delta: before.to + gap - span.from,
      gaps: [
        { from: before.to, to: before.to + gap },
        { from: after.from - gap, to: after.from },
      ],
    })
  }
  for (const { from, to } of gapsBetween(facing)) {
    const gap = to - from
    if (before !== null)
      tries.push({
        delta: before.to + gap - span.from,
        gaps: [
          { from, to },
          { from: before.to, to: before.to + gap },
        ],
      })
    if (after !== null)
      tries.push({
        delta: after.from - gap - span.to,
        gaps: [
          { from, to },
          { from: after.from - gap, to: after.from },
        ],
      })
  }
  return tries.reduce<(typeof tries)[number] | null>(
    (best, one) => (Math.abs(one.delta) <= reach && (best === null || Math.abs(one.delta) < Math.abs(best.delta) - 1e-9) ? one : best),
    null,
  )
}

function nearest(spans: readonly Span[]): Span | null {
  return spans.reduce<Span | null>((found, span) => (found === null || span.to > found.to ? span : found), null)
}

/** Gaps between boxes and the next one after each, where there is one. */
function gapsBetween(spans: readonly Span[]): { readonly from: number; readonly to: number }[] {
  return spans.flatMap((span) => {
    const next = spans
      .filter((other) => other !== span && other.from >= span.to && other.acrossFrom < span.acrossTo && other.acrossTo > span.acrossFrom)
      .reduce<Span | null>((found, other) => (found === null || other.from < found.from ? other : found), null)
    return next === null || next.from <= span.to ? [] : [{ from: span.to, to: next.from }]
  })
}

/** Where gaps are drawn: in the middle of what the boxes have in common, or of the box itself. */
function middleAcross(span: Span, spans: readonly Span[]): number {
  const facing = spans.filter((other) => other.acrossFrom < span.acrossTo && other.acrossTo > span.acrossFrom)
  const from = Math.max(span.acrossFrom, ...facing.map(({ acrossFrom }) => acrossFrom))
  const to = Math.min(span.acrossTo, ...facing.map(({ acrossTo }) => acrossTo))
  return from < to ? (from + to) / 2 : (span.acrossFrom + span.acrossTo) / 2
}
