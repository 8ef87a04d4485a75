// Which layers of the scene on the stage can't be seen, why, and mending it.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { mended, unseenIn, type Unseen } from '../../core/layout/unseen.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useHeads } from '../inputs/use-heads.ts'
import { useShowStore } from '../show/show.store.ts'
import { useSettledScene } from '../show/use-settled-scene.ts'

export function useUnseen() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const { heads } = useHeads()
  const { settled } = useSettledScene()

  const all = computed<ReadonlyMap<string, Unseen>>(() => {
    if (settled.value === null) return new Map()
    const { show, scene } = settled.value
    const found = unseenIn(show, scene, engine.infos)
    // At first pictures are on their way: that is nothing to warn of.
    return engine.hasFirstPicture ? found : new Map([...found].filter(([, { reason }]) => reason !== 'missing'))
  })

  /** Why a layer can't be seen, in words, and what mends it; null when it can be seen. */
  function unseenOf(layerId: string): { readonly short: string; readonly why: string; readonly cure: string | null; readonly mend: () => void } | null {
    const found = all.value.get(layerId)
    if (found === undefined) return null
    const { reason, by } = found
    const name = showStore.scene?.layers.find(({ id }) => id === by)?.name ?? ''
    const hasCure = reason !== 'empty' && reason !== 'missing'
    return {
      short: t(`unseen.short.${reason}`),
      why: t(`unseen.why.${reason}`, { name }),
      cure: hasCure ? t(`unseen.cure.${reason}`) : null,
      mend: () => mend(found),
    }
  }

  function mend(found: Unseen): void {
    const { sceneId } = showStore
    const layer = showStore.scene?.layers.find(({ id }) => id === found.layerId)
    if (sceneId === null || layer === undefined) return
    const facts = { infos: engine.infos, heads: heads.value }
    showStore.edit(t('edits.mend', { name: layer.name }), (show) => mended(show, sceneId, found, facts) ?? show)
  }

  return { unseenOf }
}
