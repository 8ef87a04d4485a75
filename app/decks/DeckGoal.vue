<script setup lang="ts">
// Where imported slides go: into the scene on the stage, or into scenes of their own; or what changes in the deck that they take the place of.
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { deckStyles, presenterOf, type DeckStyle } from '../../core/decks/deck-scenes.ts'
import { rangeWords } from '../../core/decks/page-range.ts'
import BaseButton from '../base/BaseButton.vue'
import { errorWords } from '../show/error-words.ts'
import { useShowStore } from '../show/show.store.ts'
import { useDeckImportStore } from './deck-import.store.ts'
import DeckStyleTile from './DeckStyleTile.vue'
import { useAddDeck } from './use-add-deck.ts'

const { t } = useI18n()
const showStore = useShowStore()
const deck = useDeckImportStore()
const { addDeck, replaceDeck } = useAddDeck()
const styles = ref<readonly DeckStyle[]>([])
const canBeHere = computed(() => showStore.scene?.locked === false)
const isHere = computed(() => styles.value.length === 0 && canBeHere.value)
/** Without a camera there is nobody to stand beside the page. */
const offered = computed(() => (showStore.show !== null && presenterOf(showStore.show) === null ? (['whole'] as const) : deckStyles))
const act = computed(() => (deck.replaced !== null ? t('decks.replace') : isHere.value ? t('decks.add') : t('decks.addScenes', styles.value.length)))
const isReady = computed(() => deck.phase === 'ready' && (deck.replaced !== null || isHere.value || styles.value.length > 0))
const changes = computed(() => {
  const { matched } = deck
  if (matched === null) return []
  const said = (['changed', 'added', 'removed'] as const).flatMap((what) =>
    matched[what].length === 0 ? [] : [t(`decks.matched.${what}`, { pages: rangeWords(matched[what]) })],
  )
  return said.length === 0 ? [t('decks.matched.none')] : said
})

function toggle(style: DeckStyle): void {
  styles.value = styles.value.includes(style)
    ? styles.value.filter((one) => one !== style)
    : deckStyles.filter((one) => one === style || styles.value.includes(one))
}

async function add(): Promise<void> {
  try {
    if (deck.replaced !== null) await replaceDeck(deck.replaced.id)
    else await addDeck(styles.value)
  } catch (error) {
    toast.error(errorWords(error), { duration: 10_000 })
  }
}
</script>

<template>
  <aside class="flex min-h-0 flex-col border-line max-[759px]:border-t min-[760px]:border-s">
    <div class="min-h-0 flex-1 overflow-y-auto px-4 py-3.5">
      <template v-if="deck.replaced === null">
        <h3 class="font-semibold">{{ t('decks.where') }}</h3>
        <div class="mt-2 grid gap-1.5">
          <DeckStyleTile v-if="canBeHere" look="here" :label="t('decks.here')" :is-chosen="isHere" @toggle="styles = []" />
        </div>
        <h3 class="mt-4 font-semibold">{{ t('decks.asScenes') }}</h3>
        <div class="mt-2 grid gap-1.5">
          <DeckStyleTile
            v-for="style in offered"
            :key="style"
            :look="style"
            :label="t(`decks.styles.${style}`)"
            :is-chosen="styles.includes(style)"
            @toggle="toggle(style)"
          />
        </div>
      </template>
      <template v-else>
        <h3 class="font-semibold">{{ t('decks.whatChanges') }}</h3>
        <p class="mt-1 text-soft">{{ t('decks.staysHint') }}</p>
        <ul class="mt-2 grid gap-1" role="status">
          <li v-for="line in changes" :key="line">{{ line }}</li>
        </ul>
      </template>
      <p v-if="deck.missingFonts.length > 0" class="mt-4 rounded-md bg-wash px-2.5 py-2 leading-snug break-words">
        {{ t('decks.fonts', { names: deck.missingFonts.join(', ') }) }}
      </p>
    </div>
    <div class="flex shrink-0 flex-wrap justify-end gap-2 border-t border-line px-4 py-3">
      <BaseButton @click="deck.close()">{{ t('decks.cancel') }}</BaseButton>
      <BaseButton kind="primary" :disabled="!isReady" @click="add">{{ act }}</BaseButton>
    </div>
  </aside>
</template>
