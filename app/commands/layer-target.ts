// What commands for the selected layers look at and act on. Build offers it while it is open; without it such commands cannot run.
import { shallowRef } from 'vue'
import type { OrderWay } from '../../core/show/layer-set-edits.ts'
import type { Sharing } from '../../core/show/paste.ts'

export interface LayerTarget {
  /** How many are selected. */
  readonly count: number
  /** Whether the scene is locked; whether the one layer is. */
  readonly isLocked: boolean
  readonly isLayerLocked: boolean
  readonly isGroup: boolean
  readonly hasCopied: boolean
  /** Whether copies may share what the layers say or show. */
  readonly canShare: boolean
  /** Whether it can be shown larger or smaller than it is. */
  readonly hasOwnSize: boolean
  /** Whether the presenter can stand inside it. */
  readonly canStandIn: boolean
  /** Whether it can be put into other scenes, and how many of them show it already. */
  readonly canBeInOtherScenes: boolean
  readonly inOtherScenes: number
  /** The layer directly behind it; null when there is none. */
  readonly behindName: string | null
  /** Whether a group of them would lie too deep in other groups. */
  readonly isTooDeepWithBehind: boolean
  readonly isTooDeep: boolean
  readonly copy: () => void
  readonly cut: () => void
  readonly paste: (sharing: Sharing) => void
  readonly duplicate: (sharing: Sharing) => void
  readonly order: (way: OrderWay) => void
  readonly fillCanvas: () => void
  readonly resetSize: () => void
  readonly standInside: () => void
  readonly putInAllScenes: () => void
  readonly placeAlike: () => void
  readonly groupWithBehind: () => void
  readonly group: () => void
  readonly openGroup: () => void
  readonly ungroup: () => void
  readonly remove: () => void
}

/** The selected layers of the scene on the stage; null away from it. */
export const layerTarget = shallowRef<LayerTarget | null>(null)
