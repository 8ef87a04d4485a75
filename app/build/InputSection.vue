<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { updateInput } from '../../core/show/edits.ts'
import type { Input } from '../../core/show/show.ts'
import ColourField from '../base/ColourField.vue'
import CameraDevice from '../bench/CameraDevice.vue'
import { useShowStore } from '../show/show.store.ts'
import ScreenSource from './ScreenSource.vue'
import InspectorSection from './InspectorSection.vue'

const props = defineProps<{ input: Input }>()
const { t } = useI18n()
const showStore = useShowStore()
const colour = computed(() => (props.input.kind === 'colour' ? props.input.colour : null))

function setColour(next: string): void {
  showStore.edit(
    t('edits.colour', { name: props.input.name }),
    (show) => updateInput(show, props.input.id, (input) => (input.kind === 'colour' ? { ...input, colour: next } : input)),
    `colour-${props.input.id}`,
  )
}
</script>

<template>
  <InspectorSection v-if="input.kind === 'camera'" :title="t('inspector.device')">
    <CameraDevice :input="input" />
  </InspectorSection>
  <InspectorSection v-else-if="input.kind === 'screen'" :title="t('screens.source')">
    <ScreenSource :input="input" />
  </InspectorSection>
  <InspectorSection v-else-if="colour !== null" :title="t('inspector.colourOf')">
    <ColourField :model-value="colour" :label="t('inspector.colourOf')" @update:model-value="setColour" />
  </InspectorSection>
</template>
