<script setup lang="ts">
import { textOf } from '../../../../core/layers/text.ts'
import { Plus, X } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { LIMITS, RANGES } from '../../../../core/schema/limits.ts'
import type { TextLayer } from '../../../../core/show/show.ts'
import { fromShow, styleFaces } from '../../../../core/style/style-names.ts'
import { textFamilies, type TextContent } from '../../../../core/text/text-content.ts'
import NumberCell from '../../../base/rows/NumberCell.vue'
import LengthRow from '../../../base/rows/LengthRow.vue'
import BaseButton from '../../../base/BaseButton.vue'
import ChoiceBar from '../../../base/ChoiceBar.vue'
import ColourField from '../../../base/ColourField.vue'
import IconButton from '../../../base/IconButton.vue'
import SelectMenu from '../../../base/SelectMenu.vue'
import { useShowStore } from '../../../show/show.store.ts'
import ContrastNote from '../../../build/ContrastNote.vue'
import FieldsNote from '../../../build/FieldsNote.vue'
import SwitchedColour from '../../../base/SwitchedColour.vue'
import InspectorSection from '../../../build/InspectorSection.vue'
import SharedNote from '../../../build/SharedNote.vue'
import { useCanvasUnit } from '../../../build/use-canvas-unit.ts'
import { useTextEdit } from '../../../build/use-text-edit.ts'

const props = defineProps<{ layer: TextLayer }>()
const { t } = useI18n()
const showStore = useShowStore()
const text = computed(() => textOf(showStore.show!, props.layer))
const aligns = computed(() => (['start', 'centre', 'end'] as const).map((value) => ({ value, label: t(`inspector.${value}`) })))
/** Those of the show first: a text that has one follows it. */
const families = computed(() => [
  ...styleFaces.map((face) => ({ value: fromShow(face) as TextContent['family'], label: t(`inspector.showFaces.${face}`) })),
  ...textFamilies.map((family) => ({ value: family as TextContent['family'], label: family })),
])
const { unit } = useCanvasUnit()
const USUAL_PLATE = { colour: '#1e5b47', opacity: 0.96, paddingPx: 24, accent: '#e0b04b' } as const

const { change, changeBlock, tooSmall } = useTextEdit(() => props.layer)

function set(part: Partial<TextContent>, key: string): void {
  change(() => part, key)
}

function addBlock(): void {
  change(({ blocks }) => {
    const last = blocks.at(-1)!
    return { blocks: [...blocks, { ...last, text: t('build.textDefault'), weight: 400, sizePx: Math.round(last.sizePx * 0.6) }] }
  }, 'add')
}
</script>

<template>
  <InspectorSection name="text" :title="t('inspector.text')">
    <div v-for="(block, index) in text.blocks" :key="index" class="mb-3">
      <div class="flex items-center gap-1">
        <textarea
          :value="block.text"
          :aria-label="t('inspector.line', { n: index + 1 })"
          rows="1"
          :maxlength="LIMITS.textLength"
          class="field-sizing-content max-h-28 w-full resize-none rounded-md border border-line bg-raised px-2 py-1.5"
          @input="changeBlock(index, { text: ($event.target as HTMLTextAreaElement).value })"
        ></textarea>
        <IconButton
          v-if="text.blocks.length > 1"
          :icon="X"
          size="small"
          :label="t('inspector.removeLine', { n: index + 1 })"
          @click="change(({ blocks }) => ({ blocks: blocks.filter((_, at) => at !== index) }), 'remove')"
        />
      </div>
      <div class="mt-1 flex items-end gap-2">
        <NumberCell
          class="w-17"
          :model-value="block.sizePx"
          :label="t('inspector.size')"
          :range="RANGES.textSizePx"
          :step="1"
          unit="px"
          @update:model-value="changeBlock(index, { sizePx: $event })"
        />
        <NumberCell
          class="w-14"
          :model-value="block.weight"
          :label="t('inspector.weight')"
          :range="RANGES.textWeight"
          :step="50"
          @update:model-value="changeBlock(index, { weight: $event })"
        />
        <ColourField
          can-name
          class="ms-auto pb-0.5"
          :model-value="block.colour"
          :label="t('inspector.colour')"
          @update:model-value="changeBlock(index, { colour: $event })"
        />
      </div>
    </div>
    <ContrastNote :layer="layer" />
    <p v-for="line in tooSmall" :key="line" class="mb-1.5 rounded-md bg-wash px-2 py-1 text-[12px] leading-snug" role="status">
      {{ t('inspector.tooSmall', { n: line }) }}
    </p>
    <BaseButton v-if="text.blocks.length < LIMITS.blocks" kind="quiet" :icon="Plus" @click="addBlock">{{ t('inspector.addLine') }}</BaseButton>
    <div class="mt-1 grid grid-cols-[minmax(0,1fr)] gap-2">
      <SelectMenu :model-value="text.family" :label="t('inspector.family')" :options="families" @update:model-value="set({ family: $event }, 'family')" />
      <ChoiceBar
        class="justify-self-start"
        :model-value="text.align"
        :label="t('inspector.align')"
        :choices="aligns"
        @update:model-value="set({ align: $event }, 'align')"
      />
      <div class="flex items-end gap-2">
        <NumberCell
          class="w-17"
          :model-value="text.lineHeight"
          :label="t('inspector.lineHeight')"
          :range="RANGES.lineHeight"
          :step="0.05"
          @update:model-value="set({ lineHeight: $event }, 'line-height')"
        />
        <NumberCell
          class="w-17"
          :model-value="Math.round(text.letterSpacingEm * 1000) / 10"
          :label="t('inspector.letterSpacing')"
          :range="{ min: RANGES.letterSpacingEm.min * 100, max: RANGES.letterSpacingEm.max * 100 }"
          :step="1"
          unit="%"
          @update:model-value="set({ letterSpacingEm: $event / 100 }, 'spacing')"
        />
      </div>
      <SwitchedColour
        :colour="text.outline?.colour ?? null"
        :label="t('inspector.outline')"
        :colour-label="t('inspector.outlineColour')"
        @switch="set({ outline: $event ? { widthPx: 3 * unit, colour: '#101613' } : null }, 'outline')"
        @colour="change(({ outline }) => ({ outline: outline && { ...outline, colour: $event } }), 'outline-colour')"
      />
      <LengthRow
        v-if="text.outline"
        :model-value="text.outline.widthPx"
        :label="t('inspector.outlineWidth')"
        :min="RANGES.outlinePx.min"
        :max="20"
        :step="0.5"
        @update:model-value="change(({ outline }) => ({ outline: outline && { ...outline, widthPx: $event } }), 'outline-width')"
      />
      <SwitchedColour
        :colour="text.shadow?.colour ?? null"
        :label="t('inspector.letterShadow')"
        :colour-label="t('inspector.shadowColour')"
        @switch="set({ shadow: $event ? { dx: 0, dy: 3 * unit, blurPx: 10 * unit, colour: '#000000', opacity: 0.6 } : null }, 'shadow')"
        @colour="change(({ shadow }) => ({ shadow: shadow && { ...shadow, colour: $event } }), 'shadow-colour')"
      />
      <LengthRow
        v-if="text.shadow"
        :model-value="text.shadow.blurPx"
        :label="t('inspector.blur')"
        :max="60"
        @update:model-value="change(({ shadow }) => ({ shadow: shadow && { ...shadow, blurPx: $event } }), 'shadow-blur')"
      />
      <SwitchedColour
        :colour="text.plate?.colour ?? null"
        :label="t('inspector.plate')"
        :colour-label="t('inspector.plateColour')"
        @switch="set({ plate: $event ? USUAL_PLATE : null }, 'plate')"
        @colour="change(({ plate }) => ({ plate: plate && { ...plate, colour: $event } }), 'plate-colour')"
      />
    </div>
    <SharedNote :layer="layer" />
    <FieldsNote :text="text" />
  </InspectorSection>
</template>
