<script setup lang="ts">
// Which device a camera input takes, what it is doing, and what to do when it does not come.
import { RefreshCw } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { updateInput } from '../../core/show/edits.ts'
import type { CameraInput } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import SelectMenu from '../base/SelectMenu.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { useShowStore } from '../show/show.store.ts'
import DeviceMenu from './DeviceMenu.vue'
import { useDevices } from './use-devices.ts'

const props = defineProps<{ input: CameraInput }>()
const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const { needsPermission, ask } = useDevices()

const sizes = [
  { widthPx: 1280, heightPx: 720 },
  { widthPx: 1920, heightPx: 1080 },
  { widthPx: 640, heightPx: 360 },
]
const rates = [30, 60, 15]
const formats = sizes.flatMap((size) =>
  rates.map((rate) => ({ value: `${size.widthPx}×${size.heightPx}×${rate}`, label: `${size.widthPx}×${size.heightPx} · ${rate}` })),
)

const state = computed(() => engine.cameraStates[props.input.id] ?? 'starting')
const format = computed(() => `${props.input.widthPx}×${props.input.heightPx}×${props.input.frameRate}`)

function chooseFormat(value: string): void {
  const [widthPx, heightPx, frameRate] = value.split('×').map(Number)
  const part = { widthPx: widthPx!, heightPx: heightPx!, frameRate: frameRate! }
  showStore.edit(t('edits.device', { name: props.input.name }), (show) =>
    updateInput(show, props.input.id, (input) => (input.kind === 'camera' ? { ...input, ...part } : input)),
  )
}
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] gap-2">
    <DeviceMenu :input="input" />
    <SelectMenu class="font-num text-[12px]" :model-value="format" :label="t('camera.size')" :options="formats" @update:model-value="chooseFormat" />
    <p v-if="state !== 'live'" role="status" class="rounded-md bg-wash px-2.5 py-2 leading-snug">
      <b class="font-semibold">{{ t(`camera.${state}`) }}.</b> {{ t(`camera.help.${state}`) }}
    </p>
    <BaseButton v-if="state !== 'live' && state !== 'starting'" :icon="RefreshCw" @click="engine.retryCamera(input.id)">{{ t('camera.retry') }}</BaseButton>
    <div v-if="needsPermission">
      <BaseButton @click="ask">{{ t('camera.allow') }}</BaseButton>
      <p class="mt-1 text-soft">{{ t('camera.allowHint') }}</p>
    </div>
  </div>
</template>
