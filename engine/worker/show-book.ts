// The shows that the page has handed over, and of what is on air the newest state that still has it.
import type { Drawings } from '../../core/drawing/surface.ts'
import { DocumentReceiver, type DocumentChange } from '../../core/patch/document-sync.ts'
import { scenesNeeded, type Programme, type SceneRef, type TurnedDeck } from '../../core/programme/programme.ts'
import type { FoundScene } from '../../core/programme/programme-stage.ts'
import { turnedShow } from '../../core/programme/turned-show.ts'
import { withHeld } from '../../core/show/with-held-show.ts'
import { focusedScene, type Focus } from '../../core/layout/focus.ts'
import type { Scene, Show } from '../../core/show/show.ts'

const keyOf = ({ showId, sceneId }: SceneRef) => `${showId} ${sceneId}`

export class ShowBook {
  readonly #documents = new Map<string, DocumentReceiver<Show>>()
  readonly #shows = new Map<string, Show>()
  /** The last show that had a scene of the programme; a scene that is deleted, or whose show is closed, stays on air. */
  readonly #kept = new Map<string, Show>()
  #holdsEdits = false
  #decks: readonly TurnedDeck[] = []
  /** Shows with their decks turned as `#decks` says, so that what did not change stays the same object. */
  #turned = new WeakMap<Show, Show>()
  /** Scenes with something of them brought near, kept for the same reason. */
  readonly #focused = new WeakMap<Focus, { readonly scene: Scene; readonly inputs: Show['inputs']; readonly focused: Scene }>()
  #openId: string | null = null
  readonly #drawingsOf: (showId: string) => Drawings | undefined
  #version = {}

  /** `drawingsOf` tells what is drawn in a show. */
  constructor(drawingsOf: (showId: string) => Drawings | undefined = () => undefined) {
    this.#drawingsOf = drawingsOf
  }

  /** Takes over a show, or an edit of one. Throws a RangeError for an edit that does not fit. */
  take(showId: string, change: DocumentChange<Show>): void {
    const document = this.#documents.get(showId) ?? new DocumentReceiver<Show>()
    this.#documents.set(showId, document)
    this.#shows.set(showId, document.take(change))
    this.#version = {}
  }

  /** Forgets a show; what is on air of it stays. */
  drop(showId: string): void {
    this.#documents.delete(showId)
    this.#shows.delete(showId)
    if (this.#openId === showId) this.#openId = null
    this.#version = {}
  }

  set openId(showId: string | null) {
    this.#openId = showId
    this.#version = {}
  }

  /** The show that is open; null while there is none. */
  get open(): Show | null {
    return this.#openId === null ? null : this.#turnedOf(this.#openId, this.#shows.get(this.#openId) ?? null)
  }

  /** Another object after every change. */
  get version(): object {
    return this.#version
  }

  /** Whether a scene is one of the open show as it is now. */
  isOpen({ showId, sceneId }: SceneRef): boolean {
    return showId === this.#openId && this.open?.scenes.some(({ id }) => id === sceneId) === true
  }

  /** Keeps what the programme needs, and nothing else; to be called after every change of either. */
  follow(programme: Programme): void {
    const needed = scenesNeeded(programme)
    const isHolding = this.#holdsEdits && programme.holdsEdits
    for (const ref of needed) {
      const show = this.#shows.get(ref.showId)
      const isThere = show?.scenes.some(({ id }) => id === ref.sceneId) === true
      // While edits are held, what comes on air is kept as it is then.
      if (isThere && !(isHolding && this.#kept.has(keyOf(ref)))) this.#kept.set(keyOf(ref), show)
    }
    const keys = new Set(needed.map(keyOf))
    for (const key of this.#kept.keys()) if (!keys.has(key)) this.#kept.delete(key)
    if (programme.holdsEdits !== this.#holdsEdits || programme.decks !== this.#decks) this.#version = {}
    if (programme.decks !== this.#decks) this.#turned = new WeakMap()
    this.#decks = programme.decks
    this.#holdsEdits = programme.holdsEdits
  }

  /** A scene as it is shown: of what is on air, the state that is kept; of others, as it is now. */
  readonly find = (ref: SceneRef): FoundScene | null => {
    const show = this.#turnedOf(ref.showId, this.#kept.get(keyOf(ref)) ?? this.#shows.get(ref.showId) ?? null)
    const scene = show?.scenes.find(({ id }) => id === ref.sceneId)
    if (show === null || scene === undefined) return null
    const drawings = this.#drawingsOf(ref.showId)
    const found = { show, scene: ref.focus === undefined ? scene : this.#focusedOf(show, scene, ref.focus) }
    return drawings === undefined ? found : { ...found, drawings }
  }

  #focusedOf(show: Show, scene: Scene, focus: Focus): Scene {
    const known = this.#focused.get(focus)
    if (known?.scene === scene && known.inputs === show.inputs) return known.focused
    const focused = focusedScene(show, scene, focus)
    this.#focused.set(focus, { scene, inputs: show.inputs, focused })
    return focused
  }

  #turnedOf(showId: string, show: Show | null): Show | null {
    if (show === null) return null
    const known = this.#turned.get(show)
    if (known !== undefined) return known
    const turned = turnedShow(show, showId, this.#decks)
    this.#turned.set(show, turned)
    return turned
  }

  /** What is drawn in the open show. */
  readonly openDrawings = (): Drawings | undefined => (this.#openId === null ? undefined : this.#drawingsOf(this.#openId))

  /** Shows by their ids as they are shown: those on air, which may lack or have what they do not any more, and the open one last. */
  get all(): readonly (readonly [showId: string, show: Show])[] {
    const kept = [...this.#kept].map(([key, show]): readonly [string, Show] => [key.split(' ', 1)[0]!, show])
    const open = this.#openId === null ? undefined : this.#shows.get(this.#openId)
    const found = new Map([...kept, ...(open === undefined ? [] : [[this.#openId!, open] as const])].map(([showId, show]) => [show, showId]))
    return [...found].map(([show, showId]) => [showId, this.#turnedOf(showId, show)!])
  }

  /** The open show with everything that the programme needs of others. Null without an open show. */
  get together(): Show | null {
    const { open } = this
    if (open === null) return null
    const others = new Set([...this.#kept].map(([key, show]) => this.#turnedOf(key.split(' ', 1)[0]!, show)!).filter((show) => show !== open))
    return [...others].reduce<Show>((show, held) => withHeld(show, held), open)
  }
}
