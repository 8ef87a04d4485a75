<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { RouterLink } from 'vue-router'
import type { Input, Step } from '../../core/show/show.ts'
import { useShowStore } from '../show/show.store.ts'
import { useStepWords } from '../bench/use-step-words.ts'
import InspectorSection from './InspectorSection.vue'

defineProps<{
  input: Input
  /** Steps of the layer's own. */
  here: readonly Step[]
}>()
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
    <template v-if="here.length > 0">
      <p class="mt-2.5 mb-1.5 text-soft">{{ t('inspector.hereOnly') }}</p>
      <ol class="list-inside list-decimal" data-testid="here-only">
        <li v-for="step in here" :key="step.id" class="py-0.5" :class="step.on ? '' : 'text-soft'">
          {{ nameOf(step.kind) }}
          <span class="float-right font-num text-[11.5px] text-soft">{{ step.on ? summaryOf(step) : t('inspector.off') }}</span>
        </li>
      </ol>
    </template>
  </InspectorSection>
</template>
