// At which page each deck is. That is no part of the document: turning a page is no edit, and works whatever is on air.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { isDeck, pageAt, shownPages, turned, type DeckInput, type DeckPage } from '../../core/inputs/deck.ts'
import { inputIdOf, inputOf, pageIdOf } from '../../core/layers/index.ts'
import { layersOf } from '../../core/layers/tree.ts'
import type { Layer, Scene } from '../../core/show/show.ts'
import { useAirStore } from '../air/air.store.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useShowStore } from '../show/show.store.ts'

const MEMORY_KEY = 'green-room:pages'

/** A deck, and where it is. */
export interface DeckNow {
  readonly deck: DeckInput
  readonly page: DeckPage
  /** The pages that turning stops at, and the place of this one among them, from 0; −1 where it is skipped. */
  readonly shown: readonly DeckPage[]
  readonly index: number
  readonly next: DeckPage | null
}

export const useDecksStore = defineStore('decks', () => {
  const showStore = useShowStore()
  const air = useAirStore()
  const engine = useEngineStore()
  /** Pages by "show input": of this browser tab, also after a reload. */
  const turnedTo = shallowRef(recalled())
  /** When the page of each deck came, by the clock of the day. */
  const sinceMs = ref<Readonly<Record<string, number>>>({})
  /** When each deck was first seen. */
  const beganMs = new Map<string, number>()

  const decks = computed<readonly DeckInput[]>(() =>
    (showStore.show?.inputs ?? []).filter(isDeck).map((deck) => {
      const pageId = turnedTo.value.get(`${showStore.showId} ${deck.id}`)
      return pageId === undefined || !deck.pages.some(({ id }) => id === pageId) ? deck : { ...deck, pageId }
    }),
  )
  /** The deck that keys turn: the one that is selected, else the one on air, else the one on the stage. Null where none is shown. */
  const current = computed<DeckNow | null>(() => {
    const { show, scene, layer } = showStore
    if (show === null) return null
    const selected = inputOf(show, layer ?? undefined)
    const onAir = show.scenes.find(({ id }) => id === air.onAirId)
    const id = selected !== undefined && isDeck(selected) ? selected.id : (deckIdIn(onAir) ?? deckIdIn(scene ?? undefined))
    const deck = decks.value.find((one) => one.id === id)
    return deck === undefined ? null : nowOf(deck)
  })

  /** The deck in front of the others that a scene turns; what stays at a page is not turned. */
  function deckIdIn(scene: Scene | undefined): string | null {
    const shows = (layer: Layer) => layer.visible && pageIdOf(layer) === null && decks.value.some(({ id }) => id === inputIdOf(layer))
    const layer = scene === undefined ? undefined : layersOf(scene).findLast(shows)
    return layer === undefined ? null : inputIdOf(layer)
  }

  /** The layer of the scene on air that shows the deck which keys turn; null where there is none. */
  const layerOnAir = computed<string | null>(() => {
    const scene = showStore.show?.scenes.find(({ id }) => id === air.onAirId)
    const id = current.value?.deck.id
    return scene?.layers.findLast((layer) => layer.visible && inputIdOf(layer) === id)?.id ?? null
  })

  function nowOf(deck: DeckInput): DeckNow {
    const page = pageAt(deck)
    const shown = shownPages(deck)
    const after = turned(deck, 1)
    return { deck, page, shown, index: shown.indexOf(page), next: after === deck ? null : pageAt(after) }
  }

  /** A deck of the open show as it is now. */
  function of(inputId: string): DeckNow | null {
    const deck = decks.value.find(({ id }) => id === inputId)
    return deck === undefined ? null : nowOf(deck)
  }

  /** Turns a deck to a page. */
  function goTo(inputId: string, pageId: string): void {
    const { showId } = showStore
    if (showId === null) return
    const key = `${showId} ${inputId}`
    if (turnedTo.value.get(key) === pageId) return
    turnedTo.value = new Map([...turnedTo.value, [key, pageId]])
    sinceMs.value = { ...sinceMs.value, [key]: Date.now() }
    if (!beganMs.has(key)) beganMs.set(key, Date.now())
    remember(turnedTo.value)
    engine.calls().programme.turnDeck({ showId, inputId, pageId })
  }

  /** Whether a page is asked for by its number. */
  const isAskingPage = ref(false)

  /** Turns the deck that keys turn to the page of a number, counted as they are shown from 1. False where there is none. */
  function goToNumber(number: number): boolean {
    const now = current.value
    const page = now?.shown[number - 1]
    if (now === null || page === undefined) return false
    goTo(now.deck.id, page.id)
    return true
  }

  /** Turns the deck that keys turn by so many pages, back where negative. False where it stays. */
  function turn(by: number): boolean {
    const now = current.value
    if (now === null) return false
    const after = turned(now.deck, by)
    if (after === now.deck) return false
    goTo(now.deck.id, after.pageId)
    return true
  }

  function tellAll(): void {
    for (const [key, pageId] of turnedTo.value) {
      const [showId, inputId] = key.split(' ') as [string, string]
      engine.calls().programme.turnDeck({ showId, inputId, pageId })
    }
  }

  // A page counts from when its deck was first seen, if it was not turned.
  watch(
    () => current.value?.deck.id,
    (id) => {
      const key = `${showStore.showId} ${id}`
      if (id === undefined || sinceMs.value[key] !== undefined) return
      sinceMs.value = { ...sinceMs.value, [key]: Date.now() }
      beganMs.set(key, Date.now())
    },
    { immediate: true },
  )
  engine.listen({ onStarted: tellAll })
  tellAll()

  return {
    decks,
    current,
    layerOnAir,
    of,
    goTo,
    goToNumber,
    isAskingPage,
    turn,
    /** When a deck came to its page, and when it was first seen, by the clock of the day, in ms. */
    timesOf: (inputId: string) => {
      const key = `${showStore.showId} ${inputId}`
      const since = sinceMs.value[key] ?? Date.now()
      return { sinceMs: since, beganMs: beganMs.get(key) ?? since }
    },
  }
})

function recalled(): ReadonlyMap<string, string> {
  try {
    const stored: unknown = JSON.parse(sessionStorage.getItem(MEMORY_KEY) ?? '[]')
    const isPair = (one: unknown): one is [string, string] => Array.isArray(one) && one.length === 2 && one.every((part) => typeof part === 'string')
    return new Map(Array.isArray(stored) ? stored.filter(isPair) : [])
  } catch {
    // What another version left there.
    return new Map()
  }
}

function remember(pages: ReadonlyMap<string, string>): void {
  try {
    sessionStorage.setItem(MEMORY_KEY, JSON.stringify([...pages]))
  } catch {
    // Full: after a reload the decks begin anew.
  }
}
