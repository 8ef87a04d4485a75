<script setup lang="ts">
import { Toaster } from 'vue-sonner'
import AppHeader from './shell/AppHeader.vue'
import NoticeBar from './shell/NoticeBar.vue'
import { useShortcuts } from './shell/use-shortcuts.ts'
import { useTheme } from './shell/use-theme.ts'

useShortcuts()
const { theme } = useTheme()
</script>

<template>
  <div class="grid h-full min-h-[600px] min-w-[960px] grid-rows-[52px_auto_minmax(0,1fr)] overflow-hidden">
    <AppHeader />
    <NoticeBar />
    <RouterView />
  </div>
  <Toaster position="bottom-center" :theme="theme === 'blackout' ? 'dark' : 'light'" :toast-options="{ class: 'gr-toast' }" />
</template>

<style>
.gr-toast[data-sonner-toast] {
  background: var(--ink);
  color: var(--paper);
  border: 0;
  font: 13px/1.4 var(--font-text);
}
.gr-toast [data-button] {
  background: transparent !important;
  color: inherit !important;
  box-shadow: inset 0 0 0 1px currentColor;
}
</style>
