// How the bench shows its picture, where its steps apply, and whether a colour is being picked.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { TreatmentHome } from '../../core/show/edits.ts'
import type { LayerPlace } from '../../engine/protocol.ts'

export type BenchMode = 'before' | 'split' | 'after' | 'matte'
/** What lies behind clear parts of the picture. */
export type Backing = 'checker' | 'warning' | 'white' | 'black'
/** How large the picture is shown; a number is screen pixels per picture pixel. */
export type Zoom = 'fit' | 1 | 2 | 4

export const useBenchStore = defineStore('bench', () => {
  const mode = ref<BenchMode>('split')
  const backing = ref<Backing>('checker')
  const zoom = ref<Zoom>('fit')
  const showsClipping = ref(false)
  /** The step that a click on the picture sets; null when not picking. */
  const pickingStepId = ref<string | null>(null)
  const isFrozen = ref(false)
  const inputId = ref<string | null>(null)
  /** The layer whose own steps are worked on; null for everywhere. */
  const layer = shallowRef<LayerPlace | null>(null)
  const home = computed<TreatmentHome>(() => (layer.value === null ? { type: 'input', inputId: inputId.value ?? '' } : { type: 'layer', ...layer.value }))
  return { mode, backing, zoom, showsClipping, pickingStepId, isFrozen, inputId, layer, home }
})
