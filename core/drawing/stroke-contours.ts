// The outline of a stroke, at the size of the picture that it is drawn for.
import { getStroke } from 'perfect-freehand'
import type { Contour } from '../outline/read-outline.ts'
import { strokedContours } from '../outline/stroked-contours.ts'
import { PER_POINT, pointCount, type Stroke } from './stroke.ts'

/** A marker is that much wider than a pen. */
const MARKER_TIMES = 4
const CIRCLE_CORNERS = 72
/** Of an arrow's head, in widths of its line. */
const HEAD_LENGTH = 5
const HEAD_WIDTH = 4

type Point = readonly [x: number, y: number]

/** Contours in pixels of a surface of `widthPx` × `heightPx`; what is inside by the non-zero rule is drawn. Not clipped to the surface. */
export function strokeContours(stroke: Stroke, widthPx: number, heightPx: number): readonly Contour[] {
  const linePx = stroke.width * heightPx
  const at = (index: number): Point => [stroke.points[index * PER_POINT]! * widthPx, stroke.points[index * PER_POINT + 1]! * heightPx]
  const [from, to] = [at(0), at(pointCount(stroke) - 1)]
  switch (stroke.tool) {
    case 'pen':
    case 'marker':
      return [handContour(stroke, linePx, at)]
    case 'line':
      return lineContours(from, to, linePx)
    case 'arrow':
      return arrowContours(from, to, linePx)
    case 'rectangle':
      return strokedContours([closed([from, [to[0], from[1]], to, [from[0], to[1]]])], linePx / 2)
    case 'ellipse':
      return strokedContours([closed(ellipsePoints(from, to))], linePx / 2)
  }
}

/** A line that follows the hand, wider where it is pressed; without a pressure that varies, wider where it is slow. */
function handContour(stroke: Stroke, linePx: number, at: (index: number) => Point): Contour {
  const count = pointCount(stroke)
  const pressures = Array.from({ length: count }, (_, index) => stroke.points[index * PER_POINT + 2]!)
  const isMarker = stroke.tool === 'marker'
  const outline = getStroke(
    pressures.map((pressure, index): [number, number, number] => [...at(index), pressure]),
    {
      size: isMarker ? linePx * MARKER_TIMES : linePx,
      thinning: isMarker ? 0 : 0.5,
      smoothing: 0.5,
      streamline: 0.35,
      simulatePressure: !isMarker && pressures.every((pressure) => pressure === pressures[0]),
      last: true,
    },
  )
  return closed(outline)
}

function lineContours(from: Point, to: Point, linePx: number): Contour[] {
  return [...strokedContours([open([from, to])], linePx / 2), circle(from, linePx / 2), circle(to, linePx / 2)]
}

function arrowContours(from: Point, to: Point, linePx: number): Contour[] {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1])
  if (length === 0) return [circle(from, linePx / 2)]
  const [dx, dy] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length]
  const head = Math.min(length, HEAD_LENGTH * linePx)
  const half = ((HEAD_WIDTH / 2) * linePx * head) / (HEAD_LENGTH * linePx)
  const neck: Point = [to[0] - dx * head, to[1] - dy * head]
  // Drawn as the boxes of a stroke are, all one way round.
  const tip = strokedWay([to, [neck[0] - dy * half, neck[1] + dx * half], [neck[0] + dy * half, neck[1] - dx * half]])
  const shaft: Point = [to[0] - dx * head * 0.9, to[1] - dy * head * 0.9]
  return [...strokedContours([open([from, shaft])], linePx / 2), circle(from, linePx / 2), tip]
}

function ellipsePoints(from: Point, to: Point): Point[] {
  const [x, y, across, down] = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2, (to[0] - from[0]) / 2, (to[1] - from[1]) / 2]
  return Array.from({ length: CIRCLE_CORNERS * 2 }, (_, i): Point => {
    const turn = (i * Math.PI) / CIRCLE_CORNERS
    return [x + across * Math.cos(turn), y + down * Math.sin(turn)]
  })
}

function circle([x, y]: Point, radiusPx: number): Contour {
  const corner = (i: number): Point => [
    x + radiusPx * Math.cos((i * 2 * Math.PI) / CIRCLE_CORNERS),
    y + radiusPx * Math.sin((i * 2 * Math.PI) / CIRCLE_CORNERS),
  ]
  return strokedWay(Array.from({ length: CIRCLE_CORNERS }, (_, i) => corner(i)))
}

/** The way round that the pieces of a stroke have, so that what overlaps adds up. */
function strokedWay(points: readonly Point[]): Contour {
  const area = points.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = points[(i + 1) % points.length]!
    return sum + x * nextY - nextX * y
  }, 0)
  return closed(area >= 0 ? points : points.toReversed())
}

const open = (points: readonly Point[]): Contour => ({ points: Float64Array.from(points.flat()), isClosed: false })
const closed = (points: readonly (Point | number[])[]): Contour => ({ points: Float64Array.from(points.flat()), isClosed: true })
