// What commands for one scene look at and act on. Build offers it for the scene on the stage; menus have one for each scene.
import { shallowRef } from 'vue'

export interface SceneTarget {
  readonly sceneId: string
  readonly isLocked: boolean
  readonly isOnAir: boolean
  readonly isOnly: boolean
  readonly isTop: boolean
  readonly isBottom: boolean
  /** Whether the feed starts with it. */
  readonly isStart: boolean
  readonly isFeedOn: boolean
  readonly makeStart: () => void
  readonly duplicate: () => void
  readonly rename: () => void
  readonly toggleLock: () => void
  readonly showDetails: () => void
  readonly move: (by: -1 | 1) => void
  readonly remove: () => void
}

/** The scene on the stage; null away from Build. */
export const sceneTarget = shallowRef<SceneTarget | null>(null)
