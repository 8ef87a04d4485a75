<script setup lang="ts">
// One camera: its live picture, which device it is, what it is doing, and what to do when it does not come.
import { isFailure } from '../../engine/live/live-state.ts'
import { isCamera } from '../../core/inputs/camera.ts'
import { updateInputOf } from '../../core/show/edits.ts'
import { RefreshCw, WandSparkles } from 'lucide-vue-next'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { RouterLink } from 'vue-router'
import type { CameraInput } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { useInputsStore } from '../inputs/inputs.store.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { useShowStore } from '../show/show.store.ts'
import DeviceMenu from './DeviceMenu.vue'
import FormatMenu from './FormatMenu.vue'
import { CALM_RATE, RateWatch } from './rate-watch.ts'

const props = defineProps<{ input: CameraInput }>()
const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const inputs = useInputsStore()
const state = computed(() => inputs.statusOf(props.input.id))
const arriving = computed(() => engine.stats?.inputs[props.input.id])
const watchRate = new RateWatch()
const isBehind = ref(false)
watch(
  () => engine.stats,
  (stats) => {
    if (stats === null || state.value !== 'live') return
    isBehind.value = watchRate.note({ wantedFps: props.input.frameRate, arrivingFps: arriving.value?.fps ?? 0, frameMs: stats.frameMs })
  },
)

function slowDown(): void {
  showStore.edit(t('edits.device', { name: props.input.name }), (show) =>
    updateInputOf(show, props.input.id, isCamera, (input) => ({ ...input, frameRate: CALM_RATE })),
  )
}

const words = computed(() => {
  const now = arriving.value
  if (state.value !== 'live' || now === undefined || now.widthPx === 0) return t(`camera.states.${state.value}`)
  return t('devices.liveAt', { width: now.widthPx, height: now.heightPx, rate: now.fps.toFixed(0) })
})
</script>

<template>
  <article class="mb-4" data-testid="camera-panel">
    <div class="relative mb-2 aspect-video overflow-hidden rounded-lg bg-well">
      <LivePicture
        class="h-full w-full"
        :request="{ kind: 'input', inputId: input.id, stage: 'before', isSmall: true }"
        :width-px="640"
        :height-px="360"
        :label="t('devices.pictureOf', { name: input.name })"
      />
      <p v-if="state !== 'live'" class="absolute inset-0 grid place-items-center p-4 text-center text-white/85">{{ t(`camera.states.${state}`) }}</p>
    </div>
    <div class="mb-1.5 flex items-baseline gap-2">
      <h3 dir="auto" class="min-w-0 truncate font-semibold" :title="input.name">{{ input.name }}</h3>
      <p class="ms-auto font-num text-[11.5px] whitespace-nowrap text-soft tabular-nums" role="status">{{ words }}</p>
    </div>
    <div class="grid grid-cols-[minmax(0,1fr)_minmax(0,132px)] gap-1.5">
      <DeviceMenu :input="input" />
      <FormatMenu :input="input" />
    </div>
    <p v-if="isFailure(state)" class="mt-2 rounded-md bg-wash px-2.5 py-2 leading-snug" role="alert">
      {{ t(`camera.help.${state}`) }}
    </p>
    <div v-if="isBehind" role="status" class="mt-2 flex items-center gap-2 rounded-md bg-wash px-2.5 py-2 leading-snug">
      <p class="flex-1">{{ t('devices.tooFast', { rate: input.frameRate }) }}</p>
      <BaseButton class="py-0.5!" @click="slowDown">{{ t('devices.useRate', { rate: CALM_RATE }) }}</BaseButton>
    </div>
    <div class="mt-2 flex gap-1.5">
      <BaseButton v-if="isFailure(state)" :icon="RefreshCw" @click="inputs.retryCamera(input.id)">
        {{ t('camera.retry') }}
      </BaseButton>
      <RouterLink
        :to="{ name: 'bench', params: { showId: showStore.showId!, inputId: input.id } }"
        class="inline-flex min-h-7 items-center gap-1.5 rounded-md px-1 font-medium text-green hover:underline"
      >
        <WandSparkles :size="15" aria-hidden="true" />{{ t('devices.cleanUp') }}
      </RouterLink>
    </div>
  </article>
</template>
