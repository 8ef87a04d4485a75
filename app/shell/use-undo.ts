// One step back or forth. What changed in another scene than the one on the stage is said, since the stage goes there.
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { useShowStore } from '../show/show.store.ts'

export function useUndo() {
  const { t } = useI18n()
  const showStore = useShowStore()

  function undo(): void {
    const { undoLabel, undoScene } = showStore
    if (showStore.undo()) say('header.undone', undoLabel, undoScene)
  }

  function redo(): void {
    const { redoLabel, redoScene } = showStore
    if (showStore.redo()) say('header.redone', redoLabel, redoScene)
  }

  function say(words: 'header.undone' | 'header.redone', what: string | null, scene: { readonly name: string } | null): void {
    if (what !== null && scene !== null) toast(t(words, { what: t('edits.inScene', { what, scene: scene.name }) }))
  }

  return { undo, redo }
}
