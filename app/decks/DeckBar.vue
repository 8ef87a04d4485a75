<script setup lang="ts">
// Turning the pages of the deck that is on air, or on the stage.
import { ChevronLeft, ChevronRight, Maximize2, Minimize2 } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useAirStore } from '../air/air.store.ts'
import { figure } from '../base/decimals.ts'
import IconButton from '../base/IconButton.vue'
import { useDecksStore } from './decks.store.ts'

const { t } = useI18n()
const decks = useDecksStore()
const air = useAirStore()
/** The layer on air that shows the deck; null where none does. */
const fillable = computed(() => decks.layerOnAir)
const isFilling = computed(() => air.focus.now?.fills === true)
</script>

<template>
  <div
    v-if="decks.current"
    class="flex items-center rounded-lg border border-line bg-raised"
    role="group"
    :aria-label="t('decks.barOf', { name: decks.current.deck.name })"
    data-testid="deck-bar"
  >
    <IconButton
      class="rtl:-scale-x-100"
      :icon="ChevronLeft"
      size="small"
      :label="t('commands.does.previousPage')"
      :disabled="decks.current.index === 0"
      @click="decks.turn(-1)"
    />
    <span
      class="min-w-14 text-center font-num text-[12px] tabular-nums"
      aria-live="polite"
      :aria-label="t('decks.place', { n: decks.current.index + 1, count: decks.current.shown.length })"
      >{{ figure(`${decks.current.index + 1} / ${decks.current.shown.length}`) }}</span
    >
    <IconButton
      class="rtl:-scale-x-100"
      :icon="ChevronRight"
      size="small"
      :label="t('commands.does.nextPage')"
      :disabled="decks.current.next === null"
      @click="decks.turn(1)"
    />
    <IconButton
      v-if="fillable"
      :icon="isFilling ? Minimize2 : Maximize2"
      size="small"
      :label="t('commands.does.fillPage')"
      :is-on="isFilling"
      @click="air.focus.toggleFill(fillable)"
    />
  </div>
</template>
