<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { RANGES } from '../../core/show/limits.ts'
import { updateLayer } from '../../core/show/edits.ts'
import type { Layer } from '../../core/show/show.ts'
import SliderRow from '../base/SliderRow.vue'
import { useShowStore } from '../show/show.store.ts'
import InspectorSection from './InspectorSection.vue'

const props = defineProps<{ layer: Layer }>()
const { t } = useI18n()
const showStore = useShowStore()
/** A corner of half the shorter side makes a pill or a circle. */
const roundest = computed(() =>
  Math.min(RANGES.cornerRadiusPx.max, Math.max(1, Math.round(Math.min(props.layer.placement.width, props.layer.placement.height) / 2))),
)

function setCorner(cornerRadiusPx: number): void {
  const { sceneId } = showStore
  if (sceneId === null) return
  showStore.edit(
    t('edits.frame', { name: props.layer.name }),
    (show) => updateLayer(show, sceneId, props.layer.id, (layer) => ({ ...layer, frame: { cornerRadiusPx } })),
    `corner-${props.layer.id}`,
  )
}
</script>

<template>
  <InspectorSection :title="t('inspector.frame')">
    <SliderRow
      :model-value="Math.min(roundest, layer.frame.cornerRadiusPx)"
      :label="t('inspector.corner')"
      :min="0"
      :max="roundest"
      :step="1"
      unit="px"
      :usual="0"
      @update:model-value="setCorner"
    />
  </InspectorSection>
</template>
