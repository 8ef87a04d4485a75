import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import type { ExecutorState } from '../../engine/executors.ts'
import { i18n } from '../i18n.ts'
import SettingsMenu from './SettingsMenu.vue'

const executor = ref<ExecutorState | null>(null)
const pinned: string[] = []
vi.mock('../engine/engine.store.ts', () => ({
  useEngineStore: () => ({
    get executor() {
      return executor.value
    },
    pin: 'auto',
    pinExecutor: (pin: string) => pinned.push(pin),
  }),
}))

beforeEach(() => {
  setActivePinia(createPinia())
  executor.value = null
  pinned.length = 0
})

async function opened() {
  const wrapper = mount(SettingsMenu, { global: { plugins: [i18n] }, attachTo: document.body })
  await wrapper.get('button').trigger('click')
  await nextTick()
  return wrapper
}

describe('Settings', () => {
  it.each([
    [null, 'The picture is starting.'],
    [{ name: 'cpu', reason: 'noCard', times: null }, 'This browser offers no graphics card.'],
    [
      { name: 'cpu', reason: 'measured', times: { cpuMs: 8.24, cardMs: 61 } },
      'The processor draws the picture: 8.2 ms a frame. The graphics card took 61.0 ms.',
    ],
    [{ name: 'gl', reason: 'measured', times: { cpuMs: 8.24, cardMs: 2.5 } }, 'The graphics card draws the picture: 2.5 ms a frame'],
    [{ name: 'gl', reason: 'pinned', times: null }, 'You chose the graphics card to draw the picture.'],
    [{ name: 'cpu', reason: 'pinned', times: null }, 'You chose the processor to draw the picture.'],
    [{ name: 'cpu', reason: 'lost', times: null }, 'until it is back'],
    [{ name: 'cpu', reason: 'failed', times: null }, 'The graphics card failed'],
  ] as const)('says for %j who makes the pictures and why', async (state, words) => {
    executor.value = state
    const wrapper = await opened()
    expect(wrapper.get('[role=status]').text()).toContain(words)
    wrapper.unmount()
  })

  it('lets the presenter choose the theme, the language, and who draws the picture', async () => {
    const wrapper = await opened()
    const choices = wrapper.findAll('[role=radio]')
    expect(choices.map((choice) => choice.text())).toEqual([
      'Light',
      'Dark',
      'As in the browser',
      'English',
      'Deutsch',
      'Automatic',
      'Processor',
      'Graphics card',
    ])
    await choices[6]!.trigger('click')
    expect(pinned).toEqual(['cpu'])
    await choices[1]!.trigger('click')
    expect(document.documentElement.dataset['theme']).toBe('blackout')
    await choices[0]!.trigger('click')
    await choices[4]!.trigger('click')
    await vi.waitFor(() => expect(document.documentElement.lang).toBe('de'))
    await vi.waitFor(() => expect(wrapper.text()).toContain('Bild zeichnen mit'))
    await choices[3]!.trigger('click')
    await vi.waitFor(() => expect(document.documentElement.lang).toBe('en'))
    wrapper.unmount()
  })
})
