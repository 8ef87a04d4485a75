// Whether a shared screen shows the studio itself: its own tab by the browser's word, all else by the mark in the studio's header.
import { shallowRef, watch, type Ref } from 'vue'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { LiveState } from '../../engine/live/live-state.ts'
import type { SharedScreen } from '../../engine/live/screen-manager.ts'

/** Sharing begins with the browser's own window in front; afterwards the studio may come into the picture at any time. */
const LOOK_EVERY_MS = 3000

/** `grab` gives a screen's picture as it comes. */
export function useMirrorWatch(
  states: Readonly<Ref<Readonly<Record<string, LiveState>>>>,
  shared: Readonly<Ref<Readonly<Record<string, SharedScreen>>>>,
  grab: (inputId: string) => Promise<RgbaPicture | null>,
) {
  const mirrors = shallowRef<Readonly<Record<string, boolean>>>({})
  let worker: Worker | null = null
  let timer = 0
  let nextId = 1
  const waiting = new Map<number, (isFound: boolean) => void>()

  function isShared(inputId: string): boolean {
    return states.value[inputId]?.phase === 'live' && shared.value[inputId] !== undefined
  }

  async function look(inputId: string): Promise<void> {
    const screen = shared.value[inputId]
    const picture = screen?.isOwnTab === true ? null : await grab(inputId)
    const isMirror = screen?.isOwnTab === true || (picture !== null && (await find(picture)))
    if (isShared(inputId)) mirrors.value = { ...mirrors.value, [inputId]: isMirror }
  }

  function find({ data, widthPx, heightPx }: RgbaPicture): Promise<boolean> {
    if (worker === null) {
      worker = new Worker(new URL('../../engine/client/mirror-watch.worker.ts', import.meta.url), { type: 'module', name: 'mirrors' })
      worker.onmessage = ({ data: answer }: MessageEvent<{ requestId: number; isFound: boolean }>) => {
        waiting.get(answer.requestId)?.(answer.isFound)
        waiting.delete(answer.requestId)
      }
    }
    const requestId = nextId++
    const copy = new Uint8ClampedArray(data)
    worker.postMessage({ requestId, data: copy, widthPx, heightPx }, [copy.buffer])
    return new Promise((resolve) => waiting.set(requestId, resolve))
  }

  async function lookAtAll(): Promise<void> {
    const ids = Object.keys(states.value).filter(isShared)
    for (const inputId of ids) await look(inputId)
    timer = ids.length === 0 ? 0 : window.setTimeout(() => void lookAtAll(), LOOK_EVERY_MS)
  }

  watch([states, shared], () => {
    const gone = Object.keys(mirrors.value).filter((inputId) => !isShared(inputId))
    if (gone.length > 0) mirrors.value = Object.fromEntries(Object.entries(mirrors.value).filter(([inputId]) => !gone.includes(inputId)))
    if (timer === 0 && Object.keys(states.value).some(isShared)) timer = window.setTimeout(() => void lookAtAll(), LOOK_EVERY_MS / 4)
  })

  return mirrors
}
