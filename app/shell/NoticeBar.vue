<script setup lang="ts">
// What needs the presenter's attention, on a card that moves nothing. Usually empty. News goes by itself; the rest stays until it is acted on.
import { layersOf } from '../../core/layers/tree.ts'
import { Info, TriangleAlert } from 'lucide-vue-next'
import { useTimeoutFn } from '@vueuse/core'
import { computed, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import BaseButton from '../base/BaseButton.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { useAirStore } from '../air/air.store.ts'
import { useLinkStore } from '../link/link.store.ts'
import { useSitesStore } from '../sites/sites.store.ts'
import { useShowStore } from '../show/show.store.ts'

/** How long a message stays that asks for nothing: long enough to be read twice. */
const PASSING_MS = 20_000

interface Notice {
  readonly text: string
  readonly act?: string
  readonly run?: () => void
  /** Nothing is wrong. */
  readonly isNews?: boolean
  /** It goes by itself: nobody has to do anything. */
  readonly passes?: boolean
}

const { t } = useI18n()
const route = useRoute()
const showStore = useShowStore()
const engine = useEngineStore()
const air = useAirStore()
const link = useLinkStore()
const sites = useSitesStore()
const close = (run: () => void) => ({ act: t('errors.close'), run })

/** Names of the layers that the audience does not see for want of a picture. */
const leftOut = computed(() => {
  const ids = air.isFeedOn ? (engine.stats?.feed.leftOut ?? []) : []
  const layers = air.onAirShow?.scenes.flatMap(layersOf) ?? []
  return ids.map((id) => layers.find((layer) => layer.id === id)?.name ?? '').join(', ')
})

const trouble = computed<Notice | null>(() => {
  if (engine.failure !== null) return { text: t('engine.failed', { reason: engine.failure }), act: t('engine.restart'), run: () => engine.restart() }
  if (!air.canFeed) return { text: t('feed.unsupported') }
  const { saveState } = showStore
  if (saveState.kind === 'unkept') return { text: t('save.help.unkept') }
  if (saveState.kind === 'refused') return { text: t('save.help.refused', { why: saveState.why }) }
  if (air.isFeedTaken) return { text: t('feed.taken'), ...close(() => (air.isFeedTaken = false)) }
  if (showStore.role === 'watching') return { text: t('tabs.readOnly'), act: t('tabs.takeOver'), run: () => link.takeOver() }
  if (engine.hasRestarted) return { text: t('engine.restarted'), isNews: true, passes: true, ...close(() => (engine.hasRestarted = false)) }
  // The audience saw the frame before: no alarm.
  if (engine.faulted !== null)
    return { text: t('engine.faulted', { reason: engine.faulted }), isNews: true, passes: true, ...close(() => (engine.faulted = null)) }
  if (leftOut.value !== '') return { text: t('feed.leftOut', { names: leftOut.value }) }
  if (engine.assetFailure !== null) return { text: t('engine.assetFailed', { reason: engine.assetFailure }), ...close(() => (engine.assetFailure = null)) }
  return null
})

/** A step back, when there is one. */
const undoAct = () => (showStore.undoLabel === null ? {} : { act: t('header.undo', { what: showStore.undoLabel }), run: () => showStore.undo() })

const news = computed<Notice | null>(() => {
  if (!air.isFeedOn) return null
  if (!air.isOnAirHere && showStore.show !== null) {
    const words = { scene: air.onAirName, show: air.onAirShow?.name ?? '' }
    return air.isOnAirShowOpen ? { text: t('feed.heldGone', words), ...undoAct(), isNews: true } : { text: t('feed.heldOther', words), isNews: true }
  }
  if (air.isFeedNew && air.meetingCount === 0) {
    return {
      text: `${t('feed.choose', { scene: air.onAirName })} ${t('feed.chooseHint')}`,
      ...close(() => (air.isFeedNew = false)),
      isNews: true,
      passes: true,
    }
  }
  return null
})

const notice = computed(() => {
  if (route.name !== 'build' && route.name !== 'bench' && route.name !== 'devices') return null
  return trouble.value ?? (sites.asking.length > 0 ? null : news.value)
})

const { start, stop } = useTimeoutFn(() => notice.value?.run?.(), PASSING_MS, { immediate: false })
watch(
  () => (notice.value?.passes === true ? notice.value.text : null),
  (text) => (text === null ? stop() : start()),
  { immediate: true },
)
</script>

<template>
  <div
    v-if="notice"
    :role="notice.isNews ? 'status' : 'alert'"
    class="rounded-lg border border-line bg-wash px-3 py-2 leading-snug shadow-lg"
    data-testid="notice"
  >
    <p class="flex gap-2">
      <component :is="notice.isNews ? Info : TriangleAlert" :size="16" class="mt-px shrink-0 text-brass" aria-hidden="true" />
      <span class="min-w-0 flex-1">{{ notice.text }}</span>
    </p>
    <BaseButton v-if="notice.act" class="mt-2 w-full py-1!" @click="notice.run">{{ notice.act }}</BaseButton>
  </div>
</template>
