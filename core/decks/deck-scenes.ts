// The usual ways to show slides, each as a scene of its own.
import { backgroundOf } from '../backgrounds/set-background.ts'
import type { DeckInput } from '../inputs/deck.ts'
import { inputKindOf } from '../inputs/index.ts'
import type { Input } from '../inputs/input.ts'
import { newInputLayer } from '../layers/input.ts'
import { wholeCanvas } from '../layers/layer.ts'
import { arrangeScene, type PictureFacts } from '../layout/arrange/arrange-scene.ts'
import type { LayoutName } from '../layout/arrange/layouts.ts'
import type { MakeId } from '../random/make-id.ts'
import { copyLayer, newScene } from '../show/create.ts'
import { addInput, addLayer, addScene } from '../show/edits.ts'
import type { Layer, Show } from '../show/show.ts'

/** How a scene shows slides: beside the presenter in one way or another, or alone. */
export const deckStyles = ['shoulder', 'third', 'inside', 'cornerBottom', 'whole'] as const
export type DeckStyle = (typeof deckStyles)[number]

/** Where something of what lies behind the page and the presenter is seen. */
const SEES_BACKDROP: readonly DeckStyle[] = ['shoulder', 'third']

export interface DeckSceneWords {
  /** The name of a scene, by its style. */
  readonly scene: (style: DeckStyle) => string
  readonly divider: string
  readonly ink: string
}

/** The input who presents: the first camera; null without one. */
export function presenterOf({ inputs }: Pick<Show, 'inputs'>): Input | null {
  return inputs.find((input) => inputKindOf(input).subject === 'person') ?? null
}

/** The show with a deck, if it is new, and a scene for each style, after the scene at `index`. Styles with a presenter take the first camera. */
export function addDeckScenes(
  show: Show,
  deck: DeckInput,
  styles: readonly DeckStyle[],
  index: number,
  facts: PictureFacts,
  words: DeckSceneWords,
  makeId: MakeId,
): Show {
  const withDeck = show.inputs.some(({ id }) => id === deck.id) ? show : addInput(show, deck)
  return styles.reduce((now, style, offset) => addDeckScene(now, deck, style, index + 1 + offset, facts, words, makeId), withDeck)
}

function addDeckScene(
  show: Show,
  deck: DeckInput,
  style: DeckStyle,
  index: number,
  { infos, heads }: PictureFacts,
  words: DeckSceneWords,
  makeId: MakeId,
): Show {
  const scene = newScene(words.scene(style), makeId)
  const page = newInputLayer(deck, show.canvas, makeId)
  const presenter = presenterOf(show)
  const withScene = addScene(show, scene, index)
  if (style === 'whole' || presenter === null) return addLayer(withScene, scene.id, { ...page, placement: wholeCanvas(show.canvas, 'fit') })
  const camera = newInputLayer(presenter, show.canvas, makeId)
  const backdrop = SEES_BACKDROP.includes(style) ? backdropNear(show, index - 1) : null
  const layers = [...(backdrop === null ? [] : [copyLayer(backdrop, makeId)]), page, camera]
  const filled = layers.reduce((now, layer) => addLayer(now, scene.id, layer), withScene)
  const { widthPx, heightPx } = deck.pages.find(({ id }) => id === deck.pageId) ?? deck.pages[0]!
  // Its picture has not come yet, but its size is known.
  const known = new Map([...infos, [inputKindOf(deck).sourceId(deck), { widthPx, heightPx, isOpaque: true }] as const])
  const layout = { name: style satisfies LayoutName, side: 'right' as const }
  const cast = { presenters: [camera.id], page: page.id }
  return arrangeScene(filled, scene.id, layout, cast, { infos: known, heads }, { divider: words.divider, ink: words.ink }, makeId)
}

/** The background of the scene at an index, or else of the first scene that has one. */
function backdropNear(show: Show, index: number): Layer | null {
  const scenes = [...show.scenes.slice(index, index + 1), ...show.scenes].filter(({ graphic }) => graphic === null)
  return scenes.map((scene) => backgroundOf(show, scene)).find((layer) => layer !== null) ?? null
}
