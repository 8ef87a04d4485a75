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

const notice = computed(() => {
  if (route.name !== 'build' && route.name !== 'bench') return null
  if (engine.failure !== null) return { text: t('engine.failed', { reason: engine.failure }), act: t('engine.restart'), run: () => engine.restart() }
  if (!engine.canFeed) return { text: t('feed.unsupported'), act: null, run: () => undefined }
  if (!showStore.isEditor) return { text: t('tabs.readOnly'), act: t('tabs.takeOver'), run: takeOver }
  if (showStore.saveState.kind === 'stale') return { text: t('save.stale'), act: t('tabs.takeOver'), run: takeOver }
  if (engine.assetFailure !== null)
    return { text: t('engine.assetFailed', { reason: engine.assetFailure }), act: t('errors.close'), run: () => (engine.assetFailure = null) }
  return null
})

async function takeOver(): Promise<void> {
  await showStore.reload()
  engine.takeOver()
}
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
