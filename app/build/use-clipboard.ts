// Copying layers, pasting them, and pasting pictures and words from elsewhere.
import { contentIdOf } from '../../core/layers/index.ts'
import { newTextLayer } from '../../core/layers/text.ts'
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { TIME_TO_ACT_MS } from '../shell/announce.ts'
import { brokenLimit } from '../../core/show/broken-limit.ts'
import { makeOwn, makeSame } from '../../core/show/contents.ts'
import { bringInFrontOf } from '../../core/show/layer-set-edits.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import { copyLayers, pasteLayers, readCopied, type CopiedLayers, type Sharing } from '../../core/show/paste.ts'
import { issueLines, showSchema } from '../../core/show/schema.ts'
import type { Show } from '../../core/show/show.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useAddFiles } from './use-add-files.ts'
import { usePlacing } from './use-placing.ts'
import { useRemoveLayer } from './use-remove-layer.ts'

/** What was copied last in this tab. */
let copied: CopiedLayers | null = null
const hasCopied = ref(false)

export function useClipboard() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const removeLayer = useRemoveLayer()
  const { addFiles } = useAddFiles()
  const { place, intoOpenGroup } = usePlacing()

  /** What the clipboard is to carry of the selected layers; null when nothing is selected. */
  function take(): string | null {
    const { show, sceneId, selectedIds } = showStore
    if (show === null || sceneId === null || selectedIds.length === 0) return null
    copied = copyLayers(show, sceneId, selectedIds)
    hasCopied.value = true
    return JSON.stringify(copied)
  }

  function copy(): void {
    const text = take()
    // A browser that keeps its clipboard to itself leaves us our own.
    if (text !== null) void navigator.clipboard?.writeText(text).catch(() => undefined)
  }

  function cut(): void {
    copy()
    removeLayer(showStore.selectedIds)
  }

  /** Pastes what was copied here last. */
  function paste(sharing: Sharing): void {
    if (copied !== null) pasteCopied(copied, sharing)
  }

  function pasteCopied(what: CopiedLayers, sharing: Sharing): void {
    const { sceneId, show } = showStore
    if (sceneId === null || show === null || showStore.isStopped()) return
    let made: ReturnType<typeof pasteLayers>
    try {
      made = pasteLayers(show, sceneId, what, sharing, makeId)
    } catch (error) {
      return refuse(error instanceof Error ? error.message : String(error))
    }
    const next = intoOpenGroup(made.show, sceneId, made.layerIds)
    // What is only too much is told as for every edit.
    const checked = brokenLimit(show, next) === null ? showSchema.safeParse(next) : { success: true as const, data: next }
    if (!checked.success) return refuse(issueLines(checked.error)[0] ?? '')
    const name = made.layerIds.length === 1 ? (what.layers[0]?.name ?? '') : t('layer.many', made.layerIds.length)
    if (!showStore.edit(t('edits.paste', { name }), () => checked.data)) return
    showStore.selectLayers(made.layerIds)
    tellSharing(made.layerIds, what, sharing, 'pasted')
  }

  /** Copies in front of the selected layers: each its own, or the same thing again. */
  function duplicate(sharing: Sharing): void {
    const { show, sceneId, selectedIds, scene } = showStore
    if (show === null || sceneId === null || scene === null || selectedIds.length === 0 || showStore.isStopped()) return
    const what = copyLayers(show, sceneId, selectedIds)
    const name = what.layers.length === 1 ? what.layers[0]!.name : t('layer.many', what.layers.length)
    let ids: readonly string[] = []
    const isMade = showStore.edit(t(sharing === 'own' ? 'edits.duplicate' : 'edits.again', { name }), (current) => {
      const made = pasteLayers(current, sceneId, what, sharing, makeId)
      ids = made.layerIds
      return bringInFrontOf(made.show, sceneId, ids, selectedIds)
    })
    if (!isMade || ids.length === 0) return
    showStore.selectLayers(ids)
    tellSharing(ids, what, sharing, 'copied')
  }

  /** In words: whether the copy shows the same thing, and how to have it the other way. */
  function tellSharing(ids: readonly string[], what: CopiedLayers, sharing: Sharing, how: 'pasted' | 'copied'): void {
    const shared = what.layers.flatMap((layer, index) => {
      const contentId = contentIdOf(layer)
      return contentId === null ? [] : [{ layerId: ids[index]!, contentId }]
    })
    const { sceneId } = showStore
    if (shared.length === 0 || sceneId === null) return
    toast(t(`layer.${how}${sharing === 'own' ? 'Own' : 'Same'}`), {
      duration: TIME_TO_ACT_MS,
      action: {
        label: t(sharing === 'own' ? 'layer.makeSame' : 'layer.makeOwn'),
        onClick: () => {
          // Copies that have gone meanwhile change nothing.
          showStore.edit(t('edits.sharing'), (show) =>
            shared.reduce<Show>(
              (current, { layerId, contentId }) =>
                sharing === 'own' ? makeSame(current, sceneId, layerId, contentId) : makeOwn(current, sceneId, layerId, makeId),
              show,
            ),
          )
        },
      },
    })
  }

  function refuse(reason: string): void {
    toast.error(t('layer.pasteRefused', { reason }), { duration: 10_000 })
  }

  /** Acts on the browser's own copy, cut and paste, when no field of words has the focus. */
  function onClipboard(event: ClipboardEvent): void {
    const { clipboardData } = event
    if (clipboardData === null || isTyping(event.target) || showStore.scene === null || window.getSelection()?.isCollapsed === false) return
    if (event.type === 'paste') {
      if (pasteFrom(clipboardData)) event.preventDefault()
      return
    }
    const text = take()
    if (text === null) return
    clipboardData.setData('text/plain', text)
    event.preventDefault()
    if (event.type === 'cut') removeLayer(showStore.selectedIds)
  }

  function pasteFrom(data: DataTransfer): boolean {
    const files = [...data.files]
    const text = data.getData('text/plain')
    if (files.length > 0) void addFiles(files)
    else if (text.trim() === '') return false
    else {
      const layers = readCopied(text)
      if (layers !== null) pasteCopied(layers, 'own')
      else pasteWords(text)
    }
    return true
  }

  function pasteWords(words: string): void {
    const { layer, contents } = newTextLayer(t('build.textName'), words.trim().slice(0, LIMITS.textLength), showStore.show!.canvas, makeId)
    place(layer, null, contents)
  }

  return { copy, cut, paste, duplicate, hasCopied, onClipboard }
}

function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || target.closest('input, textarea, select') !== null)
}
