// What is measured of one input while somebody looks: its scopes, and what moves in it.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { SeenPicture } from '../../core/sync/clap-picture.ts'
import type { LayerPlace, Scopes } from '../../engine/protocol.ts'
import { useEngineStore } from './engine.store.ts'

export const useFiguresStore = defineStore('figures', () => {
  const engine = useEngineStore()
  const scopes = shallowRef<Scopes | null>(null)
  let watched: { readonly inputId: string; readonly layer: LayerPlace | null } | null = null
  let hear: ((sample: SeenPicture) => void) | null = null
  let moving: string | null = null

  engine.listen({
    onStarted: () => {
      if (watched !== null) engine.calls().figures.watchScopes(watched.inputId, watched.layer)
      if (moving !== null) engine.calls().figures.watchMotion(moving)
    },
    onScopes: (inputId, next) => {
      if (inputId === watched?.inputId) scopes.value = next
    },
    onMotion: (sample) => hear?.(sample),
  })

  /** Measures an input's scopes until told otherwise. */
  function watchScopes(inputId: string | null, layer: LayerPlace | null): void {
    watched = inputId === null ? null : { inputId, layer }
    scopes.value = null
    engine.calls().figures.watchScopes(inputId, layer)
  }

  /** Hands on what moves in a camera's pictures until told otherwise; null: no longer. */
  function watchMotion(inputId: string | null, listener: ((sample: SeenPicture) => void) | null): void {
    moving = inputId
    hear = listener
    engine.calls().figures.watchMotion(inputId)
  }

  return { scopes, watchScopes, watchMotion }
})
