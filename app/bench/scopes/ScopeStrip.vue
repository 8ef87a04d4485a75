<script setup lang="ts">
// Scopes of the treated picture, and what can be said in figures.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { LEAST_PRESENTER } from '../../../core/matte/figures.ts'
import type { Scopes } from '../../../engine/protocol.ts'
import FigureRow from '../FigureRow.vue'
import { useFigureWords } from '../use-figure-words.ts'
import HistogramScope from './HistogramScope.vue'
import VectorScope from './VectorScope.vue'
import WaveformScope from './WaveformScope.vue'

const props = defineProps<{
  scopes: Scopes | null
  /** The colour of the cloth that is keyed; null without such a key. */
  cloth: string | null
}>()
const { t } = useI18n()
const { keyWords, clippedWords } = useFigureWords()

const figures = computed(() => [...keyWords(props.scopes?.key ?? null, props.cloth), clippedWords(props.scopes?.clipping ?? null)])
const isNobodyLeft = computed(() => props.scopes?.key !== null && props.scopes?.key !== undefined && props.scopes.key.presenter < LEAST_PRESENTER)
</script>

<template>
  <section class="scope-strip border-t border-line" :aria-label="t('scopes.title')">
    <HistogramScope :histogram="scopes?.histogram ?? null" />
    <WaveformScope :waveform="scopes?.waveform ?? null" />
    <VectorScope :vectorscope="scopes?.vectorscope ?? null" />
    <div class="grid h-[112px] content-start gap-px">
      <p v-if="isNobodyLeft" class="rounded bg-wash px-1.5 py-0.5 text-[12px] font-medium text-brass" role="status">{{ t('key.nobodyLeft') }}</p>
      <FigureRow v-for="figure in figures" :key="figure.id" :figure="figure" />
    </div>
  </section>
</template>

<style scoped>
.scope-strip {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 116px 244px;
  gap: 8px;
  padding: 7px 9px;
}
@media (max-width: 819px) {
  .scope-strip {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
}
@media (min-width: 820px) and (max-width: 1179px) {
  .scope-strip {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 226px;
  }
  .scope-strip > :nth-child(2) {
    display: none;
  }
}
</style>
