// What the depth strip has to say, and what the presenter does not want to hear again.
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { depthAdvice, depthFix } from '../../core/layout/depth-advice.ts'
import { curesFor, cured, type CoverCure } from '../../core/layout/unseen.ts'
import { moveLayer } from '../../core/show/edits.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useHeads } from '../inputs/use-heads.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useSettledScene, type SettledScene } from '../show/use-settled-scene.ts'

const MOST_DISMISSED = 200

export function useDepthNotes() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const { heads } = useHeads()
  const dismissed = useLocalStorage<string[]>('green-room:depth-notes', [])

  const layers = computed(() => showStore.scene?.layers ?? [])
  const nameOf = (layerId: string) => layers.value.find((layer) => layer.id === layerId)?.name ?? ''

  const { now, settled } = useSettledScene()
  const first = computed(() => firstOf(settled.value))

  function firstOf(on: SettledScene | null) {
    if (on === null) return null
    const { show, scene } = on
    const advice = depthAdvice(show, scene, engine.infos).find((one) => one.kind === 'trouble' || !dismissed.value.includes(keyOf(one)))
    if (advice === undefined) return null
    const cures = advice.kind === 'trouble' ? curesFor(show, scene, advice) : []
    return { ...advice, fix: depthFix(show, scene, engine.infos, advice), cures }
  }

  const note = computed(() => {
    const advice = first.value
    if (advice === null) return null
    const names = { front: shortened(nameOf(advice.coveredBy)), back: shortened(nameOf(advice.layerId)) }
    const share = `${Math.round(advice.hiddenShare * 100)} %`
    return {
      kind: advice.kind,
      words: advice.hiddenShare > 0.995 ? t('build.hidesAll', names) : t('build.hides', { ...names, share }),
      fix: advice.fix === null ? null : t(advice.fix.way === 'behind' ? 'build.sendBehind' : 'build.bringForward', names),
    }
  })

  /** Makes the move, and returns the layer that moved; null when there was none to make. */
  function fix(): string | null {
    const move = firstOf(now.value)?.fix
    const { sceneId } = showStore
    if (move === undefined || move === null || sceneId === null) return null
    showStore.edit(t('edits.moveLayer', { name: nameOf(move.layerId) }), (show) => moveLayer(show, sceneId, move.layerId, move.index))
    return move.layerId
  }

  /** What else can be done, in words. */
  const cures = computed(() => {
    const advice = first.value
    if (advice === null) return []
    const front = shortened(nameOf(advice.coveredBy))
    return advice.cures.map((cure) => ({ label: t(`build.cures.${cure}`, { front }), run: () => cureBy(cure) }))
  })

  function cureBy(cure: CoverCure): void {
    const advice = firstOf(now.value)
    const { sceneId } = showStore
    if (advice === null || sceneId === null) return
    const facts = { infos: engine.infos, heads: heads.value }
    showStore.edit(t(`edits.cures.${cure}`, { name: nameOf(advice.coveredBy) }), (show) => cured(show, sceneId, advice, cure, facts, makeId))
    showStore.selectLayer(advice.coveredBy)
  }

  function dismiss(): void {
    if (first.value !== null) dismissed.value = [...dismissed.value, keyOf(first.value)].slice(-MOST_DISMISSED)
  }

  return { note, fix, cures, dismiss }
}

const LONGEST_NAME = 22

/** A name gives way before the words around it do. */
function shortened(name: string): string {
  return name.length > LONGEST_NAME ? `${name.slice(0, LONGEST_NAME - 1).trimEnd()}…` : name
}

function keyOf({ layerId, coveredBy }: { readonly layerId: string; readonly coveredBy: string }): string {
  return `${layerId} ${coveredBy}`
}
