// The pictures on the page: which of them are drawn when, and which show what is on air.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Show } from '../../core/show/show.ts'
import type { ViewRequest } from '../protocol.ts'

/** Small views are drawn this often, one in a tick. */
const SMALL_EVERY_MS = 500
/** At first nothing is shown until the stage is whole, so that no half-made picture is seen; after this long, what there is. */
const PATIENCE_MS = 4000
/** While the feed runs it comes first. */
const SMALL_EVERY_MS_ON_AIR = 1000

/** What views must know of the air. */
export interface AirState {
  readonly isFeedOpen: boolean
  readonly showsCard: boolean
  /** The scene of the open show that the audience sees by itself; null while it sees another show, a transition, or a graphic. */
  readonly sceneId: string | null
}

/** What a view does; `View` is one. */
export interface DrawnView {
  request: ViewRequest
  lastDrawnMs: number
  readonly isSmall: boolean
  invalidate(): void
  /** Shows what the audience gets. */
  showAir(picture: RgbaPicture): void
  /** Says whether everything it needs had a picture; with `onlyWhole` it shows nothing otherwise. */
  draw(show: Show, nowMs: number, onlyWhole: boolean): boolean
  dispose(): void
}

export class Views {
  readonly #views = new Map<string, DrawnView>()
  readonly #onFirstPicture: () => void
  #hasShownPicture = false
  #firstDrawMs: number | null = null

  /** `onFirstPicture`: told once, when something other than the card is seen whole and large, or has been waited for long enough. */
  constructor(onFirstPicture: () => void) {
    this.#onFirstPicture = onFirstPicture
  }

  open(viewId: string, view: DrawnView): void {
    this.#views.set(viewId, view)
  }

  change(viewId: string, request: ViewRequest): void {
    const view = this.#views.get(viewId)
    if (view === undefined) return
    view.request = request
    view.lastDrawnMs = -Infinity
    view.invalidate()
  }

  close(viewId: string): void {
    this.#views.get(viewId)?.dispose()
    this.#views.delete(viewId)
  }

  /** The show or a source changed: plans are stale. */
  invalidate(): void {
    for (const view of this.#views.values()) view.invalidate()
  }

  /** Whether some view asks for what is on air. */
  wantsAir(air: AirState): boolean {
    for (const { request } of this.#views.values()) if (request.kind === 'air' || isOfAirScene(request, air)) return true
    return false
  }

  /** Shows the picture that the audience gets where it is asked for. */
  showAir(picture: RgbaPicture, air: AirState, nowMs: number): void {
    for (const view of this.#views.values()) {
      if (!isAirView(view, air)) continue
      view.showAir(picture)
      view.lastDrawnMs = nowMs
      if (!air.showsCard) this.#noteFirstPicture()
    }
  }

  /** Draws the others: large ones each time, small ones by turns while there is time for them. */
  draw(show: Show, air: AirState, nowMs: number, hasTimeForSmall = true): void {
    let hasDrawnSmall = false
    this.#firstDrawMs ??= nowMs
    const isPatient = !this.#hasShownPicture && nowMs - this.#firstDrawMs < PATIENCE_MS
    const smallEveryMs = air.isFeedOpen ? SMALL_EVERY_MS_ON_AIR : SMALL_EVERY_MS
    for (const view of this.#views.values()) {
      if (isAirView(view, air)) continue
      if (view.isSmall) {
        if (!hasTimeForSmall || hasDrawnSmall || nowMs - view.lastDrawnMs < smallEveryMs) continue
        hasDrawnSmall = true
      }
      const isWhole = view.draw(show, nowMs, isPatient)
      view.lastDrawnMs = nowMs
      if ((isWhole || !isPatient) && !view.isSmall) this.#noteFirstPicture()
    }
    if (hasDrawnSmall) this.#rotate()
  }

  /** Lets the view that waited longest be drawn first. */
  #rotate(): void {
    for (const [viewId, view] of this.#views) {
      if (!view.isSmall) continue
      this.#views.delete(viewId)
      this.#views.set(viewId, view)
      return
    }
  }

  #noteFirstPicture(): void {
    if (this.#hasShownPicture) return
    this.#hasShownPicture = true
    this.#onFirstPicture()
  }
}

function isAirView({ request }: DrawnView, air: AirState): boolean {
  return request.kind === 'air' || (isOfAirScene(request, air) && !air.showsCard)
}

/** Whether it asks at full size for what is on air; an open copy of a held show is something else, and so is a scene that plays how it comes in. */
function isOfAirScene(request: ViewRequest, { sceneId }: AirState): boolean {
  return request.kind === 'scene' && !request.isSmall && request.cue === undefined && request.sceneId === sceneId
}
