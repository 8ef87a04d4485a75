<script setup lang="ts">
// A named slider with its number beside it. Double click brings the usual value back.
import { computed } from 'vue'
import NumberField from './NumberField.vue'

const props = defineProps<{ modelValue: number; label: string; min: number; max: number; step: number; unit?: string; usual?: number; disabled?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [value: number] }>()
const share = computed(() => `${((props.modelValue - props.min) / (props.max - props.min)) * 100}%`)

function onInput(event: Event): void {
  emit('update:modelValue', Number((event.target as HTMLInputElement).value))
}
</script>

<template>
  <div class="grid grid-cols-[76px_1fr_64px] items-center gap-2" :class="disabled ? 'opacity-50' : ''">
    <span class="truncate" :title="label">{{ label }}</span>
    <input
      type="range"
      class="slider"
      :style="{ '--share': share }"
      :aria-label="label"
      :min="min"
      :max="max"
      :step="step"
      :value="modelValue"
      :disabled="disabled"
      @input="onInput"
      @dblclick="usual !== undefined && emit('update:modelValue', usual)"
    />
    <NumberField
      :model-value="modelValue"
      :label="label"
      :min="min"
      :max="max"
      :step="step"
      :unit="unit"
      :disabled="disabled"
      is-bare
      @update:model-value="emit('update:modelValue', $event)"
    />
  </div>
</template>

<style scoped>
.slider {
  appearance: none;
  width: 100%;
  height: 18px;
  background: transparent;
  cursor: pointer;
}
.slider::-webkit-slider-runnable-track {
  height: 4px;
  border-radius: 4px;
  background: linear-gradient(90deg, var(--green) var(--share), var(--line) var(--share));
}
.slider::-webkit-slider-thumb {
  appearance: none;
  width: 14px;
  height: 14px;
  margin-top: -5px;
  border-radius: 14px;
  background: var(--raised);
  border: 2px solid var(--green);
}
.slider:disabled {
  cursor: default;
}
</style>
