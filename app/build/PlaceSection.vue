<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { fitToCanvas, placeLayer, updateLayer } from '../../core/show/edits.ts'
import { RANGES } from '../../core/show/limits.ts'
import type { FitMode } from '../../core/layout/fit.ts'
import type { Layer, Placement } from '../../core/show/show.ts'
import ChoiceBar from '../base/ChoiceBar.vue'
import NumberField from '../base/NumberField.vue'
import SliderRow from '../base/SliderRow.vue'
import { useShowStore } from '../show/show.store.ts'
import InspectorSection from './InspectorSection.vue'

const props = defineProps<{ layer: Layer }>()
const { t } = useI18n()
const showStore = useShowStore()
const placement = computed(() => props.layer.placement)
const numbers = [
  { key: 'x', ...RANGES.position },
  { key: 'y', ...RANGES.position },
  { key: 'width', ...RANGES.size },
  { key: 'height', ...RANGES.size },
] as const
const fits = computed(() => (['fit', 'fill', 'stretch'] as const).map((value) => ({ value, label: t(`inspector.${value}`) })))

function place(part: Partial<Placement>, key: string): void {
  const { sceneId } = showStore
  if (sceneId !== null)
    showStore.edit(
      t('edits.placement', { name: props.layer.name }),
      (show) => placeLayer(show, sceneId, props.layer.id, part),
      `place-${props.layer.id}-${key}`,
    )
}

function wholeCanvas(): void {
  const { sceneId } = showStore
  if (sceneId !== null)
    showStore.edit(t('edits.placement', { name: props.layer.name }), (show) => fitToCanvas(show, sceneId, props.layer.id, placement.value.fit))
}

function setOpacity(percent: number): void {
  const { sceneId } = showStore
  if (sceneId === null) return
  showStore.edit(
    t('edits.opacity', { name: props.layer.name }),
    (show) => updateLayer(show, sceneId, props.layer.id, (layer) => ({ ...layer, opacity: percent / 100 })),
    `opacity-${props.layer.id}`,
  )
}
</script>

<template>
  <InspectorSection :title="t('inspector.place')">
    <template #aside>
      <button type="button" class="min-h-6 rounded font-medium text-green hover:underline" :disabled="layer.locked" @click="wholeCanvas">
        {{ t('inspector.whole') }}
      </button>
    </template>
    <div class="grid grid-cols-2 gap-1.5 @min-[250px]:grid-cols-4">
      <label v-for="number in numbers" :key="number.key" class="text-[11.5px] text-soft">
        {{ t(`inspector.${number.key}`) }}
        <NumberField
          class="mt-0.5 text-ink"
          :model-value="Math.round(placement[number.key])"
          :label="t(`inspector.${number.key}`)"
          :min="number.min"
          :max="number.max"
          :step="1"
          :disabled="layer.locked"
          @update:model-value="place({ [number.key]: $event }, number.key)"
        />
      </label>
    </div>
    <div class="mt-2.5 flex flex-wrap items-end gap-2">
      <ChoiceBar
        v-if="layer.kind === 'input'"
        :model-value="placement.fit"
        :label="t('inspector.fitLabel')"
        :choices="fits"
        :disabled="layer.locked"
        @update:model-value="place({ fit: $event as FitMode }, 'fit')"
      />
      <label class="ml-auto w-17 text-[11.5px] text-soft">
        {{ t('inspector.angle') }}
        <NumberField
          class="mt-0.5 text-ink"
          :model-value="placement.angleDeg"
          :label="t('inspector.angle')"
          :min="RANGES.angleDeg.min"
          :max="RANGES.angleDeg.max"
          :step="1"
          :unit="t('units.degrees')"
          :disabled="layer.locked"
          @update:model-value="place({ angleDeg: $event }, 'angle')"
        />
      </label>
    </div>
    <SliderRow
      class="mt-2"
      :model-value="Math.round(layer.opacity * 100)"
      :label="t('inspector.opacity')"
      :min="0"
      :max="100"
      :step="1"
      unit="%"
      :usual="100"
      @update:model-value="setOpacity"
    />
  </InspectorSection>
</template>
