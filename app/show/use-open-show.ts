import { onBeforeUnmount, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import { toast } from 'vue-sonner'
import { rememberShow } from '../router.ts'
import { ApiError } from './api.ts'
import { errorWords } from './error-words.ts'
import { useShowStore, type ShowNotice } from './show.store.ts'

const RETRY_MS = 1500

/** Opens the show of a route and keeps trying while the server cannot be reached. */
export function useOpenShow(showId: () => string): void {
  const { t } = useI18n()
  const router = useRouter()
  const showStore = useShowStore()
  let timer: number | null = null

  async function open(id: string): Promise<void> {
    if (showStore.showId === id) return
    try {
      await showStore.open(id, (name) => t('shows.unsavedCopy', { name }))
      rememberShow(id)
    } catch (error) {
      if (error instanceof ApiError && error.status < 500) {
        toast.error(error.code === 'show-not-found' ? t('shows.notFound') : errorWords(error), { duration: 10_000 })
        await router.replace({ name: 'shows' })
      } else {
        timer = window.setTimeout(() => void open(id), RETRY_MS)
      }
    }
  }

  watch(showId, (id) => void open(id), { immediate: true })
  watch(
    () => showStore.notice,
    (notice) => {
      if (notice !== null) tell(notice)
    },
  )

  /** Says what became of unsaved work. */
  function tell(notice: ShowNotice): void {
    if (notice.kind === 'leftUnsaved') toast.error(t('shows.leftUnsaved', { why: notice.why }), { duration: 15_000 })
    else toast(t(`shows.${notice.kind}`), { duration: 8000 })
  }

  onBeforeUnmount(() => {
    if (timer !== null) window.clearTimeout(timer)
  })
}
