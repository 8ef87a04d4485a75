<script setup lang="ts">
// Scopes of the treated picture, and what can be said in figures.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Scopes } from '../../../engine/protocol.ts'
import HistogramScope from './HistogramScope.vue'
import VectorScope from './VectorScope.vue'
import WaveformScope from './WaveformScope.vue'

const props = defineProps<{ scopes: Scopes | null }>()
const { t } = useI18n()
const percent = (share: number) => `${(share * 100).toFixed(share < 0.0995 ? 1 : 0)} %`
const figures = computed(() => {
  const { scopes } = props
  const key = scopes?.key ?? null
  return [
    {
      id: 'fringe',
      label: t('scopes.fringe'),
      hint: t('scopes.fringeHint'),
      value: key === null ? '–' : key.fringe.toFixed(1),
      isBad: key !== null && key.fringe > 2,
    },
    {
      id: 'see',
      label: t('scopes.seeThrough'),
      hint: t('scopes.seeThroughHint'),
      value: key === null ? '–' : percent(key.seeThrough),
      isBad: key !== null && key.seeThrough > 0.001,
    },
    { id: 'veil', label: t('scopes.veil'), hint: t('scopes.veilHint'), value: key === null ? '–' : percent(key.veil), isBad: key !== null && key.veil > 0.005 },
    {
      id: 'clipped',
      label: t('scopes.clipped'),
      hint: t('scopes.clippedHint'),
      value: scopes === null ? '–' : percent(scopes.clipping.black + scopes.clipping.white),
      isBad: scopes !== null && scopes.clipping.white > 0.02,
    },
  ]
})
</script>

<template>
  <section class="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_132px_112px] gap-2.5 border-t border-line px-3 py-2.5" :aria-label="t('scopes.title')">
    <HistogramScope :histogram="scopes?.histogram ?? null" />
    <WaveformScope :waveform="scopes?.waveform ?? null" />
    <VectorScope :vectorscope="scopes?.vectorscope ?? null" />
    <dl class="grid h-[128px] content-between">
      <div v-for="figure in figures" :key="figure.id" :title="figure.hint" :data-testid="`figure-${figure.id}`">
        <dd class="font-num text-[14px] leading-[1.15] tabular-nums" :class="figure.isBad ? 'text-brass' : ''">{{ figure.value }}</dd>
        <dt class="text-[11.5px] leading-[1.15] text-soft">{{ figure.label }}</dt>
      </div>
    </dl>
  </section>
</template>
