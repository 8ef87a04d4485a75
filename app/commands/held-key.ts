/** A key that is held does no more than can be seen: repeats come up to thirty times a second. */
const LEAST_BETWEEN_MS = 60
let lastMs = -Infinity

/** Whether a press is a repeat that comes too soon after the one before; every press by hand counts. */
export function isTooSoon({ repeat }: Pick<KeyboardEvent, 'repeat'>, nowMs = performance.now()): boolean {
  if (repeat && nowMs - lastMs < LEAST_BETWEEN_MS) return true
  lastMs = nowMs
  return false
}
