// The open show: its document, its history, its saving, and what is selected in it.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, triggerRef } from 'vue'
import type { Layer, Scene, Show } from '../../core/show/show.ts'
import { api, ApiError } from './api.ts'
import { History } from './history.ts'
import { SaveQueue, takePending, type SaveHost, type SaveState } from './save-queue.ts'

const saveHost: SaveHost = {
  put: async (id, baseRevision, show) => (await api.saveShow(id, baseRevision, show)).revision,
  judge: (error) => {
    if (!(error instanceof ApiError)) return 'offline'
    if (error.status === 409) return 'stale'
    return error.status >= 500 ? 'offline' : { refused: error.message }
  },
  storage: localStorage,
  setTimer: (run, delayMs) => window.setTimeout(run, delayMs),
  clearTimer: (timer) => window.clearTimeout(timer),
}

export type OpenOutcome = 'opened' | 'recovered' | 'recovered-copy'

export const useShowStore = defineStore('show', () => {
  const showId = ref<string | null>(null)
  const show = shallowRef<Show | null>(null)
  const saveState = shallowRef<SaveState>({ kind: 'saved' })
  /** Whether this tab may edit; another tab may have the show. */
  const isEditor = ref(true)
  const sceneId = ref<string | null>(null)
  const layerId = ref<string | null>(null)
  const onAirId = ref<string | null>(null)
  const history = shallowRef(new History(() => performance.now()))
  let queue: SaveQueue | null = null

  const scene = computed<Scene | null>(() => show.value?.scenes.find((candidate) => candidate.id === sceneId.value) ?? null)
  const layer = computed<Layer | null>(() => scene.value?.layers.find((candidate) => candidate.id === layerId.value) ?? null)
  const undoLabel = computed(() => history.value.undoLabel)
  const redoLabel = computed(() => history.value.redoLabel)

  /** Loads a show and what this browser may have kept of it. */
  async function open(id: string, copyName: (name: string) => string): Promise<OpenOutcome> {
    const stored = await api.getShow(id)
    close()
    showId.value = id
    history.value = new History(() => performance.now())
    queue = new SaveQueue(saveHost, id, stored.revision, (state) => (saveState.value = state))
    saveState.value = { kind: 'saved' }
    adopt(stored.show)
    const pending = takePending(localStorage, id)
    if (pending === null || JSON.stringify(pending.show) === JSON.stringify(stored.show)) return 'opened'
    if (pending.baseRevision === stored.revision) {
      edit('', () => pending.show)
      return 'recovered'
    }
    await api.createShow({ ...pending.show, name: copyName(pending.show.name).slice(0, 80) })
    return 'recovered-copy'
  }

  function close(): void {
    queue?.flush()
    queue?.close()
    queue = null
    showId.value = null
    show.value = null
    sceneId.value = null
    layerId.value = null
    onAirId.value = null
  }

  function adopt(next: Show): void {
    show.value = next
    if (!next.scenes.some((candidate) => candidate.id === sceneId.value)) {
      sceneId.value = next.scenes[0]?.id ?? null
      layerId.value = null
    }
    if (!next.scenes.some((candidate) => candidate.id === onAirId.value)) onAirId.value = sceneId.value
  }

  /**
   * Makes an edit: `change` is a pure edit of core. `key` joins a run of edits, such as one drag,
   * into one step of undo. A tab that only watches edits nothing.
   */
  function edit(label: string, change: (show: Show) => Show, key: string | null = null): void {
    const before = show.value
    if (before === null || !isEditor.value) return
    const after = change(before)
    if (after === before) return
    history.value.note(before, label, key)
    triggerRef(history)
    adopt(after)
    queue?.push(after)
  }

  function undo(): void {
    travel(history.value.undo.bind(history.value))
  }

  function redo(): void {
    travel(history.value.redo.bind(history.value))
  }

  function travel(step: (current: Show) => Show | null): void {
    if (show.value === null || !isEditor.value) return
    const next = step(show.value)
    if (next === null) return
    triggerRef(history)
    adopt(next)
    queue?.push(next)
  }

  /** Puts a state from the server in place, after a restore or another tab's save. */
  async function reload(): Promise<void> {
    const id = showId.value
    if (id === null) return
    const stored = await api.getShow(id)
    if (show.value !== null) history.value.note(show.value, '', null)
    triggerRef(history)
    queue?.close()
    queue = new SaveQueue(saveHost, id, stored.revision, (state) => (saveState.value = state))
    saveState.value = { kind: 'saved' }
    adopt(stored.show)
  }

  function selectScene(id: string): void {
    if (sceneId.value === id) return
    sceneId.value = id
    layerId.value = null
  }

  function selectLayer(id: string | null): void {
    layerId.value = id
  }

  function setOnAir(id: string): void {
    onAirId.value = id
  }

  function setEditor(is: boolean): void {
    isEditor.value = is
  }

  function flush(): void {
    queue?.flush()
  }

  return {
    showId,
    show,
    saveState,
    isEditor,
    sceneId,
    layerId,
    onAirId,
    scene,
    layer,
    undoLabel,
    redoLabel,
    open,
    close,
    edit,
    undo,
    redo,
    reload,
    selectScene,
    selectLayer,
    setOnAir,
    setEditor,
    flush,
  }
})
