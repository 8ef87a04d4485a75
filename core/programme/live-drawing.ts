// What is drawn on air, or on the way there: strokes by surface, as live as a page that is turned. The document has none of it until it is kept.
import { FADE_MS, type SurfaceId } from '../drawing/surface.ts'
import type { Stroke } from '../drawing/stroke.ts'

export interface LiveStroke {
  readonly stroke: Stroke
  /** Whether the hand is still at it. */
  readonly isOpen: boolean
  /** When it begins to fade, on the clock of the programme; null: it stays. */
  readonly fadesFromMs: number | null
}

/** The strokes on one surface, from the lowest to the topmost. Never empty. */
export interface LiveDrawing {
  readonly showId: string
  readonly surface: SurfaceId
  readonly strokes: readonly LiveStroke[]
}

/** A stroke, and how long it stays once it is drawn; null: until it is erased. */
export interface NewStroke {
  readonly stroke: Stroke
  readonly staysMs: number | null
}

interface OnSurface {
  readonly showId: string
  readonly surface: SurfaceId
}

export type DrawingMessage =
  /** Adds a stroke, or draws on at one that is there. */
  | ({ readonly type: 'drawStroke'; readonly isOpen: boolean } & OnSurface & NewStroke)
  | ({ readonly type: 'eraseStrokes'; readonly ids: readonly string[] } & OnSurface)
  /** All of a surface: after a step back, and where an engine was started again. A stroke that is there already goes on fading. */
  | ({ readonly type: 'setStrokes'; readonly strokes: readonly NewStroke[] } & OnSurface)

/** The drawings after a message at `nowMs`; the same list where nothing changes. */
export function drawingsAfter(drawings: readonly LiveDrawing[], message: DrawingMessage, nowMs: number): readonly LiveDrawing[] {
  const before = drawings.find(({ showId, surface }) => showId === message.showId && surface === message.surface)?.strokes ?? []
  const after = strokesAfter(before, message, nowMs)
  return after === before ? drawings : withStrokes(drawings, message, after)
}

/** The drawings without strokes that have faded; the same list where none has. */
export function unfadedDrawings(drawings: readonly LiveDrawing[], nowMs: number): readonly LiveDrawing[] {
  const isSeen = ({ fadesFromMs }: LiveStroke) => fadesFromMs === null || nowMs < fadesFromMs + FADE_MS
  if (drawings.every(({ strokes }) => strokes.every(isSeen))) return drawings
  return drawings.flatMap((drawing) => {
    const strokes = drawing.strokes.filter(isSeen)
    return strokes.length === 0 ? [] : [strokes.length === drawing.strokes.length ? drawing : { ...drawing, strokes }]
  })
}

function strokesAfter(before: readonly LiveStroke[], message: DrawingMessage, nowMs: number): readonly LiveStroke[] {
  switch (message.type) {
    case 'drawStroke': {
      const { stroke, isOpen, staysMs } = message
      const drawn: LiveStroke = { stroke, isOpen, fadesFromMs: isOpen || staysMs === null ? null : nowMs + staysMs }
      const index = before.findIndex((one) => one.stroke.id === stroke.id)
      return index < 0 ? [...before, drawn] : before.with(index, drawn)
    }
    case 'eraseStrokes': {
      const after = before.filter(({ stroke }) => !message.ids.includes(stroke.id))
      return after.length === before.length ? before : after
    }
    case 'setStrokes': {
      const known = new Map(before.map((one) => [one.stroke.id, one]))
      return message.strokes.map(({ stroke, staysMs }) => {
        const there = known.get(stroke.id)
        return there !== undefined && !there.isOpen ? there : { stroke, isOpen: false, fadesFromMs: staysMs === null ? null : nowMs + staysMs }
      })
    }
  }
}

function withStrokes(drawings: readonly LiveDrawing[], { showId, surface }: OnSurface, strokes: readonly LiveStroke[]): readonly LiveDrawing[] {
  const others = drawings.filter((drawing) => drawing.showId !== showId || drawing.surface !== surface)
  return strokes.length === 0 ? others : [...others, { showId, surface, strokes }]
}
