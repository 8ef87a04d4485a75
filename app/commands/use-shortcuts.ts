import { tinykeys } from 'tinykeys'
import { onScopeDispose, watchEffect } from 'vue'
import { graphicsOf, ownScenesOf } from '../../core/show/edits.ts'
import { useAirStore } from '../air/air.store.ts'
import { useShowStore } from '../show/show.store.ts'
import { isTooSoon } from './held-key.ts'
import { belongsToPage, isSingleKey } from './keys.ts'
import { commandIds, type CommandId } from './list.ts'
import { useKeysStore } from './keys.store.ts'
import { useCommands } from './use-commands.ts'
import { hasSingleKeys } from './use-single-keys.ts'

const SCENE_KEYS = Array.from({ length: 9 }, (_, index) => `Digit${index + 1}`)

/** The keys of all commands, and 1 to 9 for scenes, on every page; but not in a field in which something is being typed. */
export function useShortcuts(): void {
  const showStore = useShowStore()
  const air = useAirStore()
  const keys = useKeysStore()
  const { commands, run } = useCommands()
  const unlessTyping =
    (key: string, act: () => void, worksInFields = false, isOffered = () => true) =>
    (event: KeyboardEvent) => {
      if (event.defaultPrevented || (isSingleKey(key) && !hasSingleKeys.value)) return
      if ((!worksInFields && isTextField(event.target)) || isInList(event.target)) return
      if (belongsToPage(key) && (!isOffered() || takesArrows(event.target))) return
      event.preventDefault()
      if (!isTooSoon(event)) act()
    }
  /** What is typed goes into the field, and undo there is the field's own; only the palette is asked for from anywhere. */
  const worksInFields = (id: CommandId, key: string) => id === 'palette' && !isSingleKey(key)
  let stop: () => void = () => undefined
  watchEffect(() => {
    stop()
    const bindings = commandIds.flatMap((id) =>
      keys.keysOf(id).map(
        (key) =>
          [
            key,
            unlessTyping(
              key,
              () => run(id),
              worksInFields(id, key),
              () => commands.value[id].isFor,
            ),
          ] as const,
      ),
    )
    const scenes = SCENE_KEYS.map((key, index) => [key, unlessTyping(key, () => takeScene(index))] as const)
    const graphics = (showStore.show === null ? [] : graphicsOf(showStore.show)).flatMap(({ id, graphic }) =>
      graphic!.key === null ? [] : [[graphic!.key, unlessTyping(graphic!.key, () => air.graphics.toggle(id))] as const],
    )
    // A key that a command was given later is the command's.
    stop = tinykeys(window, Object.fromEntries([...graphics, ...bindings, ...scenes]))
  })
  onScopeDispose(() => stop())

  /** Brings a scene on air by its number; while nothing is on air a number is no reason to change what will be. */
  function takeScene(index: number): void {
    const scene = showStore.show === null ? undefined : ownScenesOf(showStore.show)[index]
    if (scene !== undefined && air.isFeedOn && showStore.isEditor) air.takeOnAir(scene.id)
  }
}

/** Whether letters and digits choose from a list, or belong to a question. */
function isInList(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest('[role=listbox], [role=menu], [role=dialog]') !== null
}

/** Whether arrows and page keys do something where the focus is: they change a value, choose, or scroll. */
function takesArrows(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false
  const control = 'input, select, [role=slider], [role=spinbutton], [role=radio], [role=tab], [role=separator]'
  const isScrolled = target !== document.body && target.tabIndex >= 0 && target.scrollHeight > target.clientHeight + 1
  return target.closest(control) !== null || (isScrolled && /auto|scroll/.test(getComputedStyle(target).overflowY))
}

/** Whether keys go into a field that takes text and holds something not taken over yet. */
function isTextField(target: EventTarget | null): boolean {
  if (target instanceof HTMLElement && target.dataset['undo'] === 'show') return false
  if (target instanceof HTMLTextAreaElement) return true
  return target instanceof HTMLInputElement && target.type !== 'range' && target.type !== 'checkbox'
}
