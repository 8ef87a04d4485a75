<script setup lang="ts">
// The pages of a deck: the one it is at, its notes, all of them to choose from, and what this layer shows.
import { Eraser, EyeOff, Plus, RefreshCw } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { isBoard, isDeck, pageAt, type DeckInput, type DeckPage } from '../../../../core/inputs/deck.ts'
import { pageIdOf } from '../../../../core/layers/index.ts'
import { RANGES } from '../../../../core/schema/limits.ts'
import { clearPage } from '../../../../core/annotations/keep-drawing.ts'
import { addSheet, setPage, skipPage } from '../../../../core/decks/deck-edits.ts'
import { updateInputOf } from '../../../../core/show/edits.ts'
import BaseButton from '../../../base/BaseButton.vue'
import ChoiceBar from '../../../base/ChoiceBar.vue'
import IconButton from '../../../base/IconButton.vue'
import { figure } from '../../../base/decimals.ts'
import NumberCell from '../../../base/rows/NumberCell.vue'
import InspectorSection from '../../../build/InspectorSection.vue'
import DeckNotes from '../../../decks/DeckNotes.vue'
import PageImage from '../../../decks/PageImage.vue'
import { useDecksStore } from '../../../decks/decks.store.ts'
import { useChooseDeck } from '../../../decks/use-choose-deck.ts'
import { makeId } from '../../../show/make-id.ts'
import { useShowStore } from '../../../show/show.store.ts'

const props = defineProps<{ input: DeckInput }>()
const { t } = useI18n()
const showStore = useShowStore()
const decks = useDecksStore()
const { chooseDeck } = useChooseDeck()
const now = computed(() => decks.of(props.input.id))
/** The page that the selected layer stays at; null where it follows the deck. */
const staysAt = computed(() => (showStore.layer === null ? null : pageIdOf(showStore.layer)))
const shownPage = computed(() => (now.value === null ? null : pageAt(now.value.deck, staysAt.value)))

const hint = computed(() => t('decks.againHint', { name: props.input.fileName ?? '' }))

function stay(pageId: string | null): void {
  const { sceneId, layer } = showStore
  if (sceneId !== null && layer !== null) showStore.edit(t('edits.page', { name: layer.name }), (show) => setPage(show, sceneId, layer.id, pageId))
}

/** Pages are turned; of a layer that stays at one, another is chosen. */
function choose(page: DeckPage): void {
  if (staysAt.value === null) decks.goTo(props.input.id, page.id)
  else stay(page.id)
}

function toggleSkipped(page: DeckPage): void {
  showStore.edit(t('edits.skipPage', { n: page.number }), (show) => skipPage(show, props.input.id, page.id, !page.skipped))
}

/** A sheet more, and the board turned to it. */
function addBlankSheet(): void {
  const { id } = props.input
  if (!showStore.edit(t('edits.addSheet', { name: props.input.name }), (show) => addSheet(show, id, makeId))) return
  const added = showStore.show?.inputs
    .filter(isDeck)
    .find((deck) => deck.id === id)
    ?.pages.at(-1)
  if (added !== undefined) decks.goTo(id, added.id)
}

function removeDrawing(page: DeckPage): void {
  showStore.edit(t('edits.clearPage', { n: page.number }), (show) => clearPage(show, props.input.id, page.id))
}

function plan(minutes: number): void {
  showStore.edit(
    t('edits.plannedMinutes', { name: props.input.name }),
    (show) => updateInputOf(show, props.input.id, isDeck, (input) => ({ ...input, plannedMin: minutes === 0 ? null : minutes })),
    `planned-${props.input.id}`,
  )
}
</script>

<template>
  <InspectorSection v-if="now" name="deck" :title="t('decks.title')">
    <template #aside>
      <span class="font-num text-[12px] text-soft tabular-nums">{{ figure(`${now.index + 1} / ${now.shown.length}`) }}</span>
    </template>
    <DeckNotes :now="now" />
    <ChoiceBar
      v-if="showStore.layer"
      class="mt-3"
      :model-value="staysAt === null ? 'follow' : 'stay'"
      :choices="[
        { value: 'follow', label: t('decks.follows') },
        { value: 'stay', label: t('decks.stays') },
      ]"
      :label="t('decks.layerShows')"
      @update:model-value="stay($event === 'follow' ? null : now!.page.id)"
    />
    <ul class="mt-2 grid max-h-60 grid-cols-3 gap-1.5 overflow-y-auto p-0.5" :aria-label="t('decks.pages')">
      <li v-for="page in now.deck.pages" :key="page.id" class="group relative min-w-0">
        <button
          type="button"
          class="block w-full overflow-hidden rounded border-2"
          :class="page.id === shownPage?.id ? 'border-brass' : 'border-transparent hover:border-line'"
          :aria-label="t('decks.pageTitled', { n: page.number, title: page.title })"
          :aria-current="page.id === shownPage?.id"
          :title="page.title"
          @click="choose(page)"
        >
          <PageImage :page="page" class="aspect-video w-full" :class="page.skipped ? 'opacity-30' : ''" />
        </button>
        <span class="pointer-events-none absolute start-1 bottom-1 rounded bg-black/70 px-1 font-num text-[10.5px] text-white">{{
          figure(String(page.number))
        }}</span>
        <IconButton
          :icon="EyeOff"
          size="small"
          class="absolute end-0.5 bottom-0.5 bg-raised/90 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
          :class="page.skipped ? 'opacity-100' : ''"
          :is-on="page.skipped"
          :label="page.skipped ? t('decks.unskip', { n: page.number }) : t('decks.skip', { n: page.number })"
          @click="toggleSkipped(page)"
        />
      </li>
    </ul>
    <div v-if="shownPage && shownPage.strokes.length > 0" class="mt-2 flex items-center justify-between gap-2 text-soft" data-testid="kept-drawing">
      <span>{{ t('drawing.onPage', { count: shownPage.strokes.length }, shownPage.strokes.length) }}</span>
      <IconButton :icon="Eraser" size="small" :label="t('drawing.clearPage')" @click="removeDrawing(shownPage)" />
    </div>
    <div class="mt-2 grid grid-cols-2 items-end gap-1.5">
      <NumberCell
        :model-value="input.plannedMin ?? 0"
        :label="t('decks.planned')"
        :range="{ min: 0, max: RANGES.plannedMin.max }"
        :step="1"
        unit="min"
        @update:model-value="plan(Math.round($event))"
      />
      <BaseButton v-if="isBoard(input)" class="px-2!" :icon="Plus" @click="addBlankSheet">
        {{ t('decks.addSheet') }}
      </BaseButton>
      <BaseButton v-else class="px-2!" :icon="RefreshCw" :title="hint" @click="chooseDeck(input)">
        {{ t('decks.importAgain') }}
      </BaseButton>
    </div>
  </InspectorSection>
</template>
