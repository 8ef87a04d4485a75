<script setup lang="ts" generic="T extends string">
// One of a few, side by side.
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'

defineProps<{
  modelValue: T
  label: string
  /** `isOff`: it cannot be chosen now; `detail` says why. */
  choices: readonly { readonly value: T; readonly label: string; readonly isOff?: boolean; readonly detail?: string }[]
  disabled?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
</script>

<template>
  <RadioGroup
    :model-value="modelValue"
    :aria-label="label"
    :disabled="disabled"
    class="inline-flex max-w-full min-w-0 flex-wrap rounded-lg border border-line bg-sunk p-0.5"
    @update:model-value="emit('update:modelValue', $event)"
  >
    <RadioGroupOption
      v-for="choice in choices"
      v-slot="{ checked, disabled: isOff }"
      :key="choice.value"
      :value="choice.value"
      :disabled="choice.isOff === true"
      as="template"
    >
      <button
        type="button"
        class="min-h-6 min-w-0 flex-auto rounded-md px-2 py-0.5 font-medium transition-colors duration-150"
        :class="checked ? 'bg-raised text-ink shadow-sm' : isOff ? 'cursor-default text-soft opacity-60' : 'text-soft hover:text-ink'"
        :title="choice.detail ?? choice.label"
      >
        {{ choice.label }}
      </button>
    </RadioGroupOption>
  </RadioGroup>
</template>
