// Slides on their way into the show: opened, drawn page by page, chosen from, and kept when the presenter says so. Until then nothing is stored.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { LIMITS } from '../../core/schema/limits.ts'
import { matchPages, type MatchedPages, type NewPage } from '../../core/decks/match-pages.ts'
import type { DeckInput } from '../../core/inputs/deck.ts'
import { api, type KeptPage } from '../show/api.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { DeckError, openDeck, type DeckSource, type PageBox } from './deck-source.ts'
import { PageEncoder, type EncodedPage } from './page-encoder.ts'

export type ImportPhase = 'closed' | 'opening' | 'converting' | 'password' | 'choosing' | 'drawing' | 'ready' | 'adding' | 'failed'

/** A page of the file that is being imported. */
export interface ImportPage {
  readonly number: number
  readonly title: string
  /** A small picture of it, once it is drawn. */
  readonly thumbUrl: string | null
  /** Why it cannot be drawn; the others go on. */
  readonly fault: string | null
}

interface ReadyPage extends NewPage {
  readonly file: Blob
}

/** Drawn at least as large as this, so that a page can be looked at closely. */
const LEAST_BOX: PageBox = { widthPx: 1920, heightPx: 1080 }
/** Pages that are made files while the next one is drawn. */
const ENCODED_AHEAD = 2

export const useDeckImportStore = defineStore('deckImport', () => {
  const showStore = useShowStore()
  const phase = ref<ImportPhase>('closed')
  const name = ref('')
  const fileName = ref('')
  const failure = shallowRef<DeckError | null>(null)
  const pages = shallowRef<readonly ImportPage[]>([])
  const pageCount = ref(0)
  /** Numbers of pages that turning is to pass over. */
  const skipped = shallowRef<ReadonlySet<number>>(new Set())
  const missingFonts = shallowRef<readonly string[]>([])
  /** Share of what is under way that is done, and how long the rest will take at this pace; null: not known. */
  const share = ref(0)
  const leftMs = ref<number | null>(null)
  /** The deck whose file is imported again; null for a new deck. */
  const replaced = shallowRef<DeckInput | null>(null)
  const ready = shallowRef<ReadonlyMap<number, ReadyPage>>(new Map())
  let files: readonly File[] = []
  let source: DeckSource | null = null
  let giving = new AbortController()

  const isOpen = computed(() => phase.value !== 'closed')
  const done = computed(() => pages.value.filter(({ thumbUrl, fault }) => thumbUrl !== null || fault !== null).length)
  /** What importing again would change; null until all pages are there. */
  const matched = computed<MatchedPages | null>(() => {
    if (replaced.value === null || phase.value !== 'ready') return null
    return matchPages(replaced.value.pages, newPages(), makeId)
  })

  function newPages(): readonly NewPage[] {
    return [...ready.value.values()].map(({ file: _file, ...page }) => page)
  }

  /** Opens slides to choose from; with `deck`, as its file anew. */
  async function open(chosen: readonly File[], deck: DeckInput | null = null, password: string | null = null): Promise<void> {
    close()
    files = chosen
    replaced.value = deck
    phase.value = 'opening'
    fileName.value = (chosen.length === 1 ? chosen[0]!.name : '').slice(0, LIMITS.nameLength)
    const mine = (giving = new AbortController())
    try {
      const opened = await openDeck(chosen, password, mine.signal, () => {
        if (!mine.signal.aborted) phase.value = 'converting'
      })
      if (mine.signal.aborted) return opened.close()
      source = opened
      name.value = deck?.name ?? opened.name
      if (fileName.value === '') fileName.value = opened.name
      pageCount.value = opened.pageCount
      if (opened.pageCount > LIMITS.deckPages) phase.value = 'choosing'
      else await draw(Array.from({ length: opened.pageCount }, (_, index) => index + 1))
    } catch (error) {
      if (mine.signal.aborted) return
      fail(error)
    }
  }

  function fail(error: unknown): void {
    failure.value = error instanceof DeckError ? error : new DeckError('damaged', error)
    phase.value = ['password', 'wrongPassword'].includes(failure.value.reason) ? 'password' : 'failed'
  }

  /** The same files, with their password. */
  const unlock = (password: string): Promise<void> => open(files, replaced.value, password)

  /** Draws pages of the file that is open, by their numbers. */
  async function draw(numbers: readonly number[]): Promise<void> {
    const opened = source
    const show = showStore.show
    if (opened === null || show === null) return
    const { signal } = giving
    phase.value = 'drawing'
    pages.value = numbers.map((number) => ({ number, title: '', thumbUrl: null, fault: null }))
    const box = { widthPx: Math.max(LEAST_BOX.widthPx, show.canvas.widthPx), heightPx: Math.max(LEAST_BOX.heightPx, show.canvas.heightPx) }
    const encoder = new PageEncoder()
    const startedMs = performance.now()
    const encoding = new Set<Promise<void>>()
    signal.addEventListener('abort', () => encoder.close())
    for (const number of numbers) {
      await untilIdle()
      if (signal.aborted) return
      try {
        const { picture, title } = await opened.draw(number, box)
        const one = encoder.encode(picture).then(
          (page) => keep(number, title, page, opened.notesOf(number)),
          (error: unknown) => note(number, { fault: error instanceof Error ? error.message : String(error) }),
        )
        const tracked: Promise<void> = one.then(() => void encoding.delete(tracked))
        encoding.add(tracked)
        if (encoding.size >= ENCODED_AHEAD) await Promise.race(encoding)
      } catch (error) {
        if (signal.aborted) return
        note(number, { fault: error instanceof Error ? error.message : String(error) })
      }
      share.value = done.value / numbers.length
      leftMs.value = done.value === 0 ? null : ((performance.now() - startedMs) / done.value) * (numbers.length - done.value)
    }
    await Promise.all(encoding)
    encoder.close()
    if (signal.aborted) return
    missingFonts.value = opened.missingFonts()
    opened.close()
    source = null
    if (ready.value.size === 0) return fail(new DeckError('damaged'))
    ready.value = new Map([...ready.value].toSorted(([one], [other]) => one - other))
    phase.value = 'ready'
  }

  async function keep(number: number, title: string, { file, thumb, widthPx, heightPx }: EncodedPage, notes: string): Promise<void> {
    const { signal } = giving
    const asset = await sha256(file)
    if (signal.aborted) return
    const page = { asset, widthPx, heightPx, number, title: title.slice(0, LIMITS.nameLength), notes: notes.slice(0, LIMITS.notesLength), file }
    ready.value = new Map([...ready.value, [number, page]])
    note(number, { title, thumbUrl: URL.createObjectURL(thumb) })
  }

  /** Of a page; those of an import that was given up are not there any more. */
  function note(number: number, part: Partial<ImportPage>): void {
    pages.value = pages.value.map((page) => (page.number === number ? { ...page, ...part } : page))
  }

  /** Has turning pass over a page, or no longer. */
  function toggle(number: number): void {
    const next = new Set(skipped.value)
    if (!next.delete(number)) next.add(number)
    skipped.value = next
  }

  /** Keeps the pictures of all pages; null when that was given up or failed, which throws. */
  async function keepPages(): Promise<readonly NewPage[] | null> {
    const { signal } = giving
    const list = [...ready.value.values()]
    phase.value = 'adding'
    share.value = 0
    leftMs.value = null
    try {
      const kept = await api.addPages(
        name.value,
        list.map(({ file }) => file),
        { signal, onShare: (part) => (share.value = part) },
      )
      return signal.aborted ? null : list.map(({ file: _file, ...page }, index) => withKept(page, kept[index]!))
    } catch (error) {
      if (signal.aborted) return null
      phase.value = 'ready'
      throw error
    }
  }

  /** Ends it; what was not added is forgotten. */
  function close(): void {
    giving.abort()
    source?.close()
    source = null
    for (const { thumbUrl } of pages.value) if (thumbUrl !== null) URL.revokeObjectURL(thumbUrl)
    pages.value = []
    ready.value = new Map()
    skipped.value = new Set()
    missingFonts.value = []
    failure.value = null
    replaced.value = null
    share.value = 0
    leftMs.value = null
    phase.value = 'closed'
  }

  return {
    phase,
    isOpen,
    name,
    fileName,
    failure,
    pages,
    pageCount,
    done,
    skipped,
    missingFonts,
    share,
    leftMs,
    replaced,
    matched,
    open,
    unlock,
    draw,
    toggle,
    keepPages,
    close,
  }
})

const withKept = (page: NewPage, { hash, widthPx, heightPx }: KeptPage): NewPage => ({ ...page, asset: hash, widthPx, heightPx })

/** The presenter's own work comes first; in a hidden tab nobody waits for the screen. */
function untilIdle(): Promise<void> {
  // Its timers are slowed down, messages are not.
  if (document.hidden) return untilMessage()
  return new Promise((resolve) => requestIdleCallback(() => resolve(), { timeout: 60 }))
}

function untilMessage(): Promise<void> {
  const { port1, port2 } = new MessageChannel()
  return new Promise((resolve) => {
    port1.onmessage = () => {
      port1.close()
      resolve()
    }
    port2.postMessage(null)
  })
}

async function sha256(file: Blob): Promise<string> {
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', await file.arrayBuffer()))
  return [...digest].map((byte) => byte.toString(16).padStart(2, '0')).join('')
}
