// A panel beside its button, over everything else: no scrolling panel cuts it off, and it stays inside the window.
import { autoUpdate, flip, offset, shift, size, useFloating, type Placement, type ReferenceElement } from '@floating-ui/vue'
import type { Ref } from 'vue'

const GAP_PX = 4
const EDGE_PX = 8
const LEAST_HEIGHT_PX = 120

/** Places a panel; `isAsWide` makes it at least as wide as its button. */
export function useFloatingPanel(
  anchor: Readonly<Ref<HTMLElement | null>>,
  panel: Readonly<Ref<HTMLElement | null>>,
  placement: () => Placement,
  isAsWide = false,
) {
  const { floatingStyles } = useFloating(anchor, panel, {
    placement,
    strategy: 'fixed',
    transform: false,
    whileElementsMounted: whileOpen,
    middleware: [
      offset(GAP_PX),
      flip({ padding: EDGE_PX }),
      shift({ padding: EDGE_PX }),
      size({
        padding: EDGE_PX,
        apply: ({ availableHeight, rects, elements }) => {
          elements.floating.style.maxHeight = `${Math.max(LEAST_HEIGHT_PX, availableHeight)}px`
          if (isAsWide) elements.floating.style.minWidth = `${rects.reference.width}px`
        },
      }),
    ],
  })
  return floatingStyles
}

/** Follows the button only while the panel holds something: a closed menu measures nothing, however many there are. */
function whileOpen(anchor: ReferenceElement, panel: HTMLElement, update: () => void): () => void {
  let stop: (() => void) | null = null
  const follow = () => {
    if (panel.childElementCount > 0) stop ??= autoUpdate(anchor, panel, update)
    else {
      stop?.()
      stop = null
    }
  }
  const observer = new MutationObserver(follow)
  observer.observe(panel, { childList: true })
  follow()
  return () => {
    observer.disconnect()
    stop?.()
  }
}
