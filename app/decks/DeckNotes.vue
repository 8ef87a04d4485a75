<script setup lang="ts">
// What only the presenter sees of a deck: notes of the page, the next page, how long this one has been on.
import { AArrowDown, AArrowUp, SquareArrowOutUpRight } from 'lucide-vue-next'
import { useLocalStorage, useNow } from '@vueuse/core'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { figure } from '../base/decimals.ts'
import IconButton from '../base/IconButton.vue'
import { clockWords } from '../shell/clock-words.ts'
import type { DeckNow } from './decks.store.ts'
import { useDecksStore } from './decks.store.ts'
import { useNotesWindow } from './use-notes-window.ts'
import PageImage from './PageImage.vue'

const props = defineProps<{ now: DeckNow }>()
const { t } = useI18n()
const decks = useDecksStore()
const { openNotes } = useNotesWindow()
const SIZES_PX = [12, 13.5, 15, 17, 20, 24] as const
const size = useLocalStorage('green-room:notes-size', 1)
const clock = useNow({ interval: 1000 })
const onThis = computed(() => clockWords(clock.value.getTime() - decks.timesOf(props.now.deck.id).sinceMs))

function resize(by: number): void {
  size.value = Math.min(SIZES_PX.length - 1, Math.max(0, size.value + by))
}
</script>

<template>
  <div>
    <div class="flex items-center gap-0.5">
      <p class="min-w-0 flex-1 truncate text-soft">
        {{ t('decks.onThisPage') }} <span class="font-num tabular-nums">{{ figure(onThis) }}</span>
      </p>
      <IconButton :icon="AArrowDown" size="small" :label="t('decks.smaller')" :disabled="size === 0" @click="resize(-1)" />
      <IconButton :icon="AArrowUp" size="small" :label="t('decks.larger')" :disabled="size === SIZES_PX.length - 1" @click="resize(1)" />
      <IconButton :icon="SquareArrowOutUpRight" size="small" :label="t('decks.ownWindow')" @click="openNotes" />
    </div>
    <div
      dir="auto"
      tabindex="0"
      role="region"
      :aria-label="t('decks.notes')"
      class="mt-1 max-h-44 min-h-12 overflow-y-auto rounded-md bg-wash px-2.5 py-2 leading-snug whitespace-pre-line"
      :style="{ fontSize: `${SIZES_PX[size] ?? SIZES_PX[1]}px` }"
      data-testid="deck-notes"
    >
      <template v-if="now.page.notes">{{ now.page.notes }}</template>
      <span v-else class="text-soft">{{ t('decks.noNotes') }}</span>
    </div>
    <div v-if="now.next" class="mt-2 flex items-center gap-2.5">
      <PageImage :page="now.next" class="h-[45px] w-20 shrink-0" />
      <p class="min-w-0 leading-tight">
        <span class="text-soft">{{ t('decks.next') }}</span>
        <span dir="auto" class="block truncate" :title="now.next.title">{{ now.next.title || t('decks.page', { n: now.next.number }) }}</span>
      </p>
    </div>
    <p v-else class="mt-2 text-soft">{{ t('decks.last') }}</p>
  </div>
</template>
