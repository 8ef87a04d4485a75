<script setup lang="ts">
// Turning the pages of the deck that is on air, or on the stage.
import { ChevronLeft, ChevronRight, Maximize2, Minimize2 } from 'lucide-vue-next'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useAirStore } from '../air/air.store.ts'
import { figure } from '../base/decimals.ts'
import IconButton from '../base/IconButton.vue'
import { toast } from 'vue-sonner'
import { useDecksStore } from './decks.store.ts'

const { t } = useI18n()
const decks = useDecksStore()
const air = useAirStore()
/** The layer on air that shows the deck; null where none does. */
const fillable = computed(() => decks.layerOnAir)
const field = useTemplateRef<HTMLInputElement>('field')
const typed = ref('')

watch(
  () => decks.isAskingPage,
  async (isAsking) => {
    typed.value = ''
    await nextTick()
    if (isAsking) field.value?.focus()
  },
)

function goToTyped(): void {
  const count = decks.current?.shown.length ?? 0
  if (decks.goToNumber(Number(typed.value))) decks.isAskingPage = false
  else toast.warning(t('decks.noSuchPage', { typed: typed.value, count }))
}

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
    <input
      v-if="decks.isAskingPage"
      ref="field"
      v-model="typed"
      inputmode="numeric"
      class="h-6 w-14 rounded border border-line bg-paper text-center font-num text-[12px] tabular-nums"
      :aria-label="t('decks.goToPage', { count: decks.current.shown.length })"
      @keydown.enter.prevent="goToTyped"
      @keydown.esc.stop.prevent="decks.isAskingPage = false"
      @blur="decks.isAskingPage = false"
    />
    <button v-else type="button" class="min-w-14 rounded text-center hover:bg-sunk" :data-tip="t('commands.does.goToPage')" @click="decks.isAskingPage = true">
      <span
        class="min-w-14 text-center font-num text-[12px] tabular-nums"
        aria-live="polite"
        :aria-label="t('decks.place', { n: decks.current.index + 1, count: decks.current.shown.length })"
        >{{ figure(`${decks.current.index + 1} / ${decks.current.shown.length}`) }}</span
      >
    </button>
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
