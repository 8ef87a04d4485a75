<script setup lang="ts">
// What a shape is filled with: a colour, or colours that run into each other.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { fillOf, updateFill } from '../../../../core/show/contents.ts'
import { RANGES } from '../../../../core/schema/limits.ts'
import type { Fill, FillStop, ShapeLayer } from '../../../../core/show/show.ts'
import NumberCell from '../../../base/rows/NumberCell.vue'
import ColourField from '../../../base/ColourField.vue'
import SelectMenu from '../../../base/SelectMenu.vue'
import { useShowStore } from '../../../show/show.store.ts'
import InspectorSection from '../../../build/InspectorSection.vue'
import SharedNote from '../../../build/SharedNote.vue'

const props = defineProps<{ layer: ShapeLayer }>()
const { t } = useI18n()
const showStore = useShowStore()
const kinds = computed(() => (['plain', 'linear', 'radial'] as const).map((value) => ({ value, label: t(`inspector.fills.${value}`) })))
const fill = computed(() => fillOf(showStore.show!, props.layer))
const SECOND_COLOUR = '#e0b04b'

function set(make: (fill: Fill) => Fill, key: string): void {
  const { contentId } = props.layer
  showStore.edit(t('edits.fill', { name: props.layer.name }), (show) => updateFill(show, contentId, make), `fill-${key}-${props.layer.id}`)
}

/** The same colours as another kind of fill. */
function asKind(kind: Fill['kind'], fill: Fill): Fill {
  const stops = stopsOf(fill)
  if (kind === 'plain') return { kind, colour: stops[0]!.colour, opacity: stops[0]!.opacity }
  return kind === 'linear' ? { kind, angleDeg: 180, stops } : { kind, stops }
}

function stopsOf(fill: Fill): readonly FillStop[] {
  if (fill.kind !== 'plain') return fill.stops
  return [
    { at: 0, colour: fill.colour, opacity: fill.opacity },
    { at: 1, colour: SECOND_COLOUR, opacity: 1 },
  ]
}

const colours = computed(() => (fill.value.kind === 'plain' ? [fill.value.colour] : fill.value.stops.map((stop) => stop.colour)))

function setColour(index: number, colour: string): void {
  set(
    (fill) => (fill.kind === 'plain' ? { ...fill, colour } : { ...fill, stops: fill.stops.map((stop, at) => (at === index ? { ...stop, colour } : stop)) }),
    `colour-${index}`,
  )
}
</script>

<template>
  <InspectorSection name="fill" :title="t('inspector.fillKind')">
    <SelectMenu
      :model-value="fill.kind"
      :label="t('inspector.fillKind')"
      :options="kinds"
      @update:model-value="(kind) => set((fill) => asKind(kind, fill), 'kind')"
    />
    <div class="mt-2 flex flex-wrap items-end gap-2">
      <ColourField
        v-for="(colour, index) in colours"
        :key="index"
        can-name
        :model-value="colour"
        :label="t('inspector.fillColour', { n: index + 1 })"
        @update:model-value="setColour(index, $event)"
      />
      <NumberCell
        v-if="fill.kind === 'linear'"
        class="ms-auto w-17"
        :model-value="fill.angleDeg"
        :label="t('inspector.fillAngle')"
        :range="RANGES.angleDeg"
        :step="5"
        :unit="t('units.degrees')"
        @update:model-value="(angleDeg) => set((fill) => (fill.kind === 'linear' ? { ...fill, angleDeg } : fill), 'angle')"
      />
    </div>
    <SharedNote :layer="layer" />
  </InspectorSection>
</template>
