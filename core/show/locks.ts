import type { Scene, Show } from './show.ts'

/** The locked scene that an edit would change or take away, though it stays locked; null when there is none. Its name, mark and notes may change. */
export function brokenLock(before: Show, after: Show): Scene | null {
  return (
    before.scenes.find((scene) => {
      if (!scene.locked) return false
      const next = after.scenes.find(({ id }) => id === scene.id)
      return next === undefined || (next.locked && next.layers !== scene.layers)
    }) ?? null
  )
}
