import { computed } from 'vue'
import { useShowStore } from '../show/show.store.ts'

/** Lengths that are usual at 720 lines, for the canvas of the open show. */
export function useCanvasUnit() {
  const showStore = useShowStore()
  /** Pixels of this canvas for one at 720 lines. */
  const unit = computed(() => (showStore.show?.canvas.heightPx ?? 720) / 720)
  /** A whole number of pixels, one at the least. */
  const scaled = (px: number) => Math.max(1, Math.round(px * unit.value))
  return { unit, scaled }
}
