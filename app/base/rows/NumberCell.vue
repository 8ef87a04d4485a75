<script setup lang="ts">
// A number under its name, for several side by side.
import NumberField from '../NumberField.vue'

defineProps<{
  modelValue: number
  label: string
  /** What stands over it where the whole label would be too long; the label if not given. */
  caption?: string
  range: { readonly min: number; readonly max: number }
  step: number
  unit?: string
  disabled?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number] }>()
</script>

<template>
  <label class="text-[11.5px] text-soft">
    {{ caption ?? label }}
    <NumberField
      class="mt-0.5 text-ink"
      :model-value="modelValue"
      :label="label"
      :min="range.min"
      :max="range.max"
      :step="step"
      :unit="unit"
      :disabled="disabled"
      @update:model-value="emit('update:modelValue', $event)"
    />
  </label>
</template>
