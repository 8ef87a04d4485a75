import { mount, type VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { nextTick } from 'vue'
import TipLayer from './TipLayer.vue'

let layer: VueWrapper
beforeEach(() => {
  document.body.innerHTML = '<button data-tip="Undo"><i></i></button><p>Words</p>'
  layer = mount(TipLayer, { attachTo: document.body })
})
afterEach(() => layer.unmount())

const tip = () => document.querySelector('[data-testid=tip]')?.textContent?.trim() ?? null

async function over(selector: string, pointerType = 'mouse'): Promise<void> {
  document.querySelector(selector)!.dispatchEvent(new PointerEvent('pointerover', { bubbles: true, pointerType }))
  await nextTick()
}

it('says at once what the pointer is on, and nothing beside it or under a finger', async () => {
  expect(tip()).toBeNull()
  await over('button i')
  expect(tip()).toBe('Undo')
  await over('p')
  expect(tip()).toBeNull()
  await over('button', 'touch')
  expect(tip()).toBeNull()
})

it('goes by Escape and by a press (WCAG 2.2, 1.4.13)', async () => {
  for (const event of [new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }), new PointerEvent('pointerdown', { bubbles: true })]) {
    await over('button')
    expect(tip()).toBe('Undo')
    document.dispatchEvent(event)
    await nextTick()
    expect(tip()).toBeNull()
  }
})
