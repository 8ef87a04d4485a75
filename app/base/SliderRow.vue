<script setup lang="ts">
// A named slider with its number beside it, one stop of the Tab key: typing a number on the slider goes into the field. A double
// click, or Delete, brings the usual value back.
import { computed, useTemplateRef } from 'vue'
import NumberField from './NumberField.vue'

const props = defineProps<{ modelValue: number; label: string; min: number; max: number; step: number; unit?: string; usual?: number; disabled?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [value: number] }>()
const share = computed(() => `${((props.modelValue - props.min) / (props.max - props.min)) * 100}%`)

const row = useTemplateRef<HTMLDivElement>('row')
const part = (selector: string) => row.value?.querySelector<HTMLInputElement>(selector)

function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === 'Delete' && props.usual !== undefined) emit('update:modelValue', props.usual)
  else if (event.key === 'Enter') startTyping()
  else if (/^[-\d.,]$/.test(event.key)) startTyping(event.key)
  else return
  event.preventDefault()
}

/** Goes to the number; the first key replaces it. */
function startTyping(first?: string): void {
  const field = part('[role=spinbutton]')
  field?.focus()
  field?.select()
  if (first === undefined || field === null || field === undefined) return
  field.value = first
  field.dispatchEvent(new Event('input', { bubbles: true }))
}

function onInput(event: Event): void {
  emit('update:modelValue', Number((event.target as HTMLInputElement).value))
}
</script>

<template>
  <div ref="row" class="row" :class="disabled ? 'opacity-50' : ''">
    <div class="cells">
      <span class="label" :title="label">{{ label }}</span>
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
        @keydown="onKey"
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
        class="number"
        tabindex="-1"
        @done="part('[type=range]')?.focus()"
        @update:model-value="emit('update:modelValue', $event)"
      />
    </div>
  </div>
</template>

<style scoped>
.row {
  container-type: inline-size;
}
/* Where there is little room the slider has a line of its own, so that it is never too short to aim with. */
.cells {
  display: grid;
  grid-template: 'label number' auto 'slider slider' 20px / minmax(0, 1fr) 60px;
  align-items: center;
  column-gap: 8px;
}
@container (min-width: 256px) {
  .cells {
    min-height: 24px;
    grid-template: 'label slider number' auto / minmax(84px, 1fr) minmax(96px, 2fr) 60px;
  }
}
.label {
  grid-area: label;
  overflow-wrap: anywhere;
  line-height: 1.25;
}
.number {
  grid-area: number;
}
.slider {
  grid-area: slider;
  appearance: none;
  width: 100%;
  height: 24px;
  background: transparent;
  cursor: pointer;
}
.slider::-webkit-slider-runnable-track {
  height: 4px;
  border-radius: 4px;
  background: linear-gradient(90deg, var(--green) var(--share), var(--line) var(--share));
}
.slider:dir(rtl)::-webkit-slider-runnable-track {
  background: linear-gradient(-90deg, var(--green) var(--share), var(--line) var(--share));
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
