// What is drawn on pages and over scenes, as pictures that plans refer to. They are painted off the tick; until then what was painted before stands.
import { drawnSize, pageSurface, surfaceOf, type DrawnPart, type Drawings, type SurfaceId } from '../../core/drawing/surface.ts'
import type { DrawnPicture } from '../../core/drawing/strokes-canvas.ts'
import type { Stroke } from '../../core/drawing/stroke.ts'
import { isDeck, pageAt, turned, type DeckInput } from '../../core/inputs/deck.ts'
import { inputIdOf, pageIdOf } from '../../core/layers/index.ts'
import { layersOf } from '../../core/layers/tree.ts'
import type { SourceId } from '../../core/picture/source.ts'
import type { LiveDrawing, LiveStroke } from '../../core/programme/live-drawing.ts'
import type { Show } from '../../core/show/show.ts'
import type { SourceFrame } from '../executor.ts'
import type { StrokesAnswer, StrokesRequest } from '../raster/stroke-painter.ts'

/** A show under its id. */
export type ShowById = readonly [showId: string, show: Show]

/** What is to be seen on a surface. */
interface Wanted {
  readonly showId: string
  readonly surface: SurfaceId
  readonly widthPx: number
  readonly heightPx: number
  /** Drawn as one picture. */
  readonly lasting: readonly Stroke[]
  /** Still being drawn, or to fade: each a picture of its own. */
  readonly alone: readonly LiveStroke[]
}

interface Surface {
  wanted: Wanted
  /** What the painter was asked for last; null: nothing yet. */
  asked: Wanted | null
  isAsking: boolean
  lasting: DrawnPart | null
  alone: ReadonlyMap<string, DrawnPart>
}

export interface DrawingEvents {
  /** Plans have to be made anew. */
  readonly onChange: () => void
  /** Something looks different. */
  readonly onPainted: () => void
}

const LASTING = 'lasting'

export class DrawingBook {
  readonly #paint: (request: StrokesRequest) => void
  readonly #frames: Map<SourceId, SourceFrame>
  readonly #events: DrawingEvents
  readonly #surfaces = new Map<string, Surface>()
  #byShow: ReadonlyMap<string, Drawings> = new Map()
  #versions = 0

  /** Puts pictures into `frames`, where executors look for them. */
  constructor(paint: (request: StrokesRequest) => void, frames: Map<SourceId, SourceFrame>, events: DrawingEvents) {
    this.#paint = paint
    this.#frames = frames
    this.#events = events
  }

  /** What is drawn in a show; undefined where nothing is. */
  of(showId: string): Drawings | undefined {
    return this.#byShow.get(showId)
  }

  /** Brings the pictures in line with what is drawn: live, and kept in the shows, which have their decks turned. */
  follow(drawings: readonly LiveDrawing[], shows: readonly ShowById[]): void {
    const wanted = new Map(wantedOf(drawings, shows).map((one) => [keyOf(one), one]))
    for (const [key, one] of wanted) {
      const known = this.#surfaces.get(key)
      if (known === undefined) this.#surfaces.set(key, { wanted: one, asked: null, isAsking: false, lasting: null, alone: new Map() })
      else known.wanted = one
    }
    for (const [key, surface] of this.#surfaces) {
      if (!wanted.has(key)) surface.wanted = { ...surface.wanted, lasting: [], alone: [] }
      this.#ask(key, surface)
    }
    this.#publish()
  }

  /** Takes over what was painted. */
  receive({ key, lasting, alone }: StrokesAnswer): void {
    const surface = this.#surfaces.get(key)
    if (surface === undefined || surface.asked === null) return
    surface.isAsking = false
    const { asked } = surface
    if (lasting !== undefined) surface.lasting = this.#keep(asked, LASTING, lasting)
    const parts = new Map(surface.alone)
    for (const [id, drawn] of alone) {
      const part = this.#keep(asked, id, drawn)
      if (part === null) parts.delete(id)
      else parts.set(id, part)
    }
    const ids = new Set(asked.alone.map(({ stroke }) => stroke.id))
    for (const [id, part] of parts) {
      if (ids.has(id)) continue
      this.#frames.delete(part.sourceId)
      parts.delete(id)
    }
    surface.alone = parts
    this.#ask(key, surface)
    if (surface.wanted.lasting.length + surface.wanted.alone.length === 0 && !surface.isAsking) this.#surfaces.delete(key)
    this.#publish()
    this.#events.onPainted()
  }

  /** The painter was started again and knows nothing; what it painted before stands until it has done so again. */
  startAgain(): void {
    for (const [key, surface] of this.#surfaces) {
      surface.asked = null
      surface.isAsking = false
      this.#ask(key, surface)
    }
  }

  #ask(key: string, surface: Surface): void {
    const { wanted, asked, isAsking } = surface
    if (isAsking) return
    const isOtherSize = asked?.widthPx !== wanted.widthPx || asked.heightPx !== wanted.heightPx
    const isSameLasting = !isOtherSize && asked !== null && isSameList(asked.lasting, wanted.lasting)
    const known = new Set(asked === null || isOtherSize ? [] : strokesOf(asked))
    // One that was a picture of its own is known, and so is one that becomes it.
    const put = strokesOf(wanted).filter((stroke) => !known.has(stroke))
    const isSameAlone = asked !== null && isSameList(asked.alone.map(idOf), wanted.alone.map(idOf))
    if (isSameLasting && isSameAlone && put.length === 0) return
    if (asked === null && strokesOf(wanted).length === 0) return
    surface.asked = wanted
    surface.isAsking = true
    this.#paint({
      ...{ key, widthPx: wanted.widthPx, heightPx: wanted.heightPx, put },
      lasting: isSameLasting ? null : wanted.lasting.map(({ id }) => id),
      alone: wanted.alone.map(idOf),
    })
  }

  #keep(asked: Wanted, name: string, drawn: DrawnPicture | null): DrawnPart | null {
    const sourceId = `strokes:${keyOf(asked)}:${name}`
    if (drawn === null) {
      this.#frames.delete(sourceId)
      return null
    }
    const { x, y, picture } = drawn
    this.#versions += 1
    this.#frames.set(sourceId, { picture, version: this.#versions, isLive: false })
    return {
      ...{ sourceId, x, y, widthPx: picture.widthPx, heightPx: picture.heightPx },
      ...{ surfaceWidthPx: asked.widthPx, surfaceHeightPx: asked.heightPx, fadesFromMs: null },
    }
  }

  #publish(): void {
    const byShow = new Map<string, Map<SurfaceId, readonly DrawnPart[]>>()
    for (const { wanted, lasting, alone } of this.#surfaces.values()) {
      const fades = new Map(wanted.alone.map(({ stroke, fadesFromMs }) => [stroke.id, fadesFromMs]))
      const parts = [...(lasting === null ? [] : [lasting]), ...[...alone].map(([id, part]) => ({ ...part, fadesFromMs: fades.get(id) ?? null }))]
      if (parts.length === 0) continue
      const surfaces = byShow.get(wanted.showId) ?? new Map<SurfaceId, readonly DrawnPart[]>()
      byShow.set(wanted.showId, surfaces.set(wanted.surface, parts))
    }
    if (isSameBook(byShow, this.#byShow)) return
    this.#byShow = byShow
    this.#events.onChange()
  }
}

const keyOf = ({ showId, surface }: Pick<Wanted, 'showId' | 'surface'>) => `${showId}/${surface}`
const idOf = ({ stroke }: LiveStroke) => stroke.id
const strokesOf = ({ lasting, alone }: Wanted): readonly Stroke[] => [...lasting, ...alone.map(({ stroke }) => stroke)]

function isSameList<T>(one: readonly T[], other: readonly T[]): boolean {
  return one.length === other.length && one.every((part, index) => part === other[index])
}

/** Compared by what they say: pictures that are the same part in the same place need no new plan, whatever is drawn in them. */
function isSameBook(one: ReadonlyMap<string, Drawings>, other: ReadonlyMap<string, Drawings>): boolean {
  const flat = (book: ReadonlyMap<string, Drawings>) => JSON.stringify([...book].map(([showId, surfaces]) => [showId, [...surfaces]]))
  return flat(one) === flat(other)
}

function wantedOf(drawings: readonly LiveDrawing[], shows: readonly ShowById[]): Wanted[] {
  return shows.flatMap(([showId, show]) => {
    const live = new Map(drawings.flatMap((drawing) => (drawing.showId === showId ? [[drawing.surface, drawing.strokes] as const] : [])))
    const kept = keptStrokes(show)
    return [...new Set([...live.keys(), ...kept.keys()])].flatMap((surface) => {
      const size = sizeOf(show, surface)
      if (size === null) return []
      const strokes = live.get(surface) ?? []
      const stays = ({ isOpen, fadesFromMs }: LiveStroke) => !isOpen && fadesFromMs === null
      const lasting = [...(kept.get(surface) ?? []), ...strokes.filter(stays).map(({ stroke }) => stroke)]
      return [{ showId, surface, ...drawnSize(size), lasting, alone: strokes.filter((stroke) => !stays(stroke)) }]
    })
  })
}

/** Size of what is drawn on; null where the show has no such scene or page. */
function sizeOf(show: Show, surface: SurfaceId): { readonly widthPx: number; readonly heightPx: number } | null {
  const what = surfaceOf(surface)
  if (what === null) return null
  if ('sceneId' in what) return show.scenes.some(({ id }) => id === what.sceneId) ? show.canvas : null
  const deck = show.inputs.find(({ id }) => id === what.inputId)
  return deck === undefined || !isDeck(deck) ? null : (deck.pages.find(({ id }) => id === what.pageId) ?? null)
}

/** Drawings that are kept with their pages: of pages that are shown, or may be the next moment. */
function keptStrokes(show: Show): ReadonlyMap<SurfaceId, readonly Stroke[]> {
  const kept = new Map<SurfaceId, readonly Stroke[]>()
  for (const deck of show.inputs.filter(isDeck)) {
    if (deck.pages.every(({ strokes }) => strokes.length === 0)) continue
    for (const page of nearPages(show, deck)) if (page.strokes.length > 0) kept.set(pageSurface(deck.id, page.id), page.strokes)
  }
  return kept
}

function nearPages(show: Show, deck: DeckInput) {
  const stays = show.scenes.flatMap((scene) => layersOf(scene).flatMap((layer) => (inputIdOf(layer) === deck.id ? (pageIdOf(layer) ?? []) : [])))
  const near = [deck, turned(deck, 1), turned(deck, -1)].map(({ pageId }) => pageId)
  return deck.pages.filter(({ id }) => id === pageAt(deck).id || near.includes(id) || stays.includes(id))
}
