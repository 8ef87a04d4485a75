// How wide the scene list and the inspector are: as the window allows, or as the presenter drew them.
import { useLocalStorage, useWindowSize } from '@vueuse/core'
import { computed } from 'vue'

export const SCENES_PX = { min: 120, max: 280 } as const
export const INSPECTOR_PX = { min: 240, max: 360 } as const

const clamp = (value: number, { min, max }: { readonly min: number; readonly max: number }) => Math.round(Math.min(max, Math.max(min, value)))

/** Widths in px of the page, remembered in this browser; `reset` brings the default back. */
export function usePanelWidths() {
  const { width: windowPx } = useWindowSize()
  const width = (key: string, share: number, bounds: { readonly min: number; readonly max: number }) => {
    const own = useLocalStorage<number>(`green-room:${key}`, 0)
    return {
      widthPx: computed({
        get: () => (own.value > 0 ? clamp(own.value, bounds) : clamp(windowPx.value * share, { ...bounds, max: (bounds.min + bounds.max) / 2 })),
        set: (px) => (own.value = clamp(px, bounds)),
      }),
      reset: () => (own.value = 0),
    }
  }
  return { scenes: width('scenes-px', 0.094, SCENES_PX), inspector: width('inspector-px', 0.1875, INSPECTOR_PX) }
}
