// What can be done with a scene, for the list's menus and its keys.
import { LockOpen } from 'lucide-vue-next'
import { computed, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { addContents, withOwnContents } from '../../core/show/contents.ts'
import { copyScene, newScene } from '../../core/show/create.ts'
import { addScene, moveScene, ownScenesOf, removeScene, updateScene } from '../../core/show/edits.ts'
import type { Scene } from '../../core/show/show.ts'
import { useAirStore } from '../air/air.store.ts'
import type { MenuAction } from '../base/ActionMenu.vue'
import type { CommandId } from '../commands/list.ts'
import type { SceneTarget } from '../commands/scene-target.ts'
import { useCommands } from '../commands/use-commands.ts'
import { announce } from '../shell/announce.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'

export interface SceneListEvents {
  /** A scene was moved: the focus goes with it. */
  readonly onMoved: (sceneId: string) => Promise<void>
  readonly openInspector: () => void
}

/** `renamingId` is set to the scene whose name is to be changed. */
export function useSceneActions(renamingId: Ref<string | null>, { onMoved, openInspector }: SceneListEvents) {
  const { t } = useI18n()
  const showStore = useShowStore()
  const air = useAirStore()
  const { commandFor } = useCommands()
  const scenes = computed(() => (showStore.show === null ? [] : ownScenesOf(showStore.show)))

  /** A new scene on the stage; false where the show takes none. */
  function add(): boolean {
    const scene = newScene(t('build.sceneName', { n: scenes.value.length + 1 }), makeId)
    if (!showStore.edit(t('edits.addScene'), (show) => addScene(show, scene))) return false
    showStore.selectScene(scene.id)
    return true
  }

  function showDetails(scene: Scene): void {
    showStore.selectScene(scene.id)
    showStore.selectLayer(null)
    openInspector()
  }

  function duplicate(scene: Scene, index: number): void {
    const { layers, contents } = withOwnContents(showStore.show!, scene.layers, makeId)
    const copy = copyScene({ ...scene, layers }, t('build.copyName', { name: scene.name.slice(0, 70) }), makeId)
    const isMade = showStore.edit(t('edits.duplicate', { name: scene.name }), (show) => addScene(addContents(show, contents), copy, index + 1))
    if (isMade) showStore.selectScene(copy.id)
  }

  async function move(scene: Scene, index: number): Promise<void> {
    if (index < 0 || index >= scenes.value.length) return
    showStore.edit(t('edits.moveScene', { name: scene.name }), (show) => moveScene(show, scene.id, index))
    await onMoved(scene.id)
    announce(t('build.placeOf', { name: scene.name, n: scenes.value.findIndex(({ id }) => id === scene.id) + 1, count: scenes.value.length }))
  }

  /** What commands may know of a scene and do with it. */
  function targetOf(scene: Scene): SceneTarget {
    const index = scenes.value.indexOf(scene)
    return {
      sceneId: scene.id,
      isLocked: scene.locked,
      isOnAir: scene.id === air.onAirId,
      isOnly: scenes.value.length === 1,
      isTop: index === 0,
      isBottom: index === scenes.value.length - 1,
      isStart: scene.id === showStore.onAirId,
      isFeedOn: air.isFeedOn,
      makeStart: () => air.takeOnAir(scene.id),
      duplicate: () => duplicate(scene, index),
      rename: () => (renamingId.value = scene.id),
      toggleLock: () =>
        showStore.edit(t('edits.lockScene', { name: scene.name }), (show) => updateScene(show, scene.id, (one) => ({ ...one, locked: !one.locked }))),
      showDetails: () => showDetails(scene),
      move: (by) => void move(scene, index + by),
      remove: () => showStore.edit(t('edits.removeScene', { name: scene.name }), (show) => removeScene(show, scene.id)),
    }
  }

  /** The menu of a scene: the commands for it, under their short names. */
  function actionsOf(scene: Scene): MenuAction[] {
    const target = targetOf(scene)
    const names = {
      takeScene: t('build.putOnAir'),
      startWithScene: t('build.makeFirst'),
      duplicateScene: t('build.duplicate'),
      renameScene: t('build.rename'),
      lockScene: t(scene.locked ? 'build.unlockMenu' : 'build.lockMenu'),
      sceneDetails: t('build.detailsMenu'),
      sceneUp: t('build.moveUp'),
      sceneDown: t('build.moveDown'),
      removeScene: t('build.delete'),
    } satisfies Partial<Record<CommandId, string>>
    return (Object.keys(names) as (keyof typeof names)[]).flatMap((id): MenuAction[] => {
      const { isFor, icon, whyNot, run } = commandFor(id, target)
      // Before the feed runs, the menu chooses where it starts instead.
      if (!isFor || (id === 'takeScene' && !air.isFeedOn)) return []
      const shown = id === 'lockScene' && scene.locked ? LockOpen : icon
      return [{ label: names[id], icon: shown, disabled: whyNot !== null, ...(whyNot === null ? {} : { detail: t('commands.cannot', { why: whyNot }) }), run }]
    })
  }

  function rename(scene: Scene, name: string): void {
    showStore.edit(t('edits.rename', { name: scene.name }), (show) => updateScene(show, scene.id, (current) => ({ ...current, name })))
  }

  return { add, move, rename, actionsOf, targetOf }
}
