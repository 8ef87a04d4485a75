<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { isColour, type ColourInput } from '../../../../core/inputs/colour.ts'
import { updateInputOf } from '../../../../core/show/edits.ts'
import ColourField from '../../../base/ColourField.vue'
import InspectorSection from '../../../build/InspectorSection.vue'
import { useShowStore } from '../../../show/show.store.ts'

const props = defineProps<{ input: ColourInput }>()
const { t } = useI18n()
const showStore = useShowStore()

function setColour(colour: string): void {
  showStore.edit(
    t('edits.colour', { name: props.input.name }),
    (show) => updateInputOf(show, props.input.id, isColour, (input) => ({ ...input, colour })),
    `colour-${props.input.id}`,
  )
}
</script>

<template>
  <InspectorSection name="colour" :title="t('inspector.colourOf')">
    <ColourField :model-value="input.colour" :label="t('inspector.colourOf')" @update:model-value="setColour" />
  </InspectorSection>
</template>
