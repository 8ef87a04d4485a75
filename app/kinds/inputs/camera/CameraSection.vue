<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { CameraInput } from '../../../../core/inputs/camera.ts'
import InspectorSection from '../../../build/InspectorSection.vue'
import CameraDevice from './CameraDevice.vue'

defineProps<{ input: CameraInput }>()
const { t } = useI18n()
</script>

<template>
  <InspectorSection name="camera" :title="t('inspector.device')">
    <CameraDevice :input="input" />
  </InspectorSection>
</template>
