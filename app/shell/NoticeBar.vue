<script setup lang="ts">
// What needs the presenter's attention, in one line under the header. Usually empty.
import { TriangleAlert } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import BaseButton from '../base/BaseButton.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { useShowStore } from '../show/show.store.ts'

const { t } = useI18n()
const route = useRoute()
const showStore = useShowStore()
const engine = useEngineStore()

/** Names of the layers that the audience does not see for want of a picture. */
const leftOut = computed(() => {
  const ids = engine.isFeedOn ? (engine.stats?.feed.leftOut ?? []) : []
  const layers = showStore.show?.scenes.flatMap((scene) => scene.layers) ?? []
  return ids.map((id) => layers.find((layer) => layer.id === id)?.name ?? '').join(', ')
})

const notice = computed(() => {
  if (route.name !== 'build' && route.name !== 'bench') return null
  if (engine.failure !== null) return { text: t('engine.failed', { reason: engine.failure }), act: t('engine.restart'), run: () => engine.restart() }
  if (!engine.canFeed) return { text: t('feed.unsupported'), act: null, run: () => undefined }
  const { saveState } = showStore
  if (saveState.kind === 'unkept') return { text: t('save.help.unkept'), act: null, run: () => undefined }
  if (saveState.kind === 'refused') return { text: t('save.help.refused', { why: saveState.why }), act: null, run: () => undefined }
  if (showStore.role === 'watching') return { text: t('tabs.readOnly'), act: t('tabs.takeOver'), run: () => engine.takeOver() }
  if (engine.isFeedTaken) return { text: t('feed.taken'), act: t('errors.close'), run: () => (engine.isFeedTaken = false) }
  if (engine.hasRestarted) return { text: t('engine.restarted'), act: t('errors.close'), run: () => (engine.hasRestarted = false) }
  if (engine.faulted !== null) return { text: t('engine.faulted', { reason: engine.faulted }), act: t('errors.close'), run: () => (engine.faulted = null) }
  if (leftOut.value !== '') return { text: t('feed.leftOut', { names: leftOut.value }), act: null, run: () => undefined }
  if (engine.assetFailure !== null)
    return { text: t('engine.assetFailed', { reason: engine.assetFailure }), act: t('errors.close'), run: () => (engine.assetFailure = null) }
  return null
})
</script>

<template>
  <div class="min-h-0">
    <div v-if="notice" role="alert" class="flex items-center gap-3 border-b border-line bg-wash px-4 py-1.5">
      <TriangleAlert :size="16" class="shrink-0 text-brass" aria-hidden="true" />
      <p class="min-w-0 flex-1">{{ notice.text }}</p>
      <BaseButton v-if="notice.act" @click="notice.run">{{ notice.act }}</BaseButton>
    </div>
  </div>
</template>
