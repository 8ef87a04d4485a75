// What can be done with a scene, for the list's menus and its keys.
import { Copy, Lock, LockOpen, MoveDown, MoveUp, NotebookPen, Pencil, Radio, Trash2 } from 'lucide-vue-next'
import { computed, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { addContents, withOwnContents } from '../../core/show/contents.ts'
import { copyScene, newScene } from '../../core/show/create.ts'
import { addScene, moveScene, removeScene, updateScene } from '../../core/show/edits.ts'
import type { Scene } from '../../core/show/show.ts'
import { useAirStore } from '../air/air.store.ts'
import type { MenuAction } from '../base/ActionMenu.vue'
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
  const scenes = computed(() => showStore.show?.scenes ?? [])

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

  function actionsOf(scene: Scene, index: number): MenuAction[] {
    const isOnAir = scene.id === air.onAirId
    const isFirst = scene.id === showStore.onAirId
    const take: MenuAction = air.isFeedOn
      ? { label: t('build.putOnAir'), icon: Radio, disabled: isOnAir, run: () => air.takeOnAir(scene.id) }
      : { label: isFirst ? t('build.isFirst') : t('build.makeFirst'), icon: Radio, disabled: isFirst, run: () => air.takeOnAir(scene.id) }
    const refusal = scenes.value.length === 1 ? t('build.lastScene') : isOnAir ? t('build.onAirStays') : null
    return [
      take,
      { label: t('build.duplicate'), icon: Copy, run: () => duplicate(scene, index) },
      { label: t('build.rename'), icon: Pencil, run: () => (renamingId.value = scene.id) },
      {
        label: scene.locked ? t('build.unlockMenu') : t('build.lockMenu'),
        icon: scene.locked ? LockOpen : Lock,
        run: () =>
          showStore.edit(t('edits.lockScene', { name: scene.name }), (show) => updateScene(show, scene.id, (one) => ({ ...one, locked: !one.locked }))),
      },
      { label: t('build.detailsMenu'), icon: NotebookPen, run: () => showDetails(scene) },
      { label: t('build.moveUp'), icon: MoveUp, disabled: index === 0, run: () => void move(scene, index - 1) },
      { label: t('build.moveDown'), icon: MoveDown, disabled: index === scenes.value.length - 1, run: () => void move(scene, index + 1) },
      {
        label: refusal ?? t('build.delete'),
        icon: Trash2,
        disabled: refusal !== null,
        run: () => showStore.edit(t('edits.removeScene', { name: scene.name }), (show) => removeScene(show, scene.id)),
      },
    ]
  }

  function rename(scene: Scene, name: string): void {
    showStore.edit(t('edits.rename', { name: scene.name }), (show) => updateScene(show, scene.id, (current) => ({ ...current, name })))
  }

  return { add, move, rename, actionsOf }
}
