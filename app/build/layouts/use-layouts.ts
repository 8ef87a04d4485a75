// The layouts of the scene on the stage: what each would make of it, which one it has, and taking one.
import { isCamera } from '../../../core/inputs/camera.ts'
import { neededSourceOf, inputIdOf } from '../../../core/layers/index.ts'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { arrangeScene } from '../../../core/layout/arrange/arrange-scene.ts'
import { looksAlike } from '../../../core/layout/arrange/follow-canvas.ts'
import { hiddenParts, withoutIdleParts } from '../../../core/layout/arrange/idle-parts.ts'
import { arrange, layoutNames, type Arrangement, type LayoutName, type PresenterSide } from '../../../core/layout/arrange/layouts.ts'
import type { Content, Scene, Show } from '../../../core/show/show.ts'
import { useEngineStore } from '../../engine/engine.store.ts'
import { useHeads } from '../../inputs/use-heads.ts'
import { makeId } from '../../show/make-id.ts'
import { useShowStore } from '../../show/show.store.ts'
import { useCast } from './use-cast.ts'

export interface LayoutDraft {
  readonly name: LayoutName
  readonly scene: Scene
  readonly contents: readonly Content[]
  readonly isTaken: boolean
  /** Where those would be who are not there yet. */
  readonly open: Pick<Arrangement, 'presenters' | 'page'>
}

const isOpen = ref(false)
const side = ref<PresenterSide>('left')
/** What was taken since the layouts were opened: who comes later gets a place in it. */
let taken: { readonly sceneId: string; readonly name: LayoutName } | null = null
let stopWaiting: (() => void) | null = null
/** Parts that were hidden before the layouts were opened: by the presenter, as far as anybody knows. */
let hiddenBefore: ReadonlySet<string> = new Set()
/** The scene whose pictures are waited for, as it was when its layout was taken. */
let waited: Scene | null = null

export function useLayouts() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const { heads, lookIn } = useHeads()
  const { cast, firstCamera } = useCast()
  const facts = computed(() => ({ infos: engine.infos, heads: heads.value }))

  function arranged(show: Show, sceneId: string, name: LayoutName, ids: () => string): Show {
    const page = show.scenes.find(({ id }) => id === sceneId)?.layers.find(({ id }) => id === cast.value.page)
    const names = { divider: t('layouts.divider'), ink: t('layouts.ink', { name: (page?.name ?? '').slice(0, 60) }) }
    return arrangeScene(show, sceneId, { name, side: side.value }, cast.value, facts.value, names, ids)
  }

  const drafts = computed<LayoutDraft[]>(() => {
    const { show, scene } = showStore
    if (show === null || scene === null) return []
    let isFound = false
    return layoutNames.map((name) => {
      let count = 0
      const after = arranged(show, scene.id, name, () => `draft${(count += 1)}`)
      const next = after.scenes.find(({ id }) => id === scene.id)!
      const usual = { widthPx: 1920, heightPx: 1080, head: null }
      const places = Math.max(name === 'table' ? 2 : 1, cast.value.presenters.length)
      const full = arrange(
        { name, side: side.value },
        show.canvas,
        Array.from({ length: places }, () => usual),
        usual,
      )
      const isTaken = !isFound && next.layers.length > 0 && looksAlike(scene, next)
      isFound ||= isTaken
      return {
        name,
        scene: next,
        contents: after.contents.slice(show.contents.length),
        isTaken,
        open: { presenters: full.presenters.slice(cast.value.presenters.length), page: cast.value.page === null ? full.page : null },
      }
    })
  })

  /** Gives the scene a layout; the presenter comes with it where there is none. */
  function take(name: LayoutName): void {
    if (showStore.scene?.locked === true) return
    if (cast.value.presenters.length === 0) firstCamera.value.bring()
    const { sceneId } = showStore
    if (sceneId === null) return
    taken = { sceneId, name }
    showStore.edit(t('edits.layout', { name: t(`layouts.names.${name}`) }), (show) => arranged(show, sceneId, name, makeId))
    settleLater(name)
  }

  /** A page or a camera that has no picture yet has no size either: the layout is made once more when it has, if nothing was changed meanwhile. */
  function settleLater(name: LayoutName): void {
    stopWaiting?.()
    const { sceneId, scene } = showStore
    const ids = [...cast.value.presenters, ...(cast.value.page === null ? [] : [cast.value.page])]
    const waiting = (scene?.layers ?? []).flatMap((layer) => (ids.includes(layer.id) ? (neededSourceOf(showStore.show!, layer) ?? []) : []))
    if (sceneId === null || waiting.every((id) => engine.infos.has(id))) return
    waited = scene
    stopWaiting = watch(
      () => engine.infos,
      (infos) => {
        if (showStore.scene !== waited) return stopWaiting?.()
        if (!waiting.every((id) => infos.has(id))) return
        stopWaiting?.()
        showStore.amend((show) => arranged(show, sceneId, name, makeId))
      },
    )
  }

  /** Takes away what layouts that were tried and left have left behind: nothing that is seen, so nothing to undo. */
  function tidy(): void {
    taken = null
    const isWaiting = waited !== null && showStore.scene === waited
    showStore.amend((show) => withoutIdleParts(show, hiddenBefore))
    if (isWaiting) waited = showStore.scene
  }

  /** Gives what was chosen after the layout its place. */
  function takeAgain(): void {
    if (taken !== null && taken.sceneId === showStore.sceneId) take(taken.name)
  }

  function open(): void {
    if (taken?.sceneId !== showStore.sceneId) taken = null
    isOpen.value = true
    hiddenBefore = showStore.show === null ? new Set() : hiddenParts(showStore.show)
    const ids = (showStore.scene?.layers ?? []).flatMap((layer) => inputIdOf(layer) ?? [])
    const cameras = (showStore.show?.inputs ?? []).filter(isCamera).filter(({ id }) => ids.includes(id))
    void lookIn(cameras.map(({ id }) => id))
  }

  return { isOpen, side, drafts, take, takeAgain, open, tidy }
}
