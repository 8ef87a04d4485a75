<script setup lang="ts">
// A switch for something optional, and its colour while it is on.
import ColourField from './ColourField.vue'
import ToggleSwitch from './ToggleSwitch.vue'

defineProps<{
  label: string
  colourLabel: string
  /** Null while it is not there. */
  colour: string | null
}>()
const emit = defineEmits<{ switch: [isOn: boolean]; colour: [colour: string] }>()
</script>

<template>
  <div class="flex items-center gap-2">
    <ToggleSwitch :model-value="colour !== null" :label="label" @update:model-value="emit('switch', $event)" />
    <span class="flex-1">{{ label }}</span>
    <ColourField v-if="colour !== null" can-name :model-value="colour" :label="colourLabel" @update:model-value="emit('colour', $event)" />
  </div>
</template>
