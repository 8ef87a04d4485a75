<script setup lang="ts">
// Which microphone is heard: whatever the browser lists by its own name, the stand-in, or none.
import { useI18n } from 'vue-i18n'
import { updateMicrophone } from '../../core/show/edits.ts'
import type { Microphone } from '../../core/show/show.ts'
import SelectMenu from '../base/SelectMenu.vue'
import { useShowStore } from '../show/show.store.ts'
import { useDeviceChoice } from './use-device-choice.ts'
import { useDevices } from './use-devices.ts'

defineProps<{ microphone: Microphone }>()
const { t } = useI18n()
const showStore = useShowStore()
const { valueOf, microphoneOptions, microphoneFor } = useDeviceChoice(useDevices())

function choose(value: string): void {
  const device = microphoneFor(value)
  if (device !== null) showStore.edit(t('edits.microphone'), (show) => updateMicrophone(show, { device }))
}
</script>

<template>
  <SelectMenu
    :model-value="valueOf(microphone.device)"
    :label="t('devices.chooseMicrophone')"
    :options="microphoneOptions(microphone.device)"
    data-testid="microphone-menu"
    @update:model-value="choose"
  />
</template>
