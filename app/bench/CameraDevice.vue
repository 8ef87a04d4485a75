<script setup lang="ts">
// Which device a camera input takes, what it is doing, and what to do when it does not come.
import { RefreshCw } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { updateInput } from '../../core/show/edits.ts'
import { standinCameras, type CameraInput } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { useShowStore } from '../show/show.store.ts'
import { useDevices } from './use-devices.ts'

const props = defineProps<{ input: CameraInput }>()
const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const { cameras, needsPermission, ask } = useDevices()
const STANDIN = 'standin:'
const sizes = [
  { widthPx: 1280, heightPx: 720 },
  { widthPx: 1920, heightPx: 1080 },
  { widthPx: 640, heightPx: 360 },
]
const rates = [30, 60, 15]

const state = computed(() => engine.cameraStates[props.input.id] ?? 'starting')
const chosen = computed(() => (props.input.device.type === 'standin' ? `${STANDIN}${props.input.device.standin}` : props.input.device.deviceId))
/** A device that is not there now stays in the list under its name. */
const isGone = computed(() => !chosen.value.startsWith(STANDIN) && !cameras.value.some((camera) => camera.deviceId === chosen.value))
const format = computed(() => `${props.input.widthPx}×${props.input.heightPx}×${props.input.frameRate}`)

function change(part: Partial<CameraInput>): void {
  showStore.edit(t('edits.device'), (show) => updateInput(show, props.input.id, (input) => (input.kind === 'camera' ? { ...input, ...part } : input)))
}

function choose(event: Event): void {
  const { value } = event.target as HTMLSelectElement
  const standin = standinCameras.find((name) => `${STANDIN}${name}` === value)
  if (standin !== undefined) return change({ device: { type: 'standin', standin } })
  const camera = cameras.value.find((candidate) => candidate.deviceId === value)
  if (camera !== undefined) change({ device: { type: 'device', deviceId: camera.deviceId, label: camera.label } })
}

function chooseFormat(event: Event): void {
  const [widthPx, heightPx, frameRate] = (event.target as HTMLSelectElement).value.split('×').map(Number)
  change({ widthPx: widthPx!, heightPx: heightPx!, frameRate: frameRate! })
}
</script>

<template>
  <div class="grid gap-2">
    <select
      :value="chosen"
      :aria-label="t('camera.choose')"
      class="w-full min-w-0 truncate rounded-md border border-line bg-raised px-2 py-1.5"
      data-testid="device"
      @change="choose"
    >
      <option v-for="name in standinCameras" :key="name" :value="`${STANDIN}${name}`">{{ t('camera.standin', { what: t(`standins.${name}`) }) }}</option>
      <option v-if="isGone && input.device.type === 'device'" :value="chosen">{{ input.device.label || t('camera.missing') }}</option>
      <option v-for="camera in cameras" :key="camera.deviceId" :value="camera.deviceId">{{ camera.label }}</option>
    </select>
    <select
      :value="format"
      :aria-label="t('camera.size')"
      class="w-full rounded-md border border-line bg-raised px-2 py-1.5 font-num text-[12px]"
      @change="chooseFormat"
    >
      <template v-for="size in sizes" :key="size.widthPx">
        <option v-for="rate in rates" :key="rate" :value="`${size.widthPx}×${size.heightPx}×${rate}`">
          {{ size.widthPx }}×{{ size.heightPx }} · {{ rate }}
        </option>
      </template>
    </select>
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
