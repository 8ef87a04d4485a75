<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { RouterLink } from 'vue-router'
import type { Input } from '../../core/show/show.ts'
import { useShowStore } from '../show/show.store.ts'
import { useStepWords } from '../bench/use-step-words.ts'
import InspectorSection from './InspectorSection.vue'

defineProps<{ input: Input }>()
const { t } = useI18n()
const showStore = useShowStore()
const { nameOf, summaryOf } = useStepWords()
</script>

<template>
  <InspectorSection :title="t('inspector.cleanUp')">
    <template #aside>
      <RouterLink class="font-medium text-green hover:underline" :to="{ name: 'bench', params: { showId: showStore.showId!, inputId: input.id } }">
        {{ t('inspector.openBench') }}
      </RouterLink>
    </template>
    <p class="mb-1.5 text-soft">{{ t('inspector.everywhere') }}</p>
    <p v-if="input.treatment.length === 0" class="text-soft">{{ t('inspector.noSteps') }}</p>
    <ol v-else class="list-inside list-decimal">
      <li v-for="step in input.treatment" :key="step.id" class="py-0.5" :class="step.on ? '' : 'text-soft'">
        {{ nameOf(step.kind) }}
        <span class="float-right font-num text-[11.5px] text-soft">{{ step.on ? summaryOf(step) : t('inspector.off') }}</span>
      </li>
    </ol>
  </InspectorSection>
</template>
