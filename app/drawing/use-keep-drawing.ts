// Has the show keep what is drawn, and says so.
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { useDrawingStore } from './drawing.store.ts'

export function useKeepDrawing() {
  const { t } = useI18n()
  const drawing = useDrawingStore()
  return {
    keep: (): void => {
      const done = drawing.keep(t('edits.keepDrawing'), t('drawing.layer'))
      if (done === 'kept') toast.success(t('drawing.kept'))
      else if (done === 'full') toast.warning(t('drawing.pageFull'))
    },
  }
}
