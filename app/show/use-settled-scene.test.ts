import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, nextTick, shallowReactive, type EffectScope } from 'vue'
import { renameShow } from '../../core/show/edits.ts'
import type { Scene, Show } from '../../core/show/show.ts'
import { testShow } from '../../tests/support/shows.ts'
import { useSettledScene } from './use-settled-scene.ts'

const store = vi.hoisted(() => ({ now: {} as { show: unknown; scene: unknown; sceneId: string | null } }))
vi.mock('./show.store.ts', () => ({ useShowStore: () => store.now }))

const show = testShow()
const edited = (name: string): Show => renameShow(show, name)
let scope: EffectScope
beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
  store.now = shallowReactive({ show, scene: show.scenes[0]!, sceneId: show.scenes[0]!.id })
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})

const put = async (next: Show, scene: Scene = next.scenes[0]!) => {
  Object.assign(store.now, { show: next, scene, sceneId: scene.id })
  await nextTick()
}

it('follows when the presenter pauses, and during a long run of edits too', async () => {
  const { now, settled } = scope.run(useSettledScene)!
  const once = edited('Once')
  await put(once)
  expect(now.value!.show).toBe(once)
  expect(settled.value!.show).toBe(show)
  await vi.advanceTimersByTimeAsync(200)
  expect(settled.value!.show).toBe(once)

  let last = once
  for (let i = 0; i < 12; i += 1) {
    await put((last = edited(`Edit ${i}`)))
    await vi.advanceTimersByTimeAsync(50)
  }
  expect(settled.value!.show).not.toBe(once)
  await vi.advanceTimersByTimeAsync(200)
  expect(settled.value!.show).toBe(last)
})

it('shows another scene at once, and hands on the very objects of the show', async () => {
  const { settled } = scope.run(useSettledScene)!
  await put(show, show.scenes[1]!)
  expect(settled.value!.scene).toBe(show.scenes[1])
})
