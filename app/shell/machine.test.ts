import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import type { ExecutorState } from '../../engine/executors.ts'
import { i18n } from '../i18n.ts'
import MachineMenu from './MachineMenu.vue'

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
  const wrapper = mount(MachineMenu, { global: { plugins: [i18n] }, attachTo: document.body })
  await wrapper.get('button').trigger('click')
  await nextTick()
  return wrapper
}

describe('On this machine', () => {
  it.each([
    [null, 'The picture engine is starting.'],
    [{ name: 'cpu', reason: 'noCard', times: null }, 'This browser offers no graphics card of its own.'],
    [
      { name: 'cpu', reason: 'measured', times: { cpuMs: 8.24, cardMs: 61 } },
      'The processor makes the pictures: 8.2 ms a frame, where the graphics card took 61.0 ms.',
    ],
    [{ name: 'gl', reason: 'measured', times: { cpuMs: 8.24, cardMs: 2.5 } }, 'The graphics card makes the pictures: 2.5 ms a frame'],
    [{ name: 'gl', reason: 'pinned', times: null }, 'As you chose, the graphics card makes the pictures.'],
    [{ name: 'cpu', reason: 'pinned', times: null }, 'As you chose, the processor makes the pictures.'],
    [{ name: 'cpu', reason: 'lost', times: null }, 'until it is back'],
    [{ name: 'cpu', reason: 'failed', times: null }, 'could not do it'],
  ] as const)('says for %j who makes the pictures and why', async (state, words) => {
    executor.value = state
    const wrapper = await opened()
    expect(wrapper.get('[role=status]').text()).toContain(words)
    wrapper.unmount()
  })

  it('lets the presenter choose', async () => {
    const wrapper = await opened()
    const choices = wrapper.findAll('[role=radio]')
    expect(choices.map((choice) => choice.text())).toEqual(['Automatic', 'Processor', 'Graphics card'])
    await choices[1]!.trigger('click')
    expect(pinned).toEqual(['cpu'])
    wrapper.unmount()
  })
})
