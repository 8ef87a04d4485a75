// A hand on the stage: where it goes down, moves and lifts, in pixels of the canvas, becomes a stroke, or rubs some out.
import { computed, shallowRef } from 'vue'
import { surfaceAt, type SurfaceAt } from '../../core/annotations/surface-at.ts'
import { isStrokeNear } from '../../core/drawing/stroke-near.ts'
import { isForm, storedPoint, type Stroke, type StrokeTool } from '../../core/drawing/stroke.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import { makeId } from '../show/make-id.ts'
import type { PointerKind } from '../../core/stage/pointer.ts'
import { useDrawingStore, type DrawingTool } from './drawing.store.ts'

export interface PenPoint {
  readonly x: number
  readonly y: number
  /** 0..1 */
  readonly pressure: number
}

/** How far an eraser reaches, as a share of the canvas's height. */
const ERASER_REACH = 0.015
/** Lines keep to eighths of a turn with the modifier. */
const EIGHTH = Math.PI / 4

interface Hand {
  readonly showId: string
  readonly at: SurfaceAt
  readonly id: string
  readonly points: PenPoint[]
}

/** `onFull` is told when a surface holds no more. */
export function usePen(onFull: () => void) {
  const drawing = useDrawingStore()
  const hand = shallowRef<Hand | null>(null)
  const stroke = shallowRef<Stroke | null>(null)
  /** The same in shares of the canvas, to be drawn at once. */
  const preview = shallowRef<Stroke | null>(null)

  function down(point: PenPoint): void {
    const { showId, turnedShow, seenScene, tool } = drawing
    if (showId === null || turnedShow === null || seenScene === null || isPointer(tool)) return
    hand.value = { showId, at: surfaceAt(turnedShow, seenScene, point.x, point.y), id: makeId(), points: [] }
    if (tool === 'eraser') rub(point)
    else move([point], false)
  }

  /** `isStraight`: lines keep to eighths of a turn, forms to equal sides, and a pen draws a line. */
  function move(points: readonly PenPoint[], isStraight: boolean): void {
    const now = hand.value
    if (now === null) return
    if (drawing.tool === 'eraser') return points.forEach(rub)
    const { tool } = drawing
    if (isPointer(tool)) return
    for (const point of points) if (now.points.length < LIMITS.strokePoints) now.points.push(point)
    const first = now.points[0]!
    const last = points.at(-1) ?? first
    const isTwo = isForm(tool) || isStraight
    const drawn = isTwo ? [first, isStraight ? straightened(tool, first, last) : last] : now.points
    const canvas = drawing.turnedShow!.canvas
    const made = (toShare: (point: PenPoint) => readonly [number, number], width: number): Stroke => ({
      id: now.id,
      tool,
      colour: drawing.colour,
      width,
      points: drawn.flatMap((point) => storedPoint(...toShare(point), isTwo ? 0.5 : point.pressure)),
    })
    // A line is as wide on the canvas, whatever it is drawn on.
    stroke.value = made(({ x, y }) => now.at.toSurface(x, y), Math.min(0.2, Math.max(0.001, (drawing.lineWidth * canvas.heightPx) / now.at.heightPx)))
    preview.value = made(({ x, y }) => [x / canvas.widthPx, y / canvas.heightPx], drawing.lineWidth)
    drawing.follow(now.at.surface, stroke.value)
  }

  function up(): void {
    const [now, drawn] = [hand.value, stroke.value]
    release()
    if (now === null || drawn === null) return
    // A form needs two corners that differ; and the show it belongs to may have been closed.
    const [x0, y0, , x1, y1] = drawn.points
    const isLost = now.showId !== drawing.showId || (isForm(drawn.tool) && x0 === x1 && y0 === y1)
    if (isLost) return drawing.drop(now.at.surface, [drawn.id], now.showId)
    if (!drawing.add(now.at.surface, drawn)) onFull()
  }

  function cancel(): void {
    const now = hand.value
    release()
    if (now !== null) drawing.drop(now.at.surface, [now.id], now.showId)
  }

  function release(): void {
    hand.value = null
    stroke.value = null
    preview.value = null
  }

  /** Rubs out the strokes that are touched, of everything that the stage shows. */
  function rub({ x, y }: PenPoint): void {
    const { turnedShow, seenScene } = drawing
    if (turnedShow === null || seenScene === null) return
    const { canvas } = turnedShow
    const scene = { surface: drawing.surfaces[0]!, toSurface: (atX: number, atY: number) => [atX / canvas.widthPx, atY / canvas.heightPx] as const }
    const under = surfaceAt(turnedShow, seenScene, x, y)
    for (const { surface, toSurface } of under.surface === scene.surface ? [under] : [under, scene]) {
      const [u, v] = toSurface(x, y)
      const [besideU] = toSurface(x + canvas.heightPx, y)
      const [, belowV] = toSurface(x, y + canvas.heightPx)
      const touched = drawing
        .on(surface)
        .filter((one) => isStrokeNear(one.stroke, u, v, ERASER_REACH * Math.abs(belowV - v), Math.abs((belowV - v) / (besideU - u))))
      drawing.erase(
        surface,
        touched.map((one) => one.stroke.id),
      )
    }
  }

  return { down, move, up, cancel, preview, isDown: computed(() => hand.value !== null) }
}

const isPointer = (tool: DrawingTool): tool is PointerKind => tool === 'dot' || tool === 'spotlight'

function straightened(tool: StrokeTool, from: PenPoint, to: PenPoint): PenPoint {
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  if (tool === 'rectangle' || tool === 'ellipse') {
    const side = Math.max(Math.abs(dx), Math.abs(dy))
    return { ...to, x: from.x + Math.sign(dx || 1) * side, y: from.y + Math.sign(dy || 1) * side }
  }
  const turn = Math.round(Math.atan2(dy, dx) / EIGHTH) * EIGHTH
  const length = Math.hypot(dx, dy)
  return { ...to, x: from.x + Math.cos(turn) * length, y: from.y + Math.sin(turn) * length }
}
