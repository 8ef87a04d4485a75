import { watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { LIMITS } from '../../core/show/limits.ts'
import { useShowStore } from '../show/show.store.ts'

/** Tells that an edit was not made, since a show does not hold so much, and what to do. */
export function useLimitNotice(): void {
  const { t } = useI18n()
  const showStore = useShowStore()
  watch(
    () => showStore.limitRefusal,
    (refused) => {
      if (refused !== null) toast.error(t(`limits.${refused.thing}`, { count: LIMITS[refused.thing] }), { id: 'limit', duration: 8000 })
    },
  )
}
