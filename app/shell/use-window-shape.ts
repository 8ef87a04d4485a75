import { useMediaQuery } from '@vueuse/core'

/** How much room the window has; the style sheets ask the same. */
export function useWindowShape() {
  return {
    /** Everything stands under each other, and the page scrolls. */
    isStacked: useMediaQuery('(max-width: 819px), (max-height: 519px)'),
    /** Panels at the side lie over the picture. */
    isNarrow: useMediaQuery('(min-width: 820px) and (min-height: 520px) and (max-width: 1179px)'),
  }
}
