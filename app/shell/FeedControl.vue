<script setup lang="ts">
import { Cast, Square } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useEngineStore } from '../engine/engine.store.ts'

const { t } = useI18n()
const engine = useEngineStore()
const figures = computed(() => {
  const feed = engine.stats?.feed
  if (feed === undefined || !engine.isFeedOn) return null
  return t('feed.figures', { width: feed.widthPx, height: feed.heightPx, fps: feed.fps.toFixed(0) })
})
</script>

<template>
  <div class="flex items-center gap-3">
    <div v-if="figures" class="text-right leading-tight" role="status">
      <div class="font-num text-[11.5px] whitespace-nowrap tabular-nums">{{ figures }}</div>
      <div class="text-[11.5px] whitespace-nowrap text-soft">
        <template v-if="engine.stats?.feed.showsCard">{{ t('feed.card') }}</template>
        <template v-else>{{ t('feed.lost', { lost: engine.stats?.feed.lost ?? 0 }) }}</template>
        · {{ t('feed.meetings', engine.meetingCount) }}
      </div>
    </div>
    <button
      v-if="!engine.isFeedOn"
      type="button"
      class="inline-flex items-center gap-1.5 rounded-lg bg-green px-3 py-1.5 font-semibold whitespace-nowrap text-on-green hover:brightness-110 disabled:opacity-45"
      :disabled="!engine.canFeed"
      :title="engine.canFeed ? undefined : t('feed.unsupported')"
      @click="engine.startFeed()"
    >
      <Cast :size="16" aria-hidden="true" />
      {{ t('feed.start') }}
    </button>
    <button
      v-else
      type="button"
      class="inline-flex items-center gap-1.5 rounded-lg border-[1.5px] border-tally px-3 py-1.5 font-semibold whitespace-nowrap text-tally hover:bg-sunk"
      @click="engine.stopFeed()"
    >
      <Square :size="12" fill="currentColor" aria-hidden="true" />
      {{ t('feed.stop') }}
    </button>
  </div>
</template>
