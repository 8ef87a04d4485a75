// How a text fits its box: the box grows with the words, and what stays too small is told.
import { contentOf } from '../../core/layers/content.ts'
import { computed, ref } from 'vue'
import { grownBox } from '../../core/layout/grow-box.ts'
import type { TextLayer } from '../../core/show/show.ts'
import { inStyle } from '../../core/show/style.ts'
import { filledText } from '../../core/text/fields.ts'
import type { TextContent } from '../../core/text/text-content.ts'
import { isTooSmallInTile } from '../../core/text/tile-size.ts'
import { fontStackFor } from '../../core/text/typefaces.ts'
import { layOutText, type TextPen } from '../../engine/text/draw-text.ts'
import { FontBook } from '../../engine/text/font-book.ts'
import { loadFontList } from '../engine/font-list.ts'
import { useShowStore } from '../show/show.store.ts'

let fonts: FontBook | null = null

async function loadFonts(): Promise<FontBook> {
  const files = await loadFontList()
  return (fonts ??= new FontBook(files, document.fonts))
}

const stackOf = (family: string, text: string) => fonts?.stackFor(family, text) ?? fontStackFor(family, text)
let pen: TextPen | null = null

function thePen(): TextPen | null {
  pen ??= typeof OffscreenCanvas === 'undefined' ? null : new OffscreenCanvas(1, 1).getContext('2d')
  return pen
}

const wordsOf = ({ blocks }: TextContent) => blocks.map((block) => block.text).join('')

export function useTextFit(layer: () => TextLayer) {
  const showStore = useShowStore()
  /** The height the box had when this text was opened: it does not shrink below. */
  const leastPx = layer().placement.height
  /** Grows when letters came, since everything is wider or narrower then. */
  const lettersTurn = ref(0)

  /** The layer with its box as high as the words need. */
  function grown(next: TextLayer, text: TextContent): TextLayer {
    const measure = thePen()
    const canvas = showStore.show?.canvas
    if (measure === null || canvas === undefined) return next
    const { width, height } = next.placement
    const { neededHeightPx } = layOutText(measure, filledNow(text), width, height, stackOf)
    const least = Math.min(leastPx, layer().placement.height)
    return { ...next, placement: grownBox(next.placement, neededHeightPx, least, canvas) }
  }

  /** What the text says at present, its fields filled. */
  function filledNow(text: TextContent): TextContent {
    const wall = { epochMs: Date.now(), utcOffsetMin: -new Date().getTimezoneOffset(), locale: 'en-GB' }
    return showStore.show === null ? text : filledText(inStyle(showStore.show.style, text), showStore.show.presenter, wall, 0).content
  }

  /** The text as the show has it now, which the page may not show yet. */
  function newest(): TextContent | null {
    const content = showStore.show === null ? undefined : contentOf(showStore.show, layer().contentId)
    return content !== undefined && 'text' in content ? inStyle(showStore.show!.style, content.text) : null
  }

  /** Runs once letters that are not there yet have come; not at all when all are, or when the words have changed meanwhile. */
  function whenLettersCome(run: () => void): void {
    const now = newest()
    if (now === null) return
    const words = wordsOf(now)
    if (fonts?.isReady(now.family, words) === true) return
    void Promise.allSettled([loadFonts().then((book) => book.load(now.family, words))]).then(([{ status }]) => {
      // Without the list the text keeps the box it has; the next edit tries again.
      if (status === 'rejected') return
      lettersTurn.value += 1
      const later = newest()
      if (later !== null && wordsOf(later) === words) run()
    })
  }

  /** The lines, counted from 1, that nobody can read in a meeting's tile. */
  const tooSmall = computed(() => {
    void lettersTurn.value
    const measure = thePen()
    const canvas = showStore.show?.canvas
    if (measure === null || canvas === undefined) return []
    const text = newest()
    if (text === null) return []
    const { placement } = layer()
    const { scale } = layOutText(measure, filledNow(text), placement.width, placement.height, stackOf)
    return text.blocks.flatMap((block, i) => (block.text.trim() !== '' && isTooSmallInTile(block.sizePx * scale, canvas.widthPx) ? [i + 1] : []))
  })

  return { grown, tooSmall, whenLettersCome }
}
