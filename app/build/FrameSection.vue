<script setup lang="ts">
// Shape, border, shadow and blend mode of a layer.
import { layerKindOf } from '../../core/layers/index.ts'
import { shapeOf, isShape } from '../../core/layers/shape.ts'
import { ClipboardPaste, Copy } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { blendModes } from '../../core/blend/index.ts'
import { inRatio, proportionNames, proportions, proportionOf, type ProportionName } from '../../core/layout/proportions.ts'
import { RANGES } from '../../core/schema/limits.ts'
import { updateLayer } from '../../core/show/edits.ts'
import { borderSides, frameForms, type Border, type Frame, type Layer, type Shadow } from '../../core/show/show.ts'
import SelectRow from '../base/rows/SelectRow.vue'
import LengthRow from '../base/rows/LengthRow.vue'
import PercentRow from '../base/rows/PercentRow.vue'
import ChoiceBar from '../base/ChoiceBar.vue'
import IconButton from '../base/IconButton.vue'
import { useShowStore } from '../show/show.store.ts'
import { copiedFrame } from './copied-frame.ts'
import SwitchedColour from '../base/SwitchedColour.vue'
import { useCanvasUnit } from './use-canvas-unit.ts'
import InspectorSection from './InspectorSection.vue'

const props = defineProps<{ layer: Layer }>()
const { t } = useI18n()
const showStore = useShowStore()
const frame = computed(() => props.layer.frame)
const { scaled } = useCanvasUnit()
const USUAL_BORDER: Border = { widthPx: 4, colour: '#ffffff', opacity: 1, side: 'inside' }
const USUAL_SHADOW: Shadow = { dx: 0, dy: 8, blurPx: 24, colour: '#000000', opacity: 0.5 }
/** How far the sliders go; a file may hold more. */
const MOST = { borderPx: 40, offsetPx: 60, blurPx: 100 } as const
/** A corner of half the shorter side makes a pill or a circle. */
const roundest = computed(() =>
  Math.min(RANGES.cornerRadiusPx.max, Math.max(1, Math.round(Math.min(props.layer.placement.width, props.layer.placement.height) / 2))),
)
const forms = computed(() => frameForms.map((value) => ({ value, label: t(`inspector.forms.${value}`) })))
/** Not for text and groups: other proportions would reflow or distort them. */
const hasProportions = computed(() => layerKindOf(props.layer).hasProportions)
const ratios = computed(() =>
  ([...proportionNames, 'free'] as const).map((value) => ({ value, label: t(`inspector.ratios.${value}`), isOff: value === 'free' })),
)
/** Drawn shapes have an outline instead of a frame. */
const isDrawn = computed(() => isShape(props.layer) && shapeOf(showStore.show!, props.layer).outline !== null)
const sides = computed(() => borderSides.map((value) => ({ value, label: t(`inspector.sides.${value}`) })))
const blends = computed(() => blendModes.map(({ name }) => ({ value: name, label: t(`blends.${name}`) })))

function change(make: (layer: Layer) => Layer, key: string | null): void {
  const { sceneId } = showStore
  if (sceneId === null) return
  showStore.edit(
    t('edits.frame', { name: props.layer.name }),
    (show) => updateLayer(show, sceneId, props.layer.id, make),
    key === null ? null : `${key}-${props.layer.id}`,
  )
}

function set(part: Partial<Frame>, key: string | null = null): void {
  change((layer) => ({ ...layer, frame: { ...layer.frame, ...part } }), key)
}

function setProportion(name: ProportionName | 'free'): void {
  const canvas = showStore.show?.canvas
  if (name !== 'free' && canvas !== undefined) change((layer) => ({ ...layer, placement: inRatio(layer.placement, proportions[name], canvas) }), null)
}

function copyFrame(): void {
  const { width, height } = props.layer.placement
  copiedFrame.value = { frame: frame.value, ratio: width / height }
}

/** Pastes the frame, and its proportions where the layer can have them. */
function pasteFrame(): void {
  const canvas = showStore.show?.canvas
  const copied = copiedFrame.value
  if (canvas === undefined || copied === null) return
  change((layer) => ({ ...layer, frame: copied.frame, ...(hasProportions.value ? { placement: inRatio(layer.placement, copied.ratio, canvas) } : {}) }), null)
}

function setBorder(part: Partial<Border>, key: string): void {
  change(
    (layer) => (layer.frame.border === null ? layer : { ...layer, frame: { ...layer.frame, border: { ...layer.frame.border, ...part } } }),
    `border-${key}`,
  )
}

function setShadow(part: Partial<Shadow>, key: string): void {
  change(
    (layer) => (layer.frame.shadow === null ? layer : { ...layer, frame: { ...layer.frame, shadow: { ...layer.frame.shadow, ...part } } }),
    `shadow-${key}`,
  )
}
</script>

<template>
  <InspectorSection name="frame" :title="t('inspector.frame')">
    <template #aside>
      <span v-if="!isDrawn" class="flex">
        <IconButton :icon="Copy" size="small" :label="t('inspector.takeStyle')" @click="copyFrame" />
        <IconButton v-if="copiedFrame" :icon="ClipboardPaste" size="small" :label="t('inspector.giveStyle')" @click="pasteFrame" />
      </span>
    </template>
    <ChoiceBar v-if="!isDrawn" :model-value="frame.form" :label="t('inspector.form')" :choices="forms" @update:model-value="set({ form: $event })" />
    <SelectRow
      v-if="hasProportions"
      class="mt-2"
      :model-value="proportionOf(layer.placement) ?? 'free'"
      :label="t('inspector.proportions')"
      :options="ratios"
      @update:model-value="setProportion"
    />
    <LengthRow
      v-if="frame.form === 'box' && !isDrawn"
      class="mt-2"
      :model-value="Math.min(roundest, frame.cornerRadiusPx)"
      :label="t('inspector.corner')"
      :max="roundest"
      :usual="0"
      @update:model-value="set({ cornerRadiusPx: $event }, 'corner')"
    />
    <SwitchedColour
      v-if="!isDrawn"
      class="mt-2"
      :colour="frame.border?.colour ?? null"
      :label="t('inspector.border')"
      :colour-label="t('inspector.borderColour')"
      @switch="set({ border: $event ? { ...USUAL_BORDER, widthPx: scaled(USUAL_BORDER.widthPx) } : null })"
      @colour="setBorder({ colour: $event }, 'colour')"
    />
    <template v-if="frame.border && !isDrawn">
      <LengthRow
        class="mt-1"
        :model-value="frame.border.widthPx"
        :label="t('inspector.borderWidth')"
        :min="1"
        :max="scaled(MOST.borderPx)"
        :usual="scaled(USUAL_BORDER.widthPx)"
        @update:model-value="setBorder({ widthPx: $event }, 'width')"
      />
      <PercentRow
        class="mt-1"
        :model-value="frame.border.opacity"
        :label="t('inspector.borderOpacity')"
        @update:model-value="setBorder({ opacity: $event }, 'opacity')"
      />
      <ChoiceBar
        class="mt-1"
        :model-value="frame.border.side"
        :label="t('inspector.border')"
        :choices="sides"
        @update:model-value="setBorder({ side: $event }, 'side')"
      />
    </template>
    <SwitchedColour
      v-if="!isDrawn"
      class="mt-2"
      :colour="frame.shadow?.colour ?? null"
      :label="t('inspector.shadow')"
      :colour-label="t('inspector.shadowColour')"
      @switch="set({ shadow: $event ? { ...USUAL_SHADOW, dy: scaled(USUAL_SHADOW.dy), blurPx: scaled(USUAL_SHADOW.blurPx) } : null })"
      @colour="setShadow({ colour: $event }, 'colour')"
    />
    <template v-if="frame.shadow && !isDrawn">
      <LengthRow
        v-for="row in [
          { key: 'blurPx', label: t('inspector.blur'), min: 0, max: scaled(MOST.blurPx), usual: scaled(USUAL_SHADOW.blurPx) },
          { key: 'dx', label: t('inspector.shadowRight'), min: -scaled(MOST.offsetPx), max: scaled(MOST.offsetPx), usual: 0 },
          { key: 'dy', label: t('inspector.shadowDown'), min: -scaled(MOST.offsetPx), max: scaled(MOST.offsetPx), usual: scaled(USUAL_SHADOW.dy) },
        ] as const"
        :key="row.key"
        class="mt-1"
        :model-value="frame.shadow[row.key]"
        :label="row.label"
        :min="row.min"
        :max="row.max"
        :usual="row.usual"
        @update:model-value="setShadow({ [row.key]: $event }, row.key)"
      />
      <PercentRow
        class="mt-1"
        :model-value="frame.shadow.opacity"
        :label="t('inspector.strength')"
        :usual="USUAL_SHADOW.opacity"
        @update:model-value="setShadow({ opacity: $event }, 'opacity')"
      />
    </template>
    <SelectRow
      class="mt-2"
      :model-value="layer.blend"
      :label="t('inspector.blend')"
      :options="blends"
      @update:model-value="change((current) => ({ ...current, blend: $event }), null)"
    />
  </InspectorSection>
</template>
