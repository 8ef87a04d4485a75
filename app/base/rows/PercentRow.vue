<script setup lang="ts">
// A share of 0 to 1, set by a slider in percent.
import SliderRow from '../SliderRow.vue'

const { usual = 1 } = defineProps<{ modelValue: number; label: string; usual?: number }>()
const emit = defineEmits<{ 'update:modelValue': [share: number] }>()
</script>

<template>
  <SliderRow
    :model-value="Math.round(modelValue * 100)"
    :label="label"
    :min="0"
    :max="100"
    :step="1"
    unit="%"
    :usual="usual * 100"
    @update:model-value="emit('update:modelValue', $event / 100)"
  />
</template>
