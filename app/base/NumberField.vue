<script setup lang="ts">
// A number with its unit: typed, stepped with the arrow keys, or dragged sideways.
import { computed, ref } from 'vue'
import { parseNumber } from './parse-number.ts'
import { decimals } from './decimals.ts'
import { useScrub } from './use-scrub.ts'

const props = defineProps<{ modelValue: number; label: string; min: number; max: number; step: number; unit?: string; isBare?: boolean; disabled?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [value: number]; done: [] }>()

const draft = ref<string | null>(null)
const digits = computed(() => Math.max(0, Math.ceil(-Math.log10(props.step) - 1e-9)))
const shown = computed(() => draft.value ?? `${format(props.modelValue)}${props.unit ? ` ${props.unit}` : ''}`)
const isWrong = computed(() => draft.value !== null && parse(draft.value) === null)

function format(value: number): string {
  return decimals(value, digits.value, 0)
}

const parse = (text: string) => parseNumber(text, props.unit)

function set(value: number): void {
  const rounded = Math.round(value / props.step) * props.step
  const next = Math.min(props.max, Math.max(props.min, Number(rounded.toFixed(6))))
  if (next !== props.modelValue) emit('update:modelValue', next)
}

/** A field that was only visited changes nothing: what it shows may be rounded. */
const isUntouched = computed(() => draft.value === null || draft.value === format(props.modelValue))

function commit(): void {
  const value = isUntouched.value ? null : parse(draft.value ?? '')
  draft.value = null
  if (value !== null) set(value)
}

function onKey(event: KeyboardEvent): void {
  if (event.key === 'Enter') {
    commit()
    emit('done')
  }
  if (event.key === 'Escape' && draft.value !== null) {
    // Escape discards the typed text without closing the dialog around it.
    event.stopPropagation()
    draft.value = null
  }
  if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
    event.preventDefault()
    draft.value = null
    set(props.modelValue + (event.key === 'ArrowUp' ? 1 : -1) * props.step * (event.shiftKey ? 10 : 1))
  }
}

const onPointerDown = useScrub((steps) => set(props.modelValue + steps * props.step))
</script>

<template>
  <input
    :value="shown"
    type="text"
    inputmode="decimal"
    role="spinbutton"
    :aria-label="label"
    :aria-valuenow="modelValue"
    :aria-valuemin="min"
    :aria-valuemax="max"
    :aria-valuetext="shown"
    :aria-invalid="isWrong"
    :data-undo="isUntouched ? 'show' : undefined"
    :disabled="disabled"
    class="min-h-6 w-full min-w-0 cursor-ew-resize rounded-[5px] border px-1.5 py-1 font-num text-[12px] tabular-nums focus:cursor-text"
    :class="[isBare ? 'border-transparent bg-transparent text-end hover:border-line' : 'border-line bg-raised', isWrong ? 'border-tally!' : '']"
    @focus="($event.target as HTMLInputElement).select()"
    @input="draft = ($event.target as HTMLInputElement).value"
    @blur="commit"
    @keydown="onKey"
    @pointerdown="onPointerDown"
  />
</template>
