<script setup lang="ts">
import { ChevronDown, ChevronUp, GripVertical, Pipette, RotateCcw, Trash2 } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { changeTreatment, setStepParams, switchStep, type TreatmentHome } from '../../core/show/edits.ts'
import type { Step } from '../../core/show/show.ts'
import { stepOf } from '../../core/steps/index.ts'
import { defaultParams, type ParamSpec } from '../../core/steps/step.ts'
import BaseButton from '../base/BaseButton.vue'
import ColourField from '../base/ColourField.vue'
import IconButton from '../base/IconButton.vue'
import SliderRow from '../base/SliderRow.vue'
import ToggleSwitch from '../base/ToggleSwitch.vue'
import { useShowStore } from '../show/show.store.ts'
import { useBenchStore } from './bench.store.ts'
import { useStepWords } from './use-step-words.ts'

const props = defineProps<{ step: Step; home: TreatmentHome; isOpen: boolean; isFirst: boolean; isLast: boolean }>()
const emit = defineEmits<{ toggle: []; move: [by: number] }>()
const { t } = useI18n()
const showStore = useShowStore()
const bench = useBenchStore()
const words = useStepWords()
const name = computed(() => words.nameOf(props.step.kind))
const specs = computed(() => Object.entries(stepOf(props.step.kind).params as Readonly<Record<string, ParamSpec>>))
/** A step has at most one colour, and shows it beside the button that picks it. */
const colourParam = computed(() => specs.value.find(([, spec]) => spec.type === 'colour')?.[0] ?? null)
const canPick = computed(() => stepOf(props.step.kind).pick !== undefined)
const values = computed(() => props.step.params as Readonly<Record<string, number | string>>)

function set(param: string, value: number | string): void {
  showStore.edit(name.value, (show) => setStepParams(show, props.home, props.step.id, { [param]: value }), `step-${props.step.id}-${param}`)
}

function reset(): void {
  showStore.edit(name.value, (show) => setStepParams(show, props.home, props.step.id, defaultParams(stepOf(props.step.kind).params)))
}

function remove(): void {
  showStore.edit(t('edits.removeStep'), (show) => changeTreatment(show, props.home, (chain) => chain.filter((step) => step.id !== props.step.id)))
}
</script>

<template>
  <section class="rounded-lg border bg-raised px-2.5 py-2" :class="isOpen ? 'border-brass' : 'border-line'" :aria-label="name">
    <div class="flex items-center gap-1.5">
      <GripVertical :size="14" class="grip shrink-0 cursor-grab text-soft" aria-hidden="true" />
      <button type="button" class="flex min-w-0 flex-1 items-center gap-2 text-left" :aria-expanded="isOpen" @click="emit('toggle')">
        <span class="shrink-0 font-semibold" :class="step.on ? '' : 'text-soft'">{{ name }}</span>
        <span v-if="!isOpen" class="ml-auto truncate font-num text-[11.5px] text-soft tabular-nums">{{ words.summaryOf(step) }}</span>
      </button>
      <ToggleSwitch
        :model-value="step.on"
        :label="t('bench.switchStep', { step: name })"
        @update:model-value="(on) => showStore.edit(name, (show) => switchStep(show, home, step.id, on))"
      />
    </div>
    <div v-if="isOpen" class="mt-1.5">
      <p class="mb-2 text-soft">{{ words.purposeOf(step.kind) }}</p>
      <div v-if="colourParam || canPick" class="mb-1.5 flex items-center gap-2">
        <ColourField
          v-if="colourParam"
          :model-value="String(values[colourParam])"
          :label="words.paramOf(step.kind, colourParam)"
          @update:model-value="set(colourParam, $event)"
        />
        <BaseButton
          v-if="canPick"
          :class="[colourParam ? 'ml-auto' : '', bench.pickingStepId === step.id ? 'border-brass! bg-wash!' : '']"
          :icon="Pipette"
          :aria-pressed="bench.pickingStepId === step.id"
          @click="bench.pickingStepId = bench.pickingStepId === step.id ? null : step.id"
        >
          {{ t(`steps.${step.kind}.pick`) }}
        </BaseButton>
      </div>
      <template v-for="[param, spec] in specs" :key="param">
        <SliderRow
          v-if="spec.type === 'number'"
          class="mb-1"
          :model-value="Number((Number(values[param]) * words.shown(spec).factor).toFixed(4))"
          :label="words.paramOf(step.kind, param)"
          :min="spec.min * words.shown(spec).factor"
          :max="spec.max * words.shown(spec).factor"
          :step="spec.step * words.shown(spec).factor"
          :unit="words.shown(spec).unit"
          :usual="spec.default * words.shown(spec).factor"
          @update:model-value="set(param, Number(($event / words.shown(spec).factor).toFixed(6)))"
        />
      </template>
      <div class="mt-2 flex items-center gap-0.5">
        <BaseButton kind="quiet" class="-ml-2" :icon="RotateCcw" @click="reset">{{ t('bench.resetStep', { step: name }) }}</BaseButton>
        <span class="flex-1"></span>
        <IconButton :icon="ChevronUp" size="small" :label="t('bench.moveUp')" :disabled="isFirst" @click="emit('move', -1)" />
        <IconButton :icon="ChevronDown" size="small" :label="t('bench.moveDown')" :disabled="isLast" @click="emit('move', 1)" />
        <IconButton :icon="Trash2" size="small" :label="t('bench.removeStep', { step: name })" @click="remove" />
      </div>
    </div>
  </section>
</template>
