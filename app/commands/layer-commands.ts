// Commands for the selected layers.
import {
  ArrowDownToLine,
  ArrowUpToLine,
  BookOpenText,
  ChevronDown,
  ChevronUp,
  ClipboardPaste,
  Copy,
  Expand,
  Files,
  FolderOpen,
  Group,
  LayoutGrid,
  Link2,
  MoveUpRight,
  ScanLine,
  Scissors,
  Trash2,
  Ungroup,
} from 'lucide-vue-next'
import type { Component } from 'vue'
import type { CommandEntry, Studio, WhyNot } from './list.ts'
import type { LayerTarget } from './layer-target.ts'

interface LayerEntry {
  readonly icon: Component
  /** Whether menus offer it at all; if not said, wherever a layer is selected. */
  readonly isFor?: (layers: LayerTarget) => boolean
  readonly whyNot?: (layers: LayerTarget) => readonly (WhyNot | false)[]
  readonly run: (layers: LayerTarget) => void
  /** Starts a part of the menu, under these words. */
  readonly heading?: string
  /** A second line in menus. */
  readonly detail?: string
}

const isLocked = ({ isLocked: is }: LayerTarget) => [is && ('locked' as const)]
const isHeld = ({ isLocked: is, isLayerLocked }: LayerTarget) => [(is || isLayerLocked) && ('locked' as const)]
const isOne = ({ count }: LayerTarget) => count === 1

function entry({ icon, isFor = ({ count }) => count > 0, whyNot = () => [], run, heading, detail }: LayerEntry): CommandEntry {
  return {
    group: 'layer',
    icon,
    keys: [],
    isFor: ({ layers }) => layers !== null && isFor(layers),
    whyNot: ({ layers }) => (layers === null ? ['notInBuild'] : [!isFor(layers) && 'nothingSelected', ...whyNot(layers)]),
    run: ({ layers }: Studio) => layers !== null && run(layers),
    ...(heading === undefined ? {} : { heading }),
    ...(detail === undefined ? {} : { detail }),
  }
}

export const layerCommands = {
  copyLayers: entry({ icon: Copy, run: ({ copy }) => copy() }),
  cutLayers: entry({ icon: Scissors, whyNot: isLocked, run: ({ cut }) => cut() }),
  pasteOwn: entry({
    icon: ClipboardPaste,
    isFor: () => true,
    whyNot: ({ hasCopied, isLocked: is }) => [!hasCopied && 'nothingCopied', is && 'locked'],
    run: ({ paste }) => paste('own'),
  }),
  pasteSame: entry({ icon: Link2, isFor: ({ hasCopied, count }) => hasCopied && count > 0, whyNot: isLocked, run: ({ paste }) => paste('same') }),
  duplicateOwn: entry({ icon: Files, whyNot: isLocked, run: ({ duplicate }) => duplicate('own') }),
  duplicateSame: entry({ icon: Link2, isFor: ({ canShare }) => canShare, whyNot: isLocked, run: ({ duplicate }) => duplicate('same') }),
  layerForward: entry({ icon: ChevronUp, heading: 'layer.order', whyNot: isLocked, run: ({ order }) => order('forward') }),
  layerBackward: entry({ icon: ChevronDown, whyNot: isLocked, run: ({ order }) => order('backward') }),
  layerToFront: entry({ icon: ArrowUpToLine, whyNot: isLocked, run: ({ order }) => order('front') }),
  layerToBack: entry({ icon: ArrowDownToLine, whyNot: isLocked, run: ({ order }) => order('back') }),
  fillCanvas: entry({ icon: Expand, heading: 'inspector.place', isFor: isOne, whyNot: isHeld, run: ({ fillCanvas }) => fillCanvas() }),
  resetSize: entry({ icon: ScanLine, isFor: (layers) => isOne(layers) && layers.hasOwnSize, whyNot: isHeld, run: ({ resetSize }) => resetSize() }),
  standInside: entry({
    icon: BookOpenText,
    detail: 'inside.hint',
    isFor: ({ canStandIn }) => canStandIn,
    whyNot: isLocked,
    run: ({ standInside }) => standInside(),
  }),
  putInAllScenes: entry({ icon: LayoutGrid, isFor: ({ canBeInOtherScenes }) => canBeInOtherScenes, run: ({ putInAllScenes }) => putInAllScenes() }),
  placeAlike: entry({
    icon: MoveUpRight,
    isFor: ({ canBeInOtherScenes, inOtherScenes }) => canBeInOtherScenes && inOtherScenes > 0,
    run: ({ placeAlike }) => placeAlike(),
  }),
  groupWithBehind: entry({
    icon: Group,
    isFor: (layers) => isOne(layers) && layers.behindName !== null,
    whyNot: ({ isTooDeepWithBehind, isLocked: is }) => [isTooDeepWithBehind && 'tooDeep', is && 'locked'],
    run: ({ groupWithBehind }) => groupWithBehind(),
  }),
  groupLayers: entry({
    icon: Group,
    isFor: ({ count }) => count > 1,
    whyNot: ({ isTooDeep, isLocked: is }) => [isTooDeep && 'tooDeep', is && 'locked'],
    run: ({ group }) => group(),
  }),
  openGroup: entry({ icon: FolderOpen, isFor: (layers) => isOne(layers) && layers.isGroup, run: ({ openGroup }) => openGroup() }),
  ungroupLayers: entry({ icon: Ungroup, isFor: ({ isGroup }) => isGroup, whyNot: isLocked, run: ({ ungroup }) => ungroup() }),
  removeLayers: entry({ icon: Trash2, whyNot: isLocked, run: ({ remove }) => remove() }),
} as const satisfies Readonly<Record<string, CommandEntry>>
