// How near the stage is looked at, and which part of it: kept while the studio is open.
import { ref } from 'vue'

/** Times the size at which all of it is seen. */
const nearness = ref(1)
/** Where the middle of the view is, in shares of the canvas. */
const centre = ref({ x: 0.5, y: 0.5 })

const MOST = 16

export function useStageView() {
  /** Looks nearer or from farther off; the point at (x, y), in shares of the canvas, stays where it is seen. */
  function look(next: number, x = centre.value.x, y = centre.value.y): void {
    const now = Math.min(MOST, Math.max(1, next))
    const share = nearness.value / now
    moveTo(x + (centre.value.x - x) * share, y + (centre.value.y - y) * share, now)
  }

  /** Moves the view by shares of the canvas. */
  function pan(dx: number, dy: number): void {
    moveTo(centre.value.x + dx, centre.value.y + dy, nearness.value)
  }

  function moveTo(x: number, y: number, now: number): void {
    nearness.value = now
    // All of it is seen, or nothing beside it.
    const half = 0.5 / now
    const within = (value: number) => Math.min(1 - half, Math.max(half, value))
    centre.value = { x: within(x), y: within(y) }
  }

  return { nearness, centre, look, pan }
}
