import { onScopeDispose } from 'vue'

/** Pixels a pointer moves before a press on a number counts as scrubbing. */
const START_AFTER_PX = 4
const PX_PER_STEP = 3

/** Lets a number be dragged sideways. `change` gets steps since the last call. */
export function useScrub(change: (steps: number) => void) {
  let startX = 0
  let done = 0
  let isScrubbing = false
  let element: HTMLElement | null = null

  function onMove(event: PointerEvent): void {
    const moved = event.clientX - startX
    if (!isScrubbing && Math.abs(moved) < START_AFTER_PX) return
    isScrubbing = true
    const steps = Math.trunc(moved / PX_PER_STEP)
    if (steps !== done) change(steps - done)
    done = steps
  }

  function stop(): void {
    element?.removeEventListener('pointermove', onMove)
    element?.removeEventListener('pointerup', onUp)
    element = null
  }

  function onUp(): void {
    const wasScrub = isScrubbing
    const target = element
    stop()
    if (!wasScrub && target instanceof HTMLInputElement) {
      target.focus()
      target.select()
    }
  }

  onScopeDispose(stop)

  /** Put this on pointerdown of the number. */
  return function onPointerDown(event: PointerEvent): void {
    const target = event.currentTarget as HTMLElement
    if (event.button !== 0 || document.activeElement === target) return
    event.preventDefault()
    startX = event.clientX
    done = 0
    isScrubbing = false
    element = target
    target.setPointerCapture(event.pointerId)
    target.addEventListener('pointermove', onMove)
    target.addEventListener('pointerup', onUp)
  }
}
