<script setup lang="ts">
// A length in pixels of the canvas, set by a slider.
import SliderRow from '../SliderRow.vue'

const { min = 0, step = 1 } = defineProps<{ modelValue: number; label: string; max: number; min?: number; step?: number; usual?: number }>()
const emit = defineEmits<{ 'update:modelValue': [px: number] }>()
</script>

<template>
  <SliderRow
    :model-value="modelValue"
    :label="label"
    :min="min"
    :max="max"
    :step="step"
    unit="px"
    v-bind="usual === undefined ? {} : { usual }"
    @update:model-value="emit('update:modelValue', $event)"
  />
</template>
