<script setup lang="ts">
// The camera's own controls, as its driver offers them: left to the camera, or held.
import { isCamera } from '../../core/inputs/camera.ts'
import { updateInputOf } from '../../core/show/edits.ts'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { CameraInput } from '../../core/show/show.ts'
import SelectMenu from '../base/SelectMenu.vue'
import SliderRow from '../base/SliderRow.vue'
import { useInputsStore } from '../inputs/inputs.store.ts'
import { useShowStore } from '../show/show.store.ts'

const props = defineProps<{ input: CameraInput }>()
const { t } = useI18n()
const showStore = useShowStore()
const inputs = useInputsStore()
const offered = computed(() => inputs.controls[props.input.id] ?? null)
const held = computed(() => (props.input.device.type === 'device' ? (props.input.device.controls ?? {}) : {}))
const hasAny = computed(() => offered.value !== null && offered.value.modes.length + offered.value.ranges.length > 0)
const isRefused = (name: string) => offered.value?.refused.includes(name) ?? false
/** A value that the camera refused: the actual value is shown. */
const modeOf = (name: string, value: string) => (isRefused(name) ? value : String(held.value[name] ?? value))
/** While the camera sets a number itself, it can't be moved. */
const isAuto = (mode: string | null) => {
  const control = offered.value?.modes.find(({ name }) => name === mode)
  return control !== undefined && modeOf(control.name, control.value) !== 'manual'
}

function hold(name: string, value: number | string): void {
  showStore.edit(
    t('ownControls.title'),
    (show) =>
      updateInputOf(show, props.input.id, isCamera, (input) =>
        input.device.type === 'device' ? { ...input, device: { ...input.device, controls: { ...input.device.controls, [name]: value } } } : input,
      ),
    `own-${props.input.id}-${name}`,
  )
}
</script>

<template>
  <div class="mt-2.5 border-t border-line pt-2">
    <h4 class="font-semibold">{{ t('ownControls.title') }}</h4>
    <p v-if="!hasAny" class="text-soft">{{ t(input.device.type === 'standin' ? 'ownControls.standin' : 'ownControls.none') }}</p>
    <template v-else-if="offered">
      <p class="mb-1.5 text-soft">{{ t('ownControls.hint') }}</p>
      <div v-for="mode in offered.modes" :key="mode.name" class="mb-1 grid grid-cols-[1fr_120px] items-center gap-2">
        <span>{{ t(`ownControls.${mode.name}`) }}</span>
        <SelectMenu
          :model-value="modeOf(mode.name, mode.value)"
          :label="t(`ownControls.${mode.name}`)"
          :options="mode.options.map((option) => ({ value: option, label: t(`ownControls.options.${option}`, option) }))"
          @update:model-value="hold(mode.name, $event)"
        />
        <p v-if="isRefused(mode.name)" role="status" class="col-span-2 text-[12px] text-brass">
          {{ t('ownControls.refused', { value: t(`ownControls.options.${held[mode.name]}`, String(held[mode.name])) }) }}
        </p>
      </div>
      <div v-for="range in offered.ranges" :key="range.name" class="mb-1.5">
        <SliderRow
          :model-value="isRefused(range.name) ? range.value : Number(held[range.name] ?? range.value)"
          :label="t(`ownControls.${range.name}`)"
          :min="range.min"
          :max="range.max"
          :step="range.step"
          :disabled="isAuto(range.mode)"
          @update:model-value="hold(range.name, $event)"
        />
        <p v-if="isRefused(range.name)" role="status" class="text-[12px] text-brass">{{ t('ownControls.refused', { value: held[range.name]! }) }}</p>
        <p v-else class="text-[12px] text-soft">{{ t(`ownControls.costs.${range.name}`) }}</p>
      </div>
    </template>
  </div>
</template>
