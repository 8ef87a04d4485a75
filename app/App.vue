<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { Toaster } from 'vue-sonner'
import TipLayer from './base/TipLayer.vue'
import AppHeader from './shell/AppHeader.vue'
import NoticeBar from './shell/NoticeBar.vue'
import SiteAsk from './sites/SiteAsk.vue'
import { useDiagnostics } from './engine/use-diagnostics.ts'
import { useInputsStore } from './inputs/inputs.store.ts'
import { useOutputsStore } from './outputs/outputs.store.ts'
import { announcement } from './shell/announce.ts'
import { useRefusalNotice } from './shell/use-refusal-notice.ts'
import { usePageTitle } from './shell/use-page-title.ts'
import { useShortcuts } from './commands/use-shortcuts.ts'
import { useTheme } from './shell/use-theme.ts'
import { useWindowShape } from './shell/use-window-shape.ts'

useShortcuts()
useRefusalNotice()
usePageTitle()
// Created here so that inputs, engine and feed run whichever view is shown.
useInputsStore()
useDiagnostics()
// The output window reads the feed from this page, whichever view is shown.
useOutputsStore()
const { theme } = useTheme()
const route = useRoute()
const { isNarrow } = useWindowShape()
/** As wide as the list of inputs on the bench; elsewhere the strip below has room for more. */
const toastWidth = computed(() => (route.name !== 'bench' ? '320px' : isNarrow.value ? '116px' : '168px'))
</script>

<template>
  <div class="app-frame" :style="{ '--toast-width': toastWidth }">
    <AppHeader />
    <div class="min-h-0">
      <SiteAsk />
      <NoticeBar />
    </div>
    <RouterView />
  </div>
  <TipLayer />
  <p class="sr-only" role="status" aria-live="polite">{{ announcement }}</p>
  <!-- At the lower left, over the inputs or the depth strip: never over a picture that is being judged. -->
  <Toaster
    position="bottom-left"
    :offset="8"
    :gap="6"
    :visible-toasts="2"
    :style="{ '--toast-width': toastWidth }"
    :theme="theme === 'blackout' ? 'dark' : 'light'"
    :toast-options="{ class: 'gr-toast' }"
  />
</template>

<style>
.app-frame {
  display: grid;
  grid-template-rows: 44px auto minmax(0, 1fr);
  height: 100%;
  overflow: hidden;
}
/* A small or strongly enlarged window: everything stands under each other, and the page scrolls. */
@media (max-width: 819px), (max-height: 519px) {
  .app-frame {
    grid-template-rows: auto auto auto;
    height: auto;
    overflow: visible;
  }
}
[data-sonner-toaster],
.gr-toast[data-sonner-toast] {
  width: var(--toast-width) !important;
}
.gr-toast[data-sonner-toast] {
  background: var(--ink);
  color: var(--paper);
  border: 0;
  padding: 8px 10px !important;
  font: 12.5px/1.35 var(--font-text);
  flex-wrap: wrap;
}
.gr-toast [data-icon] {
  align-self: flex-start;
}
/* Where there is no room beside the words, the button goes below them. */
.gr-toast [data-content] {
  flex: 1 0 76px;
  min-width: 0;
}
/* Two buttons stand side by side below the words. */
.gr-toast:has([data-cancel]) {
  justify-content: flex-end;
}
.gr-toast:has([data-cancel]) [data-content] {
  flex-basis: calc(100% - 32px);
}
.gr-toast:has([data-cancel]) [data-button] {
  margin-left: 0;
}
.gr-toast [data-description] {
  color: inherit !important;
  opacity: 0.85;
  font-variant-numeric: tabular-nums;
}
.gr-toast [data-button] {
  background: transparent !important;
  color: inherit !important;
  box-shadow: inset 0 0 0 1px currentColor;
}
</style>
