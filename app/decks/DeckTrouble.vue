<script setup lang="ts">
// Why slides cannot be opened, and what to do; a password is asked for.
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import BaseButton from '../base/BaseButton.vue'
import { errorWords } from '../show/error-words.ts'
import { useDeckImportStore } from './deck-import.store.ts'
import { useChooseDeck } from './use-choose-deck.ts'

const { t } = useI18n()
const deck = useDeckImportStore()
const { chooseDeck } = useChooseDeck()
const password = ref('')
const needsPassword = computed(() => deck.phase === 'password')
const words = computed(() => {
  const { reason, error } = deck.failure ?? { reason: 'damaged' as const, error: null }
  if (reason === 'refused' || reason === 'offline') return errorWords(error)
  return t(`decks.faults.${reason}`, { name: deck.fileName })
})
</script>

<template>
  <form class="px-5 py-4" @submit.prevent="deck.unlock(password)">
    <p role="alert" class="leading-snug break-words">{{ words }}</p>
    <label v-if="needsPassword" class="mt-3 block">
      <span class="text-soft">{{ t('decks.password') }}</span>
      <input v-model="password" type="password" autocomplete="off" class="mt-1 block h-9 w-full rounded-lg border border-line bg-raised px-2.5" />
    </label>
    <div class="mt-4 flex flex-wrap justify-end gap-2">
      <BaseButton @click="deck.close()">{{ t('decks.cancel') }}</BaseButton>
      <BaseButton v-if="needsPassword" kind="primary" :disabled="password === ''" @click="deck.unlock(password)">
        {{ t('decks.unlock') }}
      </BaseButton>
      <BaseButton v-else kind="primary" @click="chooseDeck(deck.replaced)">{{ t('decks.another') }}</BaseButton>
    </div>
  </form>
</template>
