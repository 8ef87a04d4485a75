import { mount } from '@vue/test-utils'
import { expect, it, vi } from 'vitest'
import { defineComponent, nextTick } from 'vue'
import { keepInstallOffer, useInstall } from './use-install.ts'

function offered() {
  const prompt = vi.fn(() => Promise.resolve({ outcome: 'dismissed' as const }))
  return { prompt, event: Object.assign(new Event('beforeinstallprompt', { cancelable: true }), { prompt }) }
}

it('keeps the offer of the browser until it is asked for, and makes it once', async () => {
  const page = mount(
    defineComponent({
      setup: () => {
        keepInstallOffer()
        return () => null
      },
    }),
  )
  const { canInstall, install } = useInstall()
  expect(canInstall.value).toBe(false)
  await install()
  const first = offered()
  window.dispatchEvent(first.event)
  expect([first.event.defaultPrevented, canInstall.value]).toEqual([true, true])
  expect(first.prompt).not.toHaveBeenCalled()
  await Promise.all([install(), install()])
  expect(first.prompt).toHaveBeenCalledTimes(1)
  expect(canInstall.value).toBe(false)
  const second = offered()
  window.dispatchEvent(second.event)
  window.dispatchEvent(new Event('appinstalled'))
  await nextTick()
  expect(canInstall.value).toBe(false)
  page.unmount()
})
