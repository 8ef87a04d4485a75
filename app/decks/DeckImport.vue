<script setup lang="ts">
// Slides that are being imported: their pages as they come, which of them are shown, and where they go.
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { CircleAlert, EyeOff, X } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { figure } from '../base/decimals.ts'
import BaseButton from '../base/BaseButton.vue'
import IconButton from '../base/IconButton.vue'
import { useDeckImportStore } from './deck-import.store.ts'
import DeckGoal from './DeckGoal.vue'
import DeckTrouble from './DeckTrouble.vue'
import PageRange from './PageRange.vue'

const { t } = useI18n()
const deck = useDeckImportStore()
const title = computed(() => (deck.replaced === null ? t('decks.importTitle') : t('decks.again', { name: deck.replaced.name })))
const isBusy = computed(() => ['opening', 'converting', 'drawing', 'adding'].includes(deck.phase))
/** What is going on, in one line. */
const status = computed(() => {
  const left = deck.leftMs === null ? '' : t('decks.left', { seconds: Math.max(1, Math.ceil(deck.leftMs / 1000)) })
  switch (deck.phase) {
    case 'opening':
      return t('decks.opening')
    case 'converting':
      return t('decks.converting')
    case 'drawing':
      return `${t('decks.drawn', { done: deck.done, count: deck.pages.length })} ${left}`
    case 'adding':
      return t('decks.adding')
    case 'ready':
      return t('decks.ready', deck.pages.length - faults.value.length)
    default:
      return ''
  }
})
const faults = computed(() => deck.pages.filter(({ fault }) => fault !== null))
const hasKnownShare = computed(() => deck.phase === 'drawing' || deck.phase === 'adding')
</script>

<template>
  <Dialog :open="deck.isOpen" class="relative z-40" @close="deck.phase !== 'adding' && deck.close()">
    <div class="fixed inset-0 bg-black/45" aria-hidden="true"></div>
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel
        class="flex max-h-full w-full flex-col overflow-hidden rounded-2xl border border-line bg-paper"
        :class="['drawing', 'ready', 'adding'].includes(deck.phase) ? 'h-[680px] max-w-[1040px]' : 'max-w-[480px]'"
        data-testid="deck-import"
      >
        <div class="flex shrink-0 items-center gap-4 border-b border-line px-5 py-3">
          <DialogTitle class="min-w-0 flex-1 truncate font-head text-[20px] font-bold">{{ title }}</DialogTitle>
          <IconButton :icon="X" :label="t('errors.close')" @click="deck.close()" />
        </div>
        <DeckTrouble v-if="deck.phase === 'failed' || deck.phase === 'password'" />
        <PageRange v-else-if="deck.phase === 'choosing'" />
        <div v-else-if="deck.phase === 'opening' || deck.phase === 'converting'" class="px-5 py-6">
          <p role="status">{{ status }}</p>
          <div class="mt-3 h-1.5 overflow-hidden rounded bg-line" aria-hidden="true">
            <div class="h-full w-1/4 animate-pulse rounded bg-green motion-reduce:animate-none"></div>
          </div>
          <p dir="auto" class="mt-2 truncate text-soft">{{ deck.fileName }}</p>
          <div class="mt-4 flex justify-end">
            <BaseButton @click="deck.close()">{{ t('decks.cancel') }}</BaseButton>
          </div>
        </div>
        <div v-else class="grid min-h-0 flex-1 overflow-y-auto min-[760px]:grid-cols-[minmax(0,1fr)_280px] min-[760px]:overflow-hidden">
          <div class="flex min-h-0 flex-col">
            <div class="shrink-0 px-5 pt-3">
              <div class="flex items-baseline justify-between gap-3">
                <p role="status" class="tabular-nums">{{ status }}</p>
                <p dir="auto" class="min-w-0 truncate text-soft" :title="deck.fileName">{{ deck.fileName }}</p>
              </div>
              <div
                v-if="isBusy"
                class="mt-2 h-1.5 overflow-hidden rounded bg-line"
                role="progressbar"
                :aria-label="status"
                :aria-valuenow="hasKnownShare ? Math.round(deck.share * 100) : undefined"
              >
                <div class="h-full bg-green" :style="{ width: `${deck.share * 100}%` }"></div>
              </div>
            </div>
            <ul
              class="grid min-h-0 flex-1 grid-cols-[repeat(auto-fill,minmax(148px,1fr))] content-start gap-3 overflow-y-auto p-5"
              :aria-label="t('decks.pages')"
            >
              <li v-for="page in deck.pages" :key="page.number" class="min-w-0">
                <button
                  type="button"
                  class="relative block aspect-video w-full overflow-hidden rounded-md border border-line bg-sunk"
                  :disabled="page.thumbUrl === null"
                  :aria-pressed="!deck.skipped.has(page.number)"
                  :aria-label="t('decks.include', { n: page.number })"
                  @click="deck.toggle(page.number)"
                >
                  <img
                    v-if="page.thumbUrl"
                    :src="page.thumbUrl"
                    alt=""
                    class="size-full object-contain"
                    :class="deck.skipped.has(page.number) ? 'opacity-30' : ''"
                  />
                  <CircleAlert v-else-if="page.fault" :size="20" class="absolute inset-0 m-auto text-brass" aria-hidden="true" />
                  <EyeOff v-if="deck.skipped.has(page.number)" :size="20" class="absolute inset-0 m-auto" aria-hidden="true" />
                </button>
                <p class="mt-1 flex gap-1.5 text-[12px]">
                  <span class="font-num text-soft tabular-nums">{{ figure(String(page.number)) }}</span>
                  <span dir="auto" class="min-w-0 truncate" :title="page.fault ?? page.title">{{
                    page.fault ? t('decks.fault') : deck.skipped.has(page.number) ? t('decks.skipped') : page.title
                  }}</span>
                </p>
              </li>
            </ul>
          </div>
          <DeckGoal />
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
