import type { Scene, Show } from './show.ts'

/** The locked scene that an edit would change or remove while it stays locked; null if there is none. Name, mark and notes may change. */
export function brokenLock(before: Show, after: Show): Scene | null {
  return (
    before.scenes.find((scene) => {
      if (!scene.locked) return false
      const next = after.scenes.find(({ id }) => id === scene.id)
      return next === undefined || (next.locked && next.layers !== scene.layers)
    }) ?? null
  )
}
