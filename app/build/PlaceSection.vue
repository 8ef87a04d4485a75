<script setup lang="ts">
import { inputIdOf } from '../../core/layers/index.ts'
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { placeLayer, updateLayer } from '../../core/show/edits.ts'
import { RANGES } from '../../core/schema/limits.ts'
import type { FitMode } from '../../core/box/fit.ts'
import type { Layer, Placement } from '../../core/show/show.ts'
import NumberCell from '../base/rows/NumberCell.vue'
import PercentRow from '../base/rows/PercentRow.vue'
import ChoiceBar from '../base/ChoiceBar.vue'
import { useShowStore } from '../show/show.store.ts'
import AlignRow from './AlignRow.vue'
import CropRow from './CropRow.vue'
import InspectorSection from './InspectorSection.vue'
import { useCommands } from '../commands/use-commands.ts'
import { useLayerActions } from './use-layer-actions.ts'

const props = defineProps<{ layer: Layer }>()
const { t } = useI18n()
const showStore = useShowStore()
/** In coordinates of the scene's canvas, also for layers inside groups. */
const placement = computed(() => showStore.stageLayers.find(({ id }) => id === props.layer.id)?.placement ?? props.layer.placement)
const { hasOwnSize } = useLayerActions()
const { commands, run } = useCommands()
const sizes = computed(() => (['fillCanvas', 'resetSize'] as const).filter((id) => commands.value[id].isFor))
/** Numbers are pixels of the canvas, or hundredths of its width or height. */
const unit = useLocalStorage<'px' | 'percent'>('green-room:place-unit', 'px')
const units = computed(() => [
  { value: 'px' as const, label: 'px' },
  { value: 'percent' as const, label: '%' },
])
const numbers = computed(() => {
  const { widthPx, heightPx } = showStore.show!.canvas
  const isShare = unit.value === 'percent'
  return (['x', 'y', 'width', 'height'] as const).map((key) => {
    const one = isShare ? (key === 'x' || key === 'width' ? widthPx : heightPx) / 100 : 1
    const { min, max } = key === 'x' || key === 'y' ? RANGES.position : RANGES.size
    const value = placement.value[key] / one
    return { key, one, min: min / one, max: max / one, value: isShare ? Math.round(value * 100) / 100 : Math.round(value), step: isShare ? 0.1 : 1 }
  })
})
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

function setOpacity(opacity: number): void {
  const { sceneId } = showStore
  if (sceneId === null) return
  showStore.edit(
    t('edits.opacity', { name: props.layer.name }),
    (show) => updateLayer(show, sceneId, props.layer.id, (layer) => ({ ...layer, opacity })),
    `opacity-${props.layer.id}`,
  )
}
</script>

<template>
  <InspectorSection name="place" :title="t('inspector.place')">
    <template #aside>
      <ChoiceBar v-model="unit" class="ms-auto" :label="t('inspector.unit')" :choices="units" />
    </template>
    <div class="grid grid-cols-2 gap-1.5 @min-[250px]:grid-cols-4">
      <NumberCell
        v-for="number in numbers"
        :key="number.key"
        :model-value="number.value"
        :label="t(`inspector.${number.key}`)"
        :range="number"
        :step="number.step"
        :disabled="layer.locked"
        @update:model-value="place({ [number.key]: $event * number.one }, number.key)"
      />
    </div>
    <div class="mt-2.5 flex flex-wrap items-end gap-2">
      <ChoiceBar
        v-if="inputIdOf(layer) !== null"
        :model-value="placement.fit"
        :label="t('inspector.fitLabel')"
        :choices="fits"
        :disabled="layer.locked"
        @update:model-value="place({ fit: $event as FitMode }, 'fit')"
      />
      <NumberCell
        class="ms-auto w-17"
        :model-value="placement.angleDeg"
        :label="t('inspector.angle')"
        :range="RANGES.angleDeg"
        :step="1"
        :unit="t('units.degrees')"
        :disabled="layer.locked"
        @update:model-value="place({ angleDeg: $event }, 'angle')"
      />
    </div>
    <div class="mt-2 flex flex-wrap items-center gap-x-3">
      <button
        v-for="id in sizes"
        :key="id"
        type="button"
        class="min-h-6 rounded font-medium text-green hover:underline"
        :disabled="layer.locked"
        @click="run(id)"
      >
        {{ t(`commands.does.${id}`) }}
      </button>
    </div>
    <AlignRow class="mt-1" />
    <CropRow v-if="hasOwnSize" :layer="layer" />
    <PercentRow class="mt-2" :model-value="layer.opacity" :label="t('inspector.opacity')" @update:model-value="setOpacity" />
  </InspectorSection>
</template>
