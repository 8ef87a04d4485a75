// The title and the sign of the browser's tab: what is on air comes first.
import { watchEffect } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import { useAirStore } from '../air/air.store.ts'
import { useShowStore } from '../show/show.store.ts'

export function usePageTitle(): void {
  const { t } = useI18n()
  const route = useRoute()
  const air = useAirStore()
  const showStore = useShowStore()
  watchEffect(() => {
    const name = String(route.name ?? '')
    const view = name === 'build' || name === 'bench' ? t(`nav.${name}`) : t('shows.title')
    const parts = [showStore.show?.name, view, t('app.name')].filter((part) => part !== undefined)
    document.title = !air.isFeedOn ? parts.join(' · ') : air.showsCard ? t('feed.cardTitle') : t('feed.pageTitle', { scene: air.onAirName })
    document.querySelector<HTMLLinkElement>('link[rel=icon]')!.href = air.isFeedOn ? '/favicon-on-air.svg' : '/favicon.svg'
  })
}
