// How the bench shows its picture, and whether a colour is being picked.
import { defineStore } from 'pinia'
import { ref } from 'vue'

export type BenchMode = 'before' | 'split' | 'after' | 'matte'

export const useBenchStore = defineStore('bench', () => {
  const mode = ref<BenchMode>('split')
  /** The key step that a click on the picture sets; null when not picking. */
  const pickingStepId = ref<string | null>(null)
  const isFrozen = ref(false)
  return { mode, pickingStepId, isFrozen }
})
