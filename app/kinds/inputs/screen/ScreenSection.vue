<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { ScreenInput } from '../../../../core/inputs/screen.ts'
import InspectorSection from '../../../build/InspectorSection.vue'
import ScreenSource from './ScreenSource.vue'

defineProps<{ input: ScreenInput }>()
const { t } = useI18n()
</script>

<template>
  <InspectorSection name="screen" :title="t('screens.source')">
    <ScreenSource :input="input" />
  </InspectorSection>
</template>
