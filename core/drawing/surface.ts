// What is drawn on: a page of a deck, so that strokes turn with it, or the canvas of a scene.
import type { SourceId } from '../picture/source.ts'

/** "scene:ID" or "page:DECK:PAGE", within its show. */
export type SurfaceId = string

export function sceneSurface(sceneId: string): SurfaceId {
  return `scene:${sceneId}`
}

export function pageSurface(inputId: string, pageId: string): SurfaceId {
  return `page:${inputId}:${pageId}`
}

/** What a surface is; null for an id that names none. */
export function surfaceOf(id: SurfaceId): { readonly sceneId: string } | { readonly inputId: string; readonly pageId: string } | null {
  const [, sceneId] = /^scene:([^:]+)$/.exec(id) ?? []
  if (sceneId !== undefined) return { sceneId }
  const [, inputId, pageId] = /^page:([^:]+):([^:]+)$/.exec(id) ?? []
  return inputId === undefined || pageId === undefined ? null : { inputId, pageId }
}

/** A surface is drawn no finer than this, whatever its page has. */
const MOST_SIDE_PX = 1920

/** Size of the picture that strokes on a surface are drawn as, in pixels. */
export function drawnSize({ widthPx, heightPx }: { readonly widthPx: number; readonly heightPx: number }): {
  readonly widthPx: number
  readonly heightPx: number
} {
  const share = Math.min(1, MOST_SIDE_PX / Math.max(widthPx, heightPx))
  return { widthPx: Math.max(1, Math.round(widthPx * share)), heightPx: Math.max(1, Math.round(heightPx * share)) }
}

/** How long a stroke takes to fade. */
export const FADE_MS = 700

/** Opacity (0..1) of a stroke that begins to fade at `fadesFromMs`; null: it stays. */
export function fadedOpacity(fadesFromMs: number | null, timeMs: number): number {
  return fadesFromMs === null ? 1 : Math.min(1, Math.max(0, 1 - (timeMs - fadesFromMs) / FADE_MS))
}

/** A picture of some strokes of a surface. */
export interface DrawnPart {
  readonly sourceId: SourceId
  /** Of the part, in pixels. */
  readonly widthPx: number
  readonly heightPx: number
  /** Where it lies on the surface, and the size of that. */
  readonly x: number
  readonly y: number
  readonly surfaceWidthPx: number
  readonly surfaceHeightPx: number
  /** When it begins to fade, on the clock of the programme; null: it stays. */
  readonly fadesFromMs: number | null
}

/** What is drawn on the surfaces of a show, from the lowest part to the topmost. Another object after every change. */
export type Drawings = ReadonlyMap<SurfaceId, readonly DrawnPart[]>
