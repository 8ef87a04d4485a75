import type { Scene, Show } from '../../core/show/show.ts'

/** The scene of `after` that is not as it was, the one on the stage before others; null when no scene is. States share what did not change. */
export function changedScene(before: Show, after: Show, stageId: string | null): Scene | null {
  if (before.scenes === after.scenes) return null
  const changed = after.scenes.filter((scene) => before.scenes.find(({ id }) => id === scene.id) !== scene)
  return changed.find((scene) => scene.id === stageId) ?? changed[0] ?? null
}
