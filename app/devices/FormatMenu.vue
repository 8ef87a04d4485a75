<script setup lang="ts">
// Size and rate that a camera is asked for: what it really offers, and no more.
import { isCamera } from '../../core/inputs/camera.ts'
import { updateInputOf } from '../../core/show/edits.ts'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { figure } from '../base/decimals.ts'
import type { CameraInput } from '../../core/show/show.ts'
import SelectMenu from '../base/SelectMenu.vue'
import { useInputsStore } from '../inputs/inputs.store.ts'
import { useShowStore } from '../show/show.store.ts'
import { formatsOf } from './camera-formats.ts'

const props = defineProps<{ input: CameraInput }>()
const { t } = useI18n()
const showStore = useShowStore()
const inputs = useInputsStore()

const wanted = computed(() => ({ widthPx: props.input.widthPx, heightPx: props.input.heightPx, frameRate: props.input.frameRate }))
const keyOf = ({ widthPx, heightPx, frameRate }: { widthPx: number; heightPx: number; frameRate: number }) => `${widthPx}×${heightPx}×${frameRate}`
const formats = computed(() => formatsOf(props.input.device.type === 'device' ? (inputs.offers[props.input.id] ?? null) : null, wanted.value))
const options = computed(() =>
  formats.value.map((format) => ({ value: keyOf(format), label: figure(`${format.widthPx}×${format.heightPx} · ${format.frameRate}`) })),
)

function choose(key: string): void {
  const format = formats.value.find((candidate) => keyOf(candidate) === key)
  if (format === undefined) return
  showStore.edit(t('edits.device', { name: props.input.name }), (show) => updateInputOf(show, props.input.id, isCamera, (input) => ({ ...input, ...format })))
}
</script>

<template>
  <SelectMenu class="font-num text-[12px]" :model-value="keyOf(wanted)" :label="t('camera.size')" :options="options" @update:model-value="choose" />
</template>
