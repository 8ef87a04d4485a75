<script setup lang="ts" generic="T extends string | number">
// A name, and one of a list beside it.
import SelectMenu, { type SelectOption } from '../SelectMenu.vue'

defineProps<{ modelValue: T; label: string; options: readonly SelectOption<T>[] }>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
</script>

<template>
  <div class="flex items-center gap-2">
    <span class="flex-1">{{ label }}</span>
    <SelectMenu class="w-32" :model-value="modelValue" :label="label" :options="options" @update:model-value="emit('update:modelValue', $event)" />
  </div>
</template>
