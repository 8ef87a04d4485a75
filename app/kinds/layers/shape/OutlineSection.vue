<script setup lang="ts">
// The outline of a drawn form: one of the usual ones, or path data; and the line along it.
import { shapeOf } from '../../../../core/layers/shape.ts'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { OutlineError, readOutline } from '../../../../core/outline/read-outline.ts'
import { OUTLINE_BOX, usualOutlines, type OutlineName } from '../../../../core/outline/usual-outlines.ts'
import { updateOutline } from '../../../../core/show/contents.ts'
import { LIMITS } from '../../../../core/schema/limits.ts'
import type { Outline, ShapeLayer, Stroke } from '../../../../core/show/show.ts'
import LengthRow from '../../../base/rows/LengthRow.vue'
import SelectMenu from '../../../base/SelectMenu.vue'
import { useShowStore } from '../../../show/show.store.ts'
import SwitchedColour from '../../../base/SwitchedColour.vue'
import { useCanvasUnit } from '../../../build/use-canvas-unit.ts'
import InspectorSection from '../../../build/InspectorSection.vue'

const props = defineProps<{ layer: ShapeLayer; outline: Outline }>()
const { t } = useI18n()
const showStore = useShowStore()
const MOST_STROKE_PX = 40
const names = Object.keys(usualOutlines) as OutlineName[]
const { scaled } = useCanvasUnit()
const name = computed(() => names.find((each) => usualOutlines[each] === shapeOf(showStore.show!, props.layer).outline?.path) ?? 'own')
const forms = computed(() => ([...names, 'own'] as const).map((value) => ({ value, label: t(`inspector.outlines.${value}`), isOff: value === 'own' })))
const data = ref(props.outline.path)
const trouble = ref<string | null>(null)
watch(
  () => props.outline.path,
  (path) => {
    data.value = path
    trouble.value = null
  },
)

function set(make: (outline: Outline) => Outline, key: string): void {
  const { contentId, id } = props.layer
  showStore.edit(t('edits.outline', { name: props.layer.name }), (show) => updateOutline(show, contentId, make), `outline-${key}-${id}`)
}

function setForm(form: OutlineName | 'own'): void {
  if (form !== 'own') set((outline) => ({ ...outline, path: usualOutlines[form], width: OUTLINE_BOX, height: OUTLINE_BOX }), 'form')
}

/** What was typed stays in the field until it can be drawn. */
function setPath(): void {
  const path = data.value.trim()
  try {
    trouble.value = readOutline(path, 1, 1).length === 0 ? t('inspector.pathEmpty') : null
  } catch (error) {
    if (!(error instanceof OutlineError)) throw error
    trouble.value = t('inspector.pathWrong', { n: error.at })
  }
  if (trouble.value === null && path !== props.outline.path) set((outline) => ({ ...outline, path }), 'path')
}

function setStroke(part: Partial<Stroke>, key: string): void {
  set((outline) => (outline.stroke === null ? outline : { ...outline, stroke: { ...outline.stroke, ...part } }), key)
}
</script>

<template>
  <InspectorSection name="outline" :title="t('inspector.drawnForm')">
    <SelectMenu :model-value="name" :label="t('inspector.drawnForm')" :options="forms" @update:model-value="setForm" />
    <SwitchedColour
      class="mt-2"
      :colour="outline.stroke?.colour ?? null"
      :label="t('inspector.stroke')"
      :colour-label="t('inspector.strokeColour')"
      @switch="set((one) => ({ ...one, stroke: $event ? { widthPx: scaled(4), colour: '#ffffff', opacity: 1 } : null }), 'stroke')"
      @colour="setStroke({ colour: $event }, 'stroke-colour')"
    />
    <LengthRow
      v-if="outline.stroke"
      class="mt-1"
      :model-value="outline.stroke.widthPx"
      :label="t('inspector.borderWidth')"
      :min="1"
      :max="scaled(MOST_STROKE_PX)"
      :usual="scaled(4)"
      @update:model-value="setStroke({ widthPx: $event }, 'stroke-width')"
    />
    <details class="mt-2">
      <summary class="min-h-6 cursor-pointer text-soft">{{ t('inspector.pathData') }}</summary>
      <textarea
        v-model="data"
        rows="4"
        spellcheck="false"
        class="mt-1 w-full resize-y rounded-md border border-line bg-raised px-2 py-1 font-num text-[12px] leading-snug"
        :aria-label="t('inspector.pathData')"
        :aria-invalid="trouble !== null"
        :maxlength="LIMITS.pathLength"
        @change="setPath"
      ></textarea>
      <p v-if="trouble" class="rounded-md bg-wash px-2 py-1 text-[12px] leading-snug" role="alert">{{ trouble }}</p>
      <p v-else class="text-[12px] text-soft">{{ t('inspector.pathHint', { n: OUTLINE_BOX }) }}</p>
    </details>
  </InspectorSection>
</template>
