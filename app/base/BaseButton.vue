<script setup lang="ts">
import type { Component } from 'vue'

defineProps<{ icon?: Component; kind?: 'primary' | 'plain' | 'quiet'; disabled?: boolean }>()
</script>

<template>
  <button
    type="button"
    class="inline-flex shrink-0 items-center justify-center gap-1.5 rounded-lg border px-3 py-1.5 font-medium transition-colors duration-150 disabled:opacity-45"
    :class="{
      'border-transparent bg-green text-on-green enabled:hover:brightness-110': kind === 'primary',
      'border-line bg-raised enabled:hover:bg-sunk': kind === 'plain' || kind === undefined,
      'border-transparent text-soft enabled:hover:bg-sunk enabled:hover:text-ink': kind === 'quiet',
    }"
    :disabled="disabled"
  >
    <component :is="icon" v-if="icon" :size="16" :stroke-width="1.8" aria-hidden="true" />
    <slot />
  </button>
</template>
