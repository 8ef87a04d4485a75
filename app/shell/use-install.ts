// The browser's offer to install the studio as an app of its own: kept until the presenter asks for it, and used once.
import { useEventListener } from '@vueuse/core'
import { computed, shallowRef } from 'vue'

interface InstallOffer extends Event {
  prompt(): Promise<{ readonly outcome: 'accepted' | 'dismissed' }>
}

const offer = shallowRef<InstallOffer | null>(null)

/** Keeps the offer instead of letting the browser show it. Called once, by the page. */
export function keepInstallOffer(): void {
  useEventListener(window, 'beforeinstallprompt', (event) => {
    event.preventDefault()
    offer.value = event as InstallOffer
  })
  useEventListener(window, 'appinstalled', () => (offer.value = null))
}

/** `canInstall`: whether there is an offer. `install` shows it; whatever is answered, it is not made again by this page. */
export function useInstall() {
  return {
    canInstall: computed(() => offer.value !== null),
    install: async () => {
      const taken = offer.value
      offer.value = null
      await taken?.prompt()
    },
  }
}
