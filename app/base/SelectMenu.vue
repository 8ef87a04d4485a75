<script setup lang="ts" generic="T extends string | number">
// One of a list, in the system's own menu.
defineProps<{ modelValue: T; label: string; options: readonly { readonly value: T; readonly label: string }[]; disabled?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()

function onChange(event: Event, options: readonly { readonly value: T }[]): void {
  const chosen = options[(event.target as HTMLSelectElement).selectedIndex]
  if (chosen !== undefined) emit('update:modelValue', chosen.value)
}
</script>

<template>
  <select
    :value="modelValue"
    :aria-label="label"
    :title="label"
    :disabled="disabled"
    class="min-w-0 truncate rounded-md border border-line bg-raised px-2 py-1 font-medium disabled:opacity-45"
    @change="onChange($event, options)"
  >
    <option v-for="option in options" :key="option.value" :value="option.value">{{ option.label }}</option>
  </select>
</template>
