<script setup lang="ts">
// A clean window of the feed, and a device or a file of this computer.
import { AppWindow, HardDriveUpload, RefreshCw, Square } from 'lucide-vue-next'
import { computed, onMounted, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import BaseButton from '../base/BaseButton.vue'
import SelectMenu from '../base/SelectMenu.vue'
import { useAirStore } from '../air/air.store.ts'
import { useOutputsStore } from './outputs.store.ts'

const { t } = useI18n()
const air = useAirStore()
const outputs = useOutputsStore()
const FILE = 'file'
const chosen = ref(FILE)
const options = computed(() => [
  ...(outputs.ways?.devices ?? []).map(({ path, name }) => ({ value: path, label: `${name} · ${path}` })),
  { value: FILE, label: t('outputs.file'), detail: outputs.ways?.filePath },
])
/** Why nothing can be sent now. */
const obstacle = computed(() => {
  if (outputs.ways === null) return null
  if (outputs.ways.ffmpeg === null) return t('outputs.noFfmpeg')
  return air.isFeedOn ? null : t('outputs.feedFirst')
})
const status = computed(() => {
  const { deviceState } = outputs
  if (deviceState.kind === 'running') return t('outputs.running', { path: deviceState.path })
  if (deviceState.kind === 'starting') return t('outputs.starting')
  return outputs.ways?.devices.length === 0 && outputs.ways.ffmpeg !== null ? t('outputs.noDevice') : t('outputs.deviceHelp')
})

onMounted(() => void outputs.refreshWays())
// A device that is there is what most are here for.
watch(
  () => outputs.ways?.devices[0]?.path,
  (path) => (chosen.value = path ?? FILE),
)

function send(): void {
  outputs.startDevice(chosen.value === FILE ? { type: 'file' } : { type: 'device', path: chosen.value })
}
</script>

<template>
  <div data-testid="outputs">
    <BaseButton :icon="AppWindow" @click="outputs.openWindow()">{{ t('outputs.window') }}</BaseButton>
    <p class="mt-1 leading-snug text-soft">{{ t('outputs.windowHelp') }}</p>
    <p v-if="outputs.isWindowBlocked" role="alert" class="mt-1 rounded-md bg-wash px-2.5 py-2">{{ t('outputs.windowBlocked') }}</p>
    <h3 class="mt-3 mb-1 font-semibold">{{ t('outputs.device') }}</h3>
    <div class="flex items-center gap-1.5">
      <SelectMenu v-model="chosen" class="min-w-0 flex-1" :label="t('outputs.device')" :options="options" />
      <BaseButton v-if="outputs.deviceState.kind !== 'idle'" class="py-0.5!" :icon="Square" @click="outputs.stopDevice()">{{ t('outputs.stop') }}</BaseButton>
      <BaseButton v-else class="py-0.5!" :icon="HardDriveUpload" :disabled="obstacle !== null || outputs.ways === null" @click="send">
        {{ t('outputs.send') }}
      </BaseButton>
    </div>
    <p role="status" class="mt-1 leading-snug break-words text-soft">{{ status }}</p>
    <p v-if="obstacle" class="mt-1 flex items-center gap-2 leading-snug">
      {{ obstacle }}
      <BaseButton v-if="outputs.ways?.ffmpeg === null" class="py-0.5!" :icon="RefreshCw" @click="outputs.refreshWays()">{{ t('outputs.look') }}</BaseButton>
    </p>
    <p v-if="outputs.deviceFailure" role="alert" class="mt-1 rounded-md bg-wash px-2.5 py-2 leading-snug break-words">{{ outputs.deviceFailure }}</p>
  </div>
</template>
