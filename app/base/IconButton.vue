<script setup lang="ts">
import type { Component } from 'vue'

// A button that is neither on nor off says nothing of it.
withDefaults(defineProps<{ icon: Component; label: string; isOn?: boolean | undefined; disabled?: boolean; size?: 'small' | 'normal' }>(), { isOn: undefined })
</script>

<template>
  <button
    type="button"
    class="inline-grid shrink-0 place-items-center rounded-md transition-colors duration-150 disabled:opacity-40"
    :class="[size === 'small' ? 'size-6' : 'size-8', isOn ? 'bg-wash text-brass' : 'text-soft enabled:hover:bg-sunk enabled:hover:text-ink']"
    :aria-label="label"
    :data-tip="label"
    :aria-pressed="isOn === undefined ? undefined : isOn"
    :disabled="disabled"
  >
    <component :is="icon" :size="size === 'small' ? 14 : 16" :stroke-width="1.8" aria-hidden="true" />
  </button>
</template>
