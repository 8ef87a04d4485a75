<script setup lang="ts" generic="T extends string">
// One of a few, side by side.
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'

defineProps<{ modelValue: T; label: string; choices: readonly { readonly value: T; readonly label: string }[]; disabled?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
</script>

<template>
  <RadioGroup
    :model-value="modelValue"
    :aria-label="label"
    :disabled="disabled"
    class="inline-flex rounded-lg border border-line bg-sunk p-0.5"
    @update:model-value="emit('update:modelValue', $event)"
  >
    <RadioGroupOption v-for="choice in choices" v-slot="{ checked }" :key="choice.value" :value="choice.value" as="template">
      <button
        type="button"
        class="rounded-md px-2.5 py-1 font-medium transition-colors duration-150"
        :class="checked ? 'bg-raised text-ink shadow-sm' : 'text-soft hover:text-ink'"
      >
        {{ choice.label }}
      </button>
    </RadioGroupOption>
  </RadioGroup>
</template>
