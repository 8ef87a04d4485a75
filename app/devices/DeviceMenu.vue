<script setup lang="ts">
// Which device a camera input takes: stand-ins and whatever the browser lists, in one list.
import { isCamera } from '../../core/inputs/camera.ts'
import { updateInputOf } from '../../core/show/edits.ts'
import { useI18n } from 'vue-i18n'
import type { CameraInput } from '../../core/show/show.ts'
import SelectMenu from '../base/SelectMenu.vue'
import { useShowStore } from '../show/show.store.ts'
import { useDeviceChoice } from './use-device-choice.ts'
import { useDevices } from './use-devices.ts'

const props = defineProps<{ input: CameraInput }>()
const { t } = useI18n()
const showStore = useShowStore()
const { valueOf, cameraOptions, cameraFor } = useDeviceChoice(useDevices())

function choose(value: string): void {
  const device = cameraFor(value)
  if (device === null) return
  showStore.edit(t('edits.device', { name: props.input.name }), (show) => updateInputOf(show, props.input.id, isCamera, (input) => ({ ...input, device })))
}
</script>

<template>
  <SelectMenu
    :model-value="valueOf(input.device)"
    :label="t('camera.choose')"
    :options="cameraOptions(input.device)"
    data-testid="device"
    @update:model-value="choose"
  />
</template>
