<script setup lang="ts">
// On every page: what is on air, how well it goes out, and the button that starts or ends it.
import { inputIdOf } from '../../core/layers/index.ts'
import { isCamera } from '../../core/inputs/camera.ts'
import { Square, Video } from 'lucide-vue-next'
import { useNow } from '@vueuse/core'
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { layersShownBy } from '../../core/layers/tree.ts'
import { useCommands } from '../commands/use-commands.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { useAirStore } from '../air/air.store.ts'
import { useShowStore } from '../show/show.store.ts'
import { announce } from './announce.ts'
import { clockWords } from './clock-words.ts'

/** A camera that gives less than this share of the show's rate is said to. */
const SLOW_SHARE = 0.9

const { t } = useI18n()
const engine = useEngineStore()
const air = useAirStore()
const showStore = useShowStore()
const { commands, run } = useCommands()
const control = useTemplateRef<HTMLDivElement>('control')

const figures = computed(() => {
  const feed = engine.stats?.feed
  if (feed === undefined || !air.isFeedOn) return null
  return t('feed.figures', { width: feed.widthPx, height: feed.heightPx, fps: feed.fps.toFixed(0) })
})
/** The slowest camera on air, when it gives less than the show asks for. */
const slowCamera = computed(() => {
  const show = air.onAirShow
  const scene = show?.scenes.find((candidate) => candidate.id === air.onAirSceneId)
  const onAir = scene === undefined ? [] : scene.layers.flatMap((layer) => [layer, ...layersShownBy(show!, layer)])
  // A clip has the rate that it was made with, and a still screen none.
  const cameras = new Set(show?.inputs.filter(isCamera).map(({ id }) => id))
  const rates = onAir.flatMap((layer) => {
    const inputId = inputIdOf(layer) ?? ''
    const rate = layer.visible && cameras.has(inputId) ? engine.stats?.inputs[inputId]?.fps : undefined
    return rate === undefined || rate === 0 ? [] : [rate]
  })
  const slowest = Math.min(...rates)
  return show !== null && slowest < show.canvas.frameRate * SLOW_SHARE ? Math.round(slowest) : null
})
const condition = computed(() => {
  if (air.showsCard) return t('feed.card')
  if (engine.stats?.feed.isHalved === true) return t('feed.halved')
  if (slowCamera.value !== null) return t('feed.slow', { rate: slowCamera.value })
  return t('feed.lost', { lost: engine.stats?.feed.lostLastMinute ?? 0 })
})
const conditionHint = computed(() => t(engine.stats?.feed.isHalved === true && !air.showsCard ? 'feed.halvedHint' : 'feed.lostHint'))
const now = useNow({ interval: 1000 })
const timeOnAir = computed(() => (air.sinceMs === null ? '' : clockWords(now.value.getTime() - air.sinceMs)))
const refusal = computed(() => {
  if (!air.canFeed) return t('feed.unsupported')
  return showStore.role === 'watching' ? t('feed.watching') : null
})

// The button that was pressed is gone: the one in its place takes the focus.
watch(
  () => air.isFeedOn,
  async (isOn) => {
    announce(isOn ? t('feed.pageTitle', { scene: air.onAirName }) : t('feed.stopped'))
    const hadFocus = control.value?.contains(document.activeElement) === true
    await nextTick()
    if (hadFocus) control.value?.querySelector('button')?.focus()
  },
)
</script>

<template>
  <div ref="control" class="flex min-w-0 items-center gap-2.5">
    <template v-if="air.isFeedOn">
      <div v-if="figures" class="text-end leading-tight max-[1120px]:hidden">
        <div class="font-num text-[11.5px] whitespace-nowrap tabular-nums">{{ figures }}</div>
        <div class="text-[11.5px] whitespace-nowrap text-soft" :data-tip="conditionHint">{{ condition }} · {{ t('feed.meetings', air.meetingCount) }}</div>
      </div>
      <span
        class="inline-flex h-7 min-w-0 items-center gap-1.5 rounded-md bg-[#b83425] px-2 font-semibold whitespace-nowrap text-white"
        :data-tip="
          air.showsCard ? t('feed.cardHint', { scene: air.onAirName }) : t('feed.onAirTitle', { scene: air.onAirName, show: air.onAirShow?.name ?? '' })
        "
        data-testid="on-air-sign"
      >
        <span class="size-2 shrink-0 rounded-full bg-white" aria-hidden="true"></span>
        <span v-if="air.showsCard" class="shrink-0">{{ t('feed.cardSign') }}</span>
        <template v-else>
          <span class="shrink-0">{{ t('build.onAir') }}</span>
          <span dir="auto" class="max-w-44 truncate font-medium max-[1200px]:max-w-28 max-[900px]:hidden">{{ air.onAirName }}</span>
        </template>
        <span class="shrink-0 font-num text-[12px] font-normal tabular-nums" data-testid="time-on-air">{{ timeOnAir }}</span>
      </span>
      <button
        type="button"
        class="inline-flex h-8 items-center gap-1.5 rounded-lg border-[1.5px] border-tally px-2.5 font-semibold whitespace-nowrap text-tally hover:bg-sunk"
        @click="run('stopFeed')"
      >
        <Square :size="12" fill="currentColor" aria-hidden="true" />
        {{ t('feed.stop') }}
      </button>
    </template>
    <template v-else-if="showStore.showId">
      <p v-if="refusal" id="feed-refusal" class="max-w-44 text-[11.5px] leading-tight text-soft max-[1120px]:sr-only">{{ refusal }}</p>
      <button
        type="button"
        class="inline-flex h-8 items-center gap-1.5 rounded-lg bg-green px-3 font-semibold whitespace-nowrap text-on-green hover:brightness-110 disabled:opacity-45"
        :disabled="commands.startFeed.whyNot !== null"
        :title="refusal ?? commands.startFeed.whyNot ?? undefined"
        :aria-describedby="refusal ? 'feed-refusal' : undefined"
        @click="run('startFeed')"
      >
        <Video :size="16" aria-hidden="true" />
        {{ t('feed.start') }}
      </button>
    </template>
  </div>
</template>
