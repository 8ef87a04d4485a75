<script setup lang="ts">
// What goes with the key on a coloured cloth: found for you, and the empty cloth.
import { ScanSearch, Timer, X } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Step } from '../../../core/show/show.ts'
import BaseButton from '../../base/BaseButton.vue'
import FigureRow from '../FigureRow.vue'
import { useFigureWords } from '../use-figure-words.ts'
import { useFindKey } from '../use-find-key.ts'
import KeyNotes from './KeyNotes.vue'

const props = defineProps<{ step: Extract<Step, { kind: 'chromaKey' }> }>()
const { t } = useI18n()
const { progress, figures, ends, isNobodyLeft, cropEnds, undo, countdown, find, cancel, takePlate, stopCountdown } = useFindKey(() => props.step)
const { keyWords } = useFigureWords()

const rows = computed(() => {
  if (figures.value === null) return []
  const before = keyWords(figures.value.before, props.step.params.colour)
  return keyWords(figures.value.after, props.step.params.colour).map((figure, i) => ({ figure, before: before[i]!.value }))
})
</script>

<template>
  <div class="mb-2 grid grid-cols-[minmax(0,1fr)] gap-2">
    <BaseButton v-if="progress === null" kind="primary" :icon="ScanSearch" data-testid="find-key" @click="find">{{ t('key.find') }}</BaseButton>
    <div v-else class="flex items-center gap-2" role="status">
      <div class="h-1.5 flex-1 overflow-hidden rounded bg-line" role="progressbar" :aria-label="t('key.finding')" :aria-valuenow="Math.round(progress * 100)">
        <div class="h-full bg-green transition-[width] duration-150" :style="{ width: `${progress * 100}%` }"></div>
      </div>
      <BaseButton kind="quiet" :icon="X" @click="cancel">{{ t('key.cancel') }}</BaseButton>
    </div>
    <div v-if="rows.length > 0 && !isNobodyLeft" data-testid="key-figures">
      <FigureRow v-for="row in rows" :key="row.figure.id" :figure="row.figure" :before="row.before" />
    </div>
    <KeyNotes :ends="ends" :is-nobody-left="isNobodyLeft" @crop="cropEnds" @undo="undo" />
    <div class="flex items-center gap-2">
      <BaseButton v-if="countdown === null" class="flex-1" :icon="Timer" :title="t('key.plateHint')" @click="takePlate">{{ t('key.plate') }}</BaseButton>
      <template v-else>
        <p role="status" class="flex-1 rounded-lg bg-wash px-2.5 py-1.5">
          {{ t('key.stepOut') }} <b class="font-num text-[15px]">{{ countdown }}</b>
        </p>
        <BaseButton kind="quiet" :icon="X" @click="stopCountdown">{{ t('key.cancel') }}</BaseButton>
      </template>
    </div>
  </div>
</template>
