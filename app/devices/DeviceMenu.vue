<script setup lang="ts">
// Which device a camera input takes: stand-ins and whatever the browser lists, in one list.
import { isCamera } from '../../core/inputs/camera.ts'
import { updateInputOf } from '../../core/show/edits.ts'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { standinCameras, type CameraInput } from '../../core/show/show.ts'
import SelectMenu from '../base/SelectMenu.vue'
import { useShowStore } from '../show/show.store.ts'
import { useDevices } from './use-devices.ts'

const props = defineProps<{ input: CameraInput }>()
const { t } = useI18n()
const showStore = useShowStore()
const { cameras } = useDevices()
const STANDIN = 'standin:'

const chosen = computed(() => (props.input.device.type === 'standin' ? `${STANDIN}${props.input.device.standin}` : props.input.device.deviceId))
/** Real cameras first; one that is not there now stays in the list under its name. */
const options = computed(() => {
  const { device } = props.input
  const isGone = device.type === 'device' && !cameras.value.some((camera) => camera.deviceId === device.deviceId)
  return [
    ...(isGone ? [{ value: device.deviceId, label: device.label || t('camera.states.missing'), detail: t('camera.states.missing') }] : []),
    ...cameras.value.map((camera) => ({ value: camera.deviceId, label: camera.label || t('build.addCamera') })),
    ...standinCameras.map((name) => ({ value: `${STANDIN}${name}`, label: t('camera.standin', { what: t(`standins.${name}`) }) })),
  ]
})

function choose(value: string): void {
  const standin = standinCameras.find((name) => `${STANDIN}${name}` === value)
  const camera = cameras.value.find((candidate) => candidate.deviceId === value)
  const device: CameraInput['device'] | null =
    standin !== undefined
      ? { type: 'standin', standin }
      : camera === undefined
        ? null
        : { type: 'device', deviceId: camera.deviceId, label: camera.label.slice(0, 200) }
  if (device === null) return
  showStore.edit(t('edits.device', { name: props.input.name }), (show) => updateInputOf(show, props.input.id, isCamera, (input) => ({ ...input, device })))
}
</script>

<template>
  <SelectMenu :model-value="chosen" :label="t('camera.choose')" :options="options" data-testid="device" @update:model-value="choose" />
</template>
