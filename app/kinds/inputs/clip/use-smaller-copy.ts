// A copy of a heavy clip that takes less of the machine, made in the browser, in place of the clip.
import { isClip } from '../../../../core/inputs/clip.ts'
import { updateInputOf } from '../../../../core/show/edits.ts'
import { computed, onScopeDispose, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { errorWords } from '../../../show/error-words.ts'
import { toast } from 'vue-sonner'
import type { ClipInput } from '../../../../core/show/show.ts'
import type { FromSmallerCopy } from '../../../../engine/clip/smaller-copy.worker.ts'
import { isFailure } from '../../../../engine/live/live-state.ts'
import { useInputsStore } from '../../../inputs/inputs.store.ts'
import { api } from '../../../show/api.ts'
import { useShowStore } from '../../../show/show.store.ts'

/** Pictures with more than this cost the processor two to five times as much (measured). */
const MOST_PIXELS = 1920 * 1080

export function useSmallerCopy(inputNow: () => ClipInput) {
  const { t } = useI18n()
  const inputs = useInputsStore()
  const showStore = useShowStore()
  const progress = ref<number | null>(null)
  let worker: Worker | null = null

  const isHeavy = computed(() => {
    const { widthPx = 0, heightPx = 0, skipped = 0 } = inputs.clipReports[inputNow().id] ?? {}
    return !isFailure(inputs.statusOf(inputNow().id)) && heightPx > 720 && (widthPx * heightPx > MOST_PIXELS || skipped > 30)
  })

  function make(): void {
    const { id, asset, name } = inputNow()
    progress.value = 0
    worker = new Worker(new URL('../../../../engine/clip/smaller-copy.worker.ts', import.meta.url), { type: 'module', name: 'smaller copy' })
    worker.onmessage = ({ data }: MessageEvent<FromSmallerCopy>) => {
      if (data.type === 'progress') progress.value = data.share
      else if (data.type === 'failed') fail(data.reason)
      else void put(id, asset, name, data.bytes)
    }
    worker.onerror = (event) => fail(event.message)
    worker.postMessage({ url: new URL(`/api/assets/${asset}`, location.href).href })
  }

  async function put(inputId: string, before: string, name: string, bytes: ArrayBuffer): Promise<void> {
    try {
      const { hash } = await api.addAsset(new File([bytes], `${name}.mp4`, { type: 'video/mp4' }))
      showStore.edit(t('edits.clip', { name }), (show) =>
        updateInputOf(show, inputId, isClip, (input) => (input.asset === before ? { ...input, asset: hash } : input)),
      )
      cancel()
    } catch (error) {
      fail(errorWords(error))
    }
  }

  function fail(reason: string): void {
    cancel()
    toast.error(t('clips.copyFailed', { reason }), { duration: 10_000 })
  }

  function cancel(): void {
    worker?.terminate()
    worker = null
    progress.value = null
  }

  onScopeDispose(cancel)

  return { isHeavy, progress, make, cancel }
}
