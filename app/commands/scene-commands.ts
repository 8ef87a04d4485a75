// Commands for a scene: the one on the stage, or the one whose menu is open.
import { Copy, Flag, Lock, MoveDown, MoveUp, NotebookPen, Pencil, Trash2 } from 'lucide-vue-next'
import type { Component } from 'vue'
import type { CommandEntry, Studio, WhyNot } from './list.ts'
import type { SceneTarget } from './scene-target.ts'

function entry(
  icon: Component,
  run: (scene: SceneTarget) => void,
  whyNot: (scene: SceneTarget) => readonly (WhyNot | false)[] = () => [],
  isFor: (scene: SceneTarget) => boolean = () => true,
): CommandEntry {
  return {
    group: 'scene',
    icon,
    keys: [],
    isFor: ({ scene }) => scene !== null && isFor(scene),
    whyNot: ({ scene }) => (scene === null ? ['notInBuild'] : whyNot(scene)),
    run: ({ scene }: Studio) => scene !== null && run(scene),
  }
}

export const sceneCommands = {
  startWithScene: entry(
    Flag,
    ({ makeStart }) => makeStart(),
    ({ isStart }) => [isStart && 'startsAlready'],
    ({ isFeedOn }) => !isFeedOn,
  ),
  duplicateScene: entry(Copy, ({ duplicate }) => duplicate()),
  renameScene: entry(Pencil, ({ rename }) => rename()),
  lockScene: entry(Lock, ({ toggleLock }) => toggleLock()),
  sceneDetails: entry(NotebookPen, ({ showDetails }) => showDetails()),
  sceneUp: entry(
    MoveUp,
    ({ move }) => move(-1),
    ({ isTop }) => [isTop && 'isTop'],
  ),
  sceneDown: entry(
    MoveDown,
    ({ move }) => move(1),
    ({ isBottom }) => [isBottom && 'isBottom'],
  ),
  removeScene: entry(
    Trash2,
    ({ remove }) => remove(),
    ({ isOnly, isOnAir }) => [isOnly && 'onlyScene', isOnAir && 'onAirStays'],
  ),
} as const satisfies Readonly<Record<string, CommandEntry>>
