// Graphics that are kept for any show: saved under a name, and put into the open show as copies.
import { shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { addKeptGraphic, canBeKept, graphicIn, keepGraphic, type KeptGraphic } from '../../core/show/kept-graphic.ts'
import { updateScene } from '../../core/show/edits.ts'
import type { Scene } from '../../core/show/show.ts'
import { api, type SavedGraphic, type UnreadableNamed } from '../show/api.ts'
import { errorWords } from '../show/error-words.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { TIME_TO_ACT_MS } from '../shell/announce.ts'
import { useGraphics } from './use-graphics.ts'

export function useSavedGraphics() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const { freeName, isFree } = useGraphics()
  const saved = shallowRef<readonly SavedGraphic[]>([])
  const unreadable = shallowRef<readonly UnreadableNamed[]>([])
  const isLoaded = shallowRef(false)
  /** What was deleted last, and can be brought back. */
  const deleted = shallowRef<SavedGraphic | null>(null)

  /** Runs a call and says what went wrong; null then. */
  async function attempt<T>(run: () => Promise<T>): Promise<T | null> {
    try {
      return await run()
    } catch (error) {
      toast.error(errorWords(error), { duration: 10_000 })
      return null
    }
  }

  async function load(): Promise<void> {
    const listed = await attempt(api.listGraphics)
    if (listed === null) return
    saved.value = listed.graphics
    unreadable.value = listed.unreadable
    isLoaded.value = true
  }

  /** Keeps a graphic under its own name; one that had the name comes back by the button of the message. */
  async function save(graphic: Scene): Promise<void> {
    const { show } = showStore
    if (show === null) return
    const { name } = graphic
    if (!canBeKept(graphic)) {
      toast.error(t('graphics.showsScene', { name }), { duration: 10_000 })
      return
    }
    const kept = keepGraphic(show, graphic.id, name)
    const before = (await attempt(api.listGraphics))?.graphics.find((one) => one.name === name) ?? null
    if ((await attempt(() => api.saveGraphic(name, kept))) === null) return
    if (before === null) toast.success(t('graphics.saved', { name }))
    else
      toast.success(t('graphics.replaced', { name }), {
        duration: TIME_TO_ACT_MS,
        action: { label: t('graphics.keepEarlier'), onClick: () => void putBack(before) },
      })
  }

  async function putBack({ name, graphic }: { readonly name: string; readonly graphic: KeptGraphic }): Promise<void> {
    if ((await attempt(() => api.saveGraphic(name, graphic))) !== null) await load()
  }

  async function remove(one: SavedGraphic | UnreadableNamed): Promise<void> {
    if ((await attempt(async () => (await api.deleteGraphic(one.id), true))) === null) return
    deleted.value = 'graphic' in one ? one : null
    await load()
  }

  /** Brings back what was deleted last. */
  async function undoRemove(): Promise<void> {
    const one = deleted.value
    deleted.value = null
    if (one !== null) await putBack(one)
  }

  /** Puts a copy into the open show, and brings it on the stage; false where the show takes none. Its key is left out where something else has it. */
  function add({ graphic: kept }: SavedGraphic): boolean {
    if (showStore.show === null) return false
    const { show, graphicId } = addKeptGraphic(showStore.show, kept, makeId)
    const { key } = graphicIn(kept).graphic!
    const own = { name: freeName(kept.name), graphic: { key: key !== null && isFree(key) ? key : null } }
    if (!showStore.edit(t('edits.addGraphic', { name: own.name }), () => updateScene(show, graphicId, (one) => ({ ...one, ...own })))) return false
    showStore.selectScene(graphicId)
    showStore.selectLayer(null)
    return true
  }

  return { saved, unreadable, isLoaded, deleted, load, save, remove, undoRemove, add }
}
