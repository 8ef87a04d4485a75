import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { computed, ref } from 'vue'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { Show } from '../../core/show/show.ts'
import type { Asked } from '../devices/use-devices.ts'
import { i18n } from '../i18n.ts'
import NewShowDialog from './NewShowDialog.vue'

const camera = { kind: 'videoinput', deviceId: 'c1', label: 'Built-in', groupId: '' } as MediaDeviceInfo
const isKnown = ref(false)
let answer: (asked: Asked) => void = () => undefined

vi.mock('../devices/use-devices.ts', () => ({
  useDevices: () => ({
    cameras: computed(() => (isKnown.value ? [camera] : [])),
    microphones: computed(() => []),
    hasAny: computed(() => true),
    askAll: () => new Promise<Asked>((resolve) => (answer = resolve)),
  }),
}))

async function opened(create: (show: Show) => Promise<boolean>) {
  const wrapper = mount(NewShowDialog, { props: { create }, global: { plugins: [i18n, createPinia()], stubs: { ShowCover: true } }, attachTo: document.body })
  await flushPromises()
  const press = async (words: string) => {
    const button = [...document.querySelectorAll('button')].find(({ textContent }) => textContent.trim() === words)!
    button.click()
    await flushPromises()
  }
  return { wrapper, press }
}

beforeEach(() => {
  isKnown.value = false
})
afterEach(() => {
  document.body.innerHTML = ''
})

it('asks the browser and makes the show with what it allows', async () => {
  const create = vi.fn(async (_show: Show) => true)
  const { wrapper, press } = await opened(create)
  await press('Create with my camera')
  expect(create).not.toHaveBeenCalled()
  isKnown.value = true
  answer('granted')
  await flushPromises()
  const [show] = create.mock.calls[0]!
  expect(show.inputs[0]).toMatchObject({ kind: 'camera', device: { type: 'device', deviceId: 'c1' } })
  expect(show.scenes.map(({ name }) => name)).toEqual(['You, with your name', 'Just you', 'Back in a moment'])
  expect(wrapper.emitted('close')).toHaveLength(1)
  wrapper.unmount()
})

it('makes nothing when the browser answers after the presenter has gone', async () => {
  const create = vi.fn(async () => true)
  const { wrapper, press } = await opened(create)
  await press('Create with my camera')
  await press('Cancel')
  expect(wrapper.emitted('close')).toHaveLength(1)
  wrapper.unmount()
  answer('granted')
  await flushPromises()
  expect(create).not.toHaveBeenCalled()
})

it('says what to do when the browser refuses, and offers the stand-ins', async () => {
  const create = vi.fn(async (_show: Show) => false)
  const { wrapper, press } = await opened(create)
  await press('Create with my camera')
  answer('refused')
  await flushPromises()
  expect(document.querySelector('[role=status]')!.textContent).toContain('The browser blocks your devices')
  await press('Create show')
  expect(create.mock.calls[0]![0].inputs[0]).toMatchObject({ device: { type: 'standin' } })
  // It failed, so the dialog stays with what was chosen, and can be tried again.
  expect(wrapper.emitted('close')).toBeUndefined()
  await press('Create show')
  expect(create).toHaveBeenCalledTimes(2)
  wrapper.unmount()
})
