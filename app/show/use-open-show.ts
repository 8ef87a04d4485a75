import { onBeforeUnmount, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import { toast } from 'vue-sonner'
import { rememberShow } from '../router.ts'
import { ApiError } from './api.ts'
import { useShowStore } from './show.store.ts'

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
      const outcome = await showStore.open(id, (name) => t('shows.unsavedCopy', { name }))
      rememberShow(id)
      if (outcome === 'recovered') toast(t('shows.recovered'))
      if (outcome === 'recovered-copy') toast(t('shows.recoveredCopy'))
    } catch (error) {
      if (error instanceof ApiError && error.status === 404) {
        toast.error(t('shows.notFound'))
        await router.replace({ name: 'shows' })
      } else {
        timer = window.setTimeout(() => void open(id), RETRY_MS)
      }
    }
  }

  watch(showId, (id) => void open(id), { immediate: true })
  onBeforeUnmount(() => {
    if (timer !== null) window.clearTimeout(timer)
  })
}
