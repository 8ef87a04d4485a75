<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import { Toaster } from 'vue-sonner'
import TipLayer from './base/TipLayer.vue'
import AppHeader from './shell/AppHeader.vue'
import NoticeBar from './shell/NoticeBar.vue'
import SiteAsk from './sites/SiteAsk.vue'
import { useDiagnostics } from './engine/use-diagnostics.ts'
import { shareNotes } from './decks/use-notes-window.ts'
import { useMovingColours } from './backgrounds/use-moving-colours.ts'
import { useInputsStore } from './inputs/inputs.store.ts'
import { useOutputsStore } from './outputs/outputs.store.ts'
import { announcement } from './shell/announce.ts'
import { useRefusalNotice } from './shell/use-refusal-notice.ts'
import { keepInstallOffer } from './shell/use-install.ts'
import { usePageTitle } from './shell/use-page-title.ts'
import { useShortcuts } from './commands/use-shortcuts.ts'
import { useLanguage } from './shell/use-language.ts'
import { useTheme } from './shell/use-theme.ts'
import { useWindowShape } from './shell/use-window-shape.ts'
import { usePanelWidths } from './build/use-panel-widths.ts'

useShortcuts()
useRefusalNotice()
usePageTitle()
// Created here so that inputs, engine and feed run whichever view is shown.
useInputsStore()
useDiagnostics()
// The output window reads the feed from this page, whichever view is shown.
useOutputsStore()
useMovingColours()
shareNotes()
const { theme } = useTheme()
const { direction } = useLanguage()
const { t } = useI18n()
const route = useRoute()
const { isNarrow, isStacked } = useWindowShape()
keepInstallOffer()
const { scenes, inspector } = usePanelWidths()
/** What passes by itself is said at the lower left, as wide as the list that is there: never over the picture, the strip or the scopes. */
const toastWidth = computed(() => {
  if (route.name === 'build') return isStacked.value ? '320px' : `${scenes.widthPx.value - 14}px`
  return route.name !== 'bench' ? '320px' : isNarrow.value ? '116px' : '168px'
})
const notices = useTemplateRef<HTMLDivElement>('notices')
/** The settings below it make room, so that it hides none of them. */
const { height: noticeHeight } = useElementSize(notices)
/** What must be acted on stands at the upper right, over the settings, and moves nothing. */
const noticeWidth = computed(() => (route.name === 'build' ? `${inspector.widthPx.value - 12}px` : '300px'))
</script>

<template>
  <div
    class="app-frame"
    :style="{ '--toast-width': toastWidth, '--notice-width': noticeWidth, '--notice-height': noticeHeight > 0 ? `${noticeHeight + 8}px` : '0px' }"
  >
    <AppHeader />
    <div ref="notices" class="notices">
      <SiteAsk />
      <NoticeBar />
    </div>
    <RouterView />
  </div>
  <TipLayer />
  <p class="sr-only" role="status" aria-live="polite">{{ announcement }}</p>
  <!-- At the lower left, over the inputs or the depth strip: never over a picture that is being judged. -->
  <Toaster
    :position="direction() === 'rtl' ? 'bottom-right' : 'bottom-left'"
    :dir="direction()"
    :offset="8"
    :gap="6"
    :container-aria-label="t('settings.messages')"
    :visible-toasts="2"
    :style="{ '--toast-width': toastWidth }"
    :theme="theme === 'blackout' ? 'dark' : 'light'"
    :toast-options="{ class: 'gr-toast' }"
  />
</template>

<style>
.app-frame {
  display: grid;
  grid-template-rows: 44px minmax(0, 1fr);
  height: 100%;
  overflow: hidden;
}
.notices {
  position: fixed;
  z-index: 40;
  inset-block-start: 50px;
  inset-inline-end: 6px;
  display: grid;
  gap: 6px;
  width: var(--notice-width);
  max-height: calc(100vh - 56px);
  overflow-y: auto;
}
/* A small or strongly enlarged window: everything stands under each other, and the page scrolls. */
@media (max-width: 819px), (max-height: 519px) {
  .app-frame {
    grid-template-rows: auto auto auto;
    height: auto;
    overflow: visible;
  }
  .app-frame {
    --notice-height: 0px !important;
  }
  .notices {
    position: static;
    width: auto;
    max-height: none;
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
  margin-inline-start: 0;
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
