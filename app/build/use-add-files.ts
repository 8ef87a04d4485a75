// Pictures and clips from files: chosen, dropped or pasted. One after the other; a refused one says why and the rest go on.
import { useI18n } from 'vue-i18n'
import { errorWords } from '../show/error-words.ts'
import { decimals } from '../base/decimals.ts'
import { toast } from 'vue-sonner'
import { MOST_BYTES } from '../../core/schema/limits.ts'
import type { Input } from '../../core/show/show.ts'
import { useDeckImportStore } from '../decks/deck-import.store.ts'
import { areSlides } from '../decks/deck-source.ts'
import { api } from '../show/api.ts'
import { checkClipFile } from './check-clip-file.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { usePlacing } from './use-placing.ts'

const MIB = 1024 * 1024
/** Less of a clip is not worth adding. */
const LEAST_PART_US = 100_000

export const FILE_KINDS = 'image/png,image/apng,image/jpeg,image/webp,image/avif,image/gif,image/svg+xml,video/mp4,video/webm'

export function useAddFiles() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const deckImport = useDeckImportStore()
  const { placeInput, placePicture } = usePlacing()

  /** Uploads files and puts each into the scene; `onPlaced` hears of each layer. Who cancels one cancels those behind it too. */
  async function addFiles(files: readonly File[], onPlaced: (layerId: string | null) => void = () => undefined): Promise<void> {
    if (areSlides(files)) return deckImport.open(files)
    const { showId, sceneId, scene } = showStore
    if (sceneId === null || scene === null || showStore.isStopped()) return
    const cancelling = new AbortController()
    /** Each is told of by its name: nothing is left out in silence. */
    const hasGone = ({ name }: File): boolean => {
      if (showStore.showId === showId && showStore.show?.scenes.some(({ id }) => id === sceneId) === true) return false
      toast.error(t('build.sceneGone', { name, scene: scene.name }), { duration: 10_000 })
      return true
    }
    for (const file of files) {
      if (isTooLarge(file) || hasGone(file)) continue
      const before = showStore.layerId
      const progress = toast.loading(t('build.uploading', { name: file.name }), progressOf('build.sent', 0, cancelling))
      const shareOf = (words: 'build.checked' | 'build.sent') => {
        let percent = 0
        return (share: number) => {
          // In steps, since each is read aloud.
          const now = Math.floor(share * 10) * 10
          if (now === percent) return
          percent = now
          toast.loading(t('build.uploading', { name: file.name }), { id: progress, ...progressOf(words, now, cancelling) })
        }
      }
      try {
        const check = await checkClipFile(file, cancelling.signal, shareOf('build.checked'))
        const isDamaged = check !== null && check.fault !== null
        if (isDamaged) toast.dismiss(progress)
        if (isDamaged && !(await wantsGoodPart(file, check.goodUs))) continue
        const asset = await api.addAsset(file, { onShare: shareOf('build.sent'), signal: cancelling.signal })
        // What was begun for a scene comes into that scene, whatever is on the stage now.
        if (hasGone(file)) continue
        const name = file.name.replace(/\.\w+$/, '').slice(0, 80) || file.name.slice(0, 80)
        const base = { id: makeId(), name, asset: asset.hash, treatment: [] }
        const input: Input = asset.isMoving
          ? { ...base, kind: 'clip', fromMs: 0, toMs: isDamaged ? Math.floor(check.goodUs / 1000) : null, rate: 1, loops: true, moving: null }
          : { ...base, kind: 'picture' }
        const selected = showStore.selectedIds
        const isBusyElsewhere = showStore.layerId !== before
        const isElsewhere = showStore.sceneId !== sceneId
        // Small pictures are marks; small clips are clips.
        const layerId = asset.isMoving ? placeInput(input, true, sceneId) : placePicture(input, asset, sceneId)
        if (isElsewhere && layerId !== null) toast.success(t('build.addedTo', { name, scene: scene.name }))
        else if (!isElsewhere) onPlaced(layerId)
        // Who went on to something else meanwhile goes on with it.
        if (isBusyElsewhere && !isElsewhere) showStore.selectLayers(selected)
      } catch (error) {
        if (cancelling.signal.aborted) return
        toast.error(errorWords(error), { duration: 10_000 })
      } finally {
        toast.dismiss(progress)
      }
    }
  }

  /** Whether the server would refuse it for its size; then it is told without sending it. */
  function isTooLarge({ name, size, type }: File): boolean {
    const most = type.startsWith('image/') ? MOST_BYTES.picture : MOST_BYTES.clip
    if (size <= most) return false
    toast.error(t('build.tooLarge', { name, size: Math.ceil(size / MIB), most: most / MIB }), { duration: 10_000 })
    return true
  }

  /** Whether the part of a damaged clip before the fault is wanted; the rest cannot be played. */
  function wantsGoodPart({ name }: File, goodUs: number): Promise<boolean> {
    const at = decimals(goodUs / 1e6, 1)
    if (goodUs < LEAST_PART_US) {
      toast.error(t('build.damagedWhole', { name }), { duration: 10_000 })
      return Promise.resolve(false)
    }
    return new Promise((resolve) => {
      toast.warning(t('build.damaged', { name, at }), {
        duration: Infinity,
        action: { label: t('build.addGoodPart', { at }), onClick: () => resolve(true) },
        cancel: { label: t('build.leaveOut'), onClick: () => resolve(false) },
        onDismiss: () => resolve(false),
      })
    })
  }

  function progressOf(words: 'build.checked' | 'build.sent', percent: number, cancelling: AbortController) {
    return {
      description: percent < 100 ? t(words, { percent }) : t('build.looking'),
      action: { label: t('build.cancelAdding'), onClick: () => cancelling.abort() },
    }
  }

  /** Opens the browser's chooser of files. */
  function chooseFiles(onPlaced?: (layerId: string | null) => void): void {
    const field = document.createElement('input')
    field.type = 'file'
    field.accept = FILE_KINDS
    field.multiple = true
    field.onchange = () => void addFiles([...(field.files ?? [])], onPlaced)
    field.click()
  }

  return { addFiles, chooseFiles }
}
