<script setup lang="ts">
import { Switch } from '@headlessui/vue'

defineProps<{ modelValue: boolean; label: string; disabled?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [value: boolean] }>()
</script>

<template>
  <Switch
    :model-value="modelValue"
    :disabled="disabled"
    :aria-label="label"
    class="group grid size-7 h-6 shrink-0 place-items-center rounded-full disabled:opacity-50"
    @update:model-value="emit('update:modelValue', $event)"
  >
    <span class="relative h-4 w-7 rounded-full transition-colors duration-150" :class="modelValue ? 'bg-green' : 'bg-raised ring-1 ring-soft ring-inset'">
      <span
        class="absolute rounded-full transition-[inset-inline-start] duration-150"
        :class="modelValue ? 'top-0.5 start-3.5 size-3 bg-on-green' : 'top-1 start-1 size-2 bg-soft'"
      ></span>
    </span>
  </Switch>
</template>
