<script setup lang="ts">
// Which pages of a long file are wanted.
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { pagesIn } from '../../core/decks/page-range.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import BaseButton from '../base/BaseButton.vue'
import { useDeckImportStore } from './deck-import.store.ts'

const { t } = useI18n()
const deck = useDeckImportStore()
const typed = ref(`1–${LIMITS.deckPages}`)
const wanted = computed(() => pagesIn(typed.value, deck.pageCount))
const fault = computed(() => {
  if (wanted.value === null) return t('decks.rangeBad', { count: deck.pageCount })
  return wanted.value.length > LIMITS.deckPages ? t('decks.rangeMany', { count: wanted.value.length, most: LIMITS.deckPages }) : null
})
</script>

<template>
  <form class="px-5 py-4" @submit.prevent="fault === null && deck.draw(wanted!)">
    <p>{{ t('decks.tooMany', { count: deck.pageCount, most: LIMITS.deckPages }) }}</p>
    <label class="mt-3 block">
      <span class="text-soft">{{ t('decks.range') }}</span>
      <input
        v-model="typed"
        class="mt-1 block h-9 w-full rounded-lg border border-line bg-raised px-2.5"
        dir="ltr"
        :aria-invalid="fault !== null"
        aria-describedby="range-fault"
      />
    </label>
    <p id="range-fault" role="status" class="mt-1.5 min-h-5 text-soft">{{ fault ?? '' }}</p>
    <div class="mt-3 flex flex-wrap justify-end gap-2">
      <BaseButton @click="deck.close()">{{ t('decks.cancel') }}</BaseButton>
      <BaseButton kind="primary" :disabled="fault !== null" @click="deck.draw(wanted!)">{{ t('decks.import') }}</BaseButton>
    </div>
  </form>
</template>
