<script setup lang="ts">
// Which microphone is heard: whatever the browser lists by its own name, the stand-in, or none.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { updateMicrophone } from '../../core/show/edits.ts'
import type { Microphone } from '../../core/show/show.ts'
import SelectMenu from '../base/SelectMenu.vue'
import { useShowStore } from '../show/show.store.ts'
import { useDevices } from './use-devices.ts'

const props = defineProps<{ microphone: Microphone }>()
const { t } = useI18n()
const showStore = useShowStore()
const { microphones } = useDevices()
const NONE = 'none'
const STANDIN = 'standin'

const chosen = computed(() => (props.microphone.device.type === 'device' ? props.microphone.device.deviceId : props.microphone.device.type))
/** Real microphones first; one that is not there now stays in the list under its name. */
const options = computed(() => {
  const { device } = props.microphone
  const isGone = device.type === 'device' && !microphones.value.some(({ deviceId }) => deviceId === device.deviceId)
  return [
    ...(isGone ? [{ value: device.deviceId, label: device.label || t('voice.states.missing'), detail: t('voice.states.missing') }] : []),
    ...microphones.value.map(({ deviceId, label }) => ({ value: deviceId, label: label || t('devices.microphone') })),
    { value: STANDIN, label: t('devices.standinMicrophone') },
    { value: NONE, label: t('devices.noMicrophone') },
  ]
})

function choose(value: string): void {
  const found = microphones.value.find(({ deviceId }) => deviceId === value)
  const device: Microphone['device'] | null =
    value === NONE || value === STANDIN ? { type: value } : found === undefined ? null : { type: 'device', deviceId: value, label: found.label.slice(0, 200) }
  if (device !== null) showStore.edit(t('edits.microphone'), (show) => updateMicrophone(show, { device }))
}
</script>

<template>
  <SelectMenu :model-value="chosen" :label="t('devices.chooseMicrophone')" :options="options" data-testid="microphone-menu" @update:model-value="choose" />
</template>
