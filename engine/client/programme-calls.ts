// Shows and what is on air, told to the engine: documents as patches, takes and the card as messages.
import { DocumentSender } from '../../core/patch/document-sync.ts'
import type { DrawingMessage } from '../../core/programme/live-drawing.ts'
import { isSameRef, isSameScene, type ScenePointer, type SceneRef, type TurnedDeck } from '../../core/programme/programme.ts'
import type { Show } from '../../core/show/show.ts'
import { transitionTo } from '../../core/show/show-transitions.ts'
import { usualTransitions, type Transition } from '../../core/transitions/index.ts'
import type { EngineLink } from './engine-link.ts'

/** A show under its id. */
export interface KnownShow {
  readonly showId: string
  readonly show: Show
}

export interface StudioShows {
  readonly open: KnownShow
  /** What is on air instead of the open show; null when that is on air, or nothing. */
  readonly held: KnownShow | null
  readonly onAir: SceneRef | null
  /** Whether an audience sees it; what nobody sees is cut to. */
  readonly isSent: boolean
}

/** How long something takes to come near, or to go back. */
const FOCUS_MS = 350

export class ProgrammeCalls {
  readonly #link: EngineLink
  readonly #documents = new Map<string, DocumentSender<Show>>()
  #openId: string | null = null
  #onAir: SceneRef | null = null
  #wasSent = false
  #graphics: ReadonlyMap<string, SceneRef> = new Map()

  constructor(link: EngineLink) {
    this.#link = link
  }

  /**
   * Gives the open show, and what is on air: a scene of it, or of `held`, which is another show or an earlier state of this one that still has the
   * scene.
   */
  follow({ open, held, onAir, isSent }: StudioShows): void {
    const transition = this.#wasSent && isSent ? this.#transitionTo(onAir, [open, held]) : usualTransitions.cut
    this.#wasSent = isSent
    const isNewOnAir = !isSameRef(onAir, this.#onAir)
    const isEarlierState = held?.showId === open.showId
    // The worker keeps what is on air by itself; an earlier state of the open show it needs only to begin with.
    if (held !== null && (!isEarlierState || isNewOnAir)) this.#send(held)
    if (isEarlierState) this.#take(onAir, transition)
    this.#send(open)
    if (open.showId !== this.#openId) this.#link.post({ type: 'openShow', showId: open.showId })
    this.#openId = open.showId
    this.#take(onAir, transition)
    for (const showId of this.#documents.keys()) {
      if (showId === open.showId || showId === held?.showId) continue
      this.#documents.delete(showId)
      this.#link.post({ type: 'dropDocument', showId })
    }
  }

  /** Sends the holding card in place of what is on air, or no longer. */
  setCard(isShown: boolean): void {
    this.#link.post({ type: 'programme', message: { type: 'card', isShown } })
  }

  /** Lays graphics over whatever is on air, each by its id; those that are not named any more leave by their exits. */
  setGraphics(graphics: ReadonlyMap<string, SceneRef>): void {
    for (const id of this.#graphics.keys()) if (!graphics.has(id)) this.#link.post({ type: 'programme', message: { type: 'hideGraphic', id } })
    for (const [id, scene] of graphics) {
      if (!isSameRef(this.#graphics.get(id) ?? null, scene)) this.#link.post({ type: 'programme', message: { type: 'showGraphic', id, scene } })
    }
    this.#graphics = new Map(graphics)
  }

  /** Turns a deck to a page, on air or not. */
  turnDeck(deck: TurnedDeck): void {
    this.#link.post({ type: 'programme', message: { type: 'turnDeck', ...deck } })
  }

  /** Changes what is drawn on a page or over a scene, on air or not. */
  draw(message: DrawingMessage): void {
    this.#link.post({ type: 'programme', message })
  }

  /** Points at a spot of a scene for the audience; null: no longer. */
  point(pointer: ScenePointer | null): void {
    this.#link.post({ type: 'programme', message: { type: 'point', pointer } })
  }

  #send({ showId, show }: KnownShow): void {
    const sender = this.#documents.get(showId) ?? new DocumentSender<Show>()
    this.#documents.set(showId, sender)
    const change = sender.changeTo(show)
    if (change.type === 'whole' || change.patch.length > 0) this.#link.post({ type: 'document', showId, change })
  }

  #take(onAir: SceneRef | null, transition: Transition): void {
    if (onAir === null || isSameRef(onAir, this.#onAir)) return
    this.#onAir = onAir
    this.#link.post({ type: 'programme', message: { type: 'take', scene: onAir, transition } })
  }

  /** How the show has a scene follow the one before it, which may be of another show. */
  #transitionTo(onAir: SceneRef | null, shows: readonly (KnownShow | null)[]): Transition {
    const known = shows.find((one) => one !== null && one.showId === onAir?.showId)
    if (known == null || onAir === null) return usualTransitions.cut
    if (isSameScene(onAir, this.#onAir)) return { ...usualTransitions.glide, durationMs: FOCUS_MS }
    const fromId = this.#onAir?.showId === onAir.showId ? this.#onAir.sceneId : null
    return transitionTo(known.show, fromId, onAir.sceneId)
  }
}
