// A white board: blank sheets as large as the canvas, ready to be drawn on.
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { newBoard } from '../../core/inputs/deck.ts'
import { usePlacing } from '../build/use-placing.ts'
import { useDrawingStore } from '../drawing/drawing.store.ts'
import { api } from '../show/api.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'

/** Sheets to begin with. */
const SHEETS = 3
const PAPER = '#ffffff'

export function useAddBoard() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const drawing = useDrawingStore()
  const { placeInput } = usePlacing()

  async function addBoard(): Promise<void> {
    const { show, showId } = showStore
    if (show === null) return
    const { widthPx, heightPx } = show.canvas
    try {
      const { hash } = await api.addAsset(new File([await blankSheet(widthPx, heightPx)], 'white-board.png', { type: 'image/png' }))
      // Another show was opened meanwhile.
      if (showStore.showId !== showId) return
      if (placeInput(newBoard(t('decks.addBoard'), { asset: hash, widthPx, heightPx }, SHEETS, makeId), true) !== null) drawing.isOn = true
    } catch {
      toast.error(t('decks.boardFailed'))
    }
  }

  return { addBoard }
}

async function blankSheet(widthPx: number, heightPx: number): Promise<Blob> {
  const canvas = new OffscreenCanvas(widthPx, heightPx)
  const pen = canvas.getContext('2d')!
  pen.fillStyle = PAPER
  pen.fillRect(0, 0, widthPx, heightPx)
  return canvas.convertToBlob({ type: 'image/png' })
}
