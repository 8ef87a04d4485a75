<script setup lang="ts">
// Standing inside a page: put there by one press, and how much of the page's ink is in front.
import { BookOpenText } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { inkModes, type InkMode } from '../../core/layout/inside-page.ts'
import BaseButton from '../base/BaseButton.vue'
import ChoiceBar from '../base/ChoiceBar.vue'
import InspectorSection from './InspectorSection.vue'
import { useInsidePage } from './use-inside-page.ts'

const { t } = useI18n()
const { canStandIn, putInside, mode, setMode } = useInsidePage()
const choices = computed(() => inkModes.map((value: InkMode) => ({ value, label: t(`inside.modes.${value}`), detail: t(`inside.modeHints.${value}`) })))
</script>

<template>
  <InspectorSection v-if="mode !== null || canStandIn" :title="t('inside.title')">
    <template v-if="mode !== null">
      <p class="mb-1 text-[11.5px] text-soft">{{ t('inside.ink') }}</p>
      <ChoiceBar :model-value="mode" :label="t('inside.ink')" :choices="choices" @update:model-value="setMode" />
      <p class="mt-1.5 leading-snug text-soft">{{ t(`inside.modeHints.${mode}`) }}</p>
    </template>
    <template v-else>
      <BaseButton class="w-full" :icon="BookOpenText" @click="putInside">{{ t('inside.put') }}</BaseButton>
      <p class="mt-1.5 leading-snug text-soft">{{ t('inside.hint') }}</p>
    </template>
  </InspectorSection>
</template>
