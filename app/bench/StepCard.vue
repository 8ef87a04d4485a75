<script setup lang="ts">
import { inputKindOf } from '../../core/inputs/index.ts'
import { ArrowLeftRight, ChevronDown, ChevronUp, Copy, GripVertical, Pipette, RotateCcw, Trash2, WandSparkles } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { addStep, changeTreatment, resetStep, setStepParams, switchStep, type TreatmentHome } from '../../core/show/edits.ts'
import type { Step } from '../../core/show/show.ts'
import { measureWhite } from '../../core/solve/measure-white.ts'
import type { AdviceCode } from '../../core/steps/advice.ts'
import { stepOf } from '../../core/steps/index.ts'
import type { ParamSpec, ParamSpecs, ParamValue } from '../../core/steps/step.ts'
import { makeId } from '../show/make-id.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
import BaseButton from '../base/BaseButton.vue'
import ColourField from '../base/ColourField.vue'
import IconButton from '../base/IconButton.vue'
import ToggleSwitch from '../base/ToggleSwitch.vue'
import { useShowStore } from '../show/show.store.ts'
import { useBenchStore } from './bench.store.ts'
import KeyTools from './steps/KeyTools.vue'
import StepValues from './steps/StepValues.vue'
import { useGrab } from './use-grab.ts'
import { useStepWords } from './use-step-words.ts'

const props = defineProps<{
  step: Step
  home: TreatmentHome
  isOpen: boolean
  isFirst: boolean
  isLast: boolean
  advice: AdviceCode | null
  /** What moving the step to the other scope is called; null where there is no other. */
  moveLabel: string | null
}>()
const emit = defineEmits<{ toggle: []; move: [by: number]; moveHome: [] }>()
const { t } = useI18n()
const showStore = useShowStore()
const bench = useBenchStore()
const words = useStepWords()
const { grabBefore, grabUntreated } = useGrab()
const name = computed(() => words.nameOf(props.step.kind))
/** The first colour is shown beside the button that picks it. */
const colourParam = computed(
  () => Object.entries(stepOf(props.step.kind).params as ParamSpecs).find(([, spec]: [string, ParamSpec]) => spec.type === 'colour')?.[0] ?? null,
)
const canPick = computed(() => 'pick' in stepOf(props.step.kind))
const values = computed(() => props.step.params as Readonly<Record<string, ParamValue>>)

function set(param: string, value: ParamValue): void {
  showStore.edit(name.value, (show) => setStepParams(show, props.home, props.step.id, { [param]: value }), `step-${props.step.id}-${param}`)
}

function reset(): void {
  showStore.edit(name.value, (show) => resetStep(show, props.home, props.step.id))
}

function remove(): void {
  showStore.edit(t('edits.removeStep', { name: name.value }), (show) =>
    changeTreatment(show, props.home, (chain) => chain.filter((step) => step.id !== props.step.id)),
  )
}

/** The step with its values, in another input's treatment too. */
const copies = computed<MenuAction[]>(() => {
  const { home, step } = props
  const own = home.type === 'input' ? home.inputId : null
  const others = (showStore.show?.inputs ?? []).filter((input) => inputKindOf(input).hasPicture && input.id !== own)
  return others.map((input, index) => ({
    label: input.name,
    icon: Copy,
    ...(index === 0 ? { group: t('bench.copyStepTo') } : {}),
    run: () => {
      const isMade = showStore.edit(t('bench.copyStep', { step: name.value }), (show) =>
        addStep(show, { type: 'input', inputId: input.id }, { ...step, id: makeId() }),
      )
      if (isMade) toast(t('bench.stepCopied', { step: name.value, input: input.name }))
    },
  }))
})

/** Balances for what is nearly grey now, and holds it: automatic balance would change with every cloud. */
async function measureAndHold(): Promise<void> {
  const { home, step } = props
  const picture = await grabBefore(step.id)
  if (picture === null) {
    toast.error(t('bench.noPicture'))
    return
  }
  let params = measureWhite(picture)
  if (params === null) {
    // A grey wall that a crop has cut off still tells the light.
    const untreated = await grabUntreated()
    params = untreated === null ? null : measureWhite(untreated)
  }
  if (params === null) {
    toast.error(t('bench.noGrey'))
    return
  }
  // A step whose tool is used is wanted.
  const isMade = showStore.edit(name.value, (show) => setStepParams(show, home, step.id, params))
  if (isMade) toast(t('bench.held', { kelvin: params.temperature, tint: params.tint }))
}
</script>

<template>
  <section
    class="rounded-lg border bg-raised px-2.5 py-2"
    :class="isOpen ? 'border-brass' : 'border-line'"
    :aria-label="name"
    :data-testid="`step-${step.kind}`"
  >
    <div class="flex items-center gap-1.5">
      <GripVertical :size="14" class="grip shrink-0 cursor-grab text-soft" aria-hidden="true" />
      <button type="button" class="flex min-h-6 min-w-0 flex-1 items-center gap-2 text-start" :aria-expanded="isOpen" @click="emit('toggle')">
        <span class="shrink-0 font-semibold" :class="step.on ? '' : 'text-soft'">{{ name }}</span>
        <span v-if="!isOpen" class="ms-auto min-w-0 truncate text-[11.5px] text-soft" :title="words.summaryOf(step)">{{ words.summaryOf(step) }}</span>
      </button>
      <IconButton
        v-if="step.kind === 'balance' && !isOpen"
        :icon="WandSparkles"
        size="small"
        :label="t('bench.measureStep', { step: name })"
        @click="measureAndHold"
      />
      <ToggleSwitch
        :model-value="step.on"
        :label="t('bench.switchStep', { step: name })"
        @update:model-value="(on) => showStore.edit(name, (show) => switchStep(show, home, step.id, on))"
      />
    </div>
    <p v-if="advice" class="mt-1.5 rounded-md bg-wash px-2 py-1 text-[12px]" role="note">{{ t(`advice.${advice}`) }}</p>
    <div v-if="isOpen" class="mt-1.5">
      <p class="mb-2 text-soft">{{ words.purposeOf(step.kind) }}</p>
      <KeyTools v-if="step.kind === 'chromaKey'" :step="step" />
      <div v-if="colourParam || canPick" class="mb-1.5 flex flex-wrap items-center gap-2">
        <ColourField
          v-if="colourParam"
          :model-value="String(values[colourParam])"
          :label="words.paramOf(step.kind, colourParam)"
          @update:model-value="set(colourParam, $event)"
        />
        <BaseButton
          v-if="canPick"
          :class="[colourParam ? 'ms-auto' : '', bench.pickingStepId === step.id ? 'border-brass! bg-wash!' : '']"
          :icon="Pipette"
          :aria-pressed="bench.pickingStepId === step.id"
          @click="bench.pickingStepId = bench.pickingStepId === step.id ? null : step.id"
        >
          {{ t(`steps.${step.kind}.pick`) }}
        </BaseButton>
        <BaseButton v-if="step.kind === 'balance'" :icon="WandSparkles" :title="t('bench.measureHint')" @click="measureAndHold">
          {{ t('bench.measure') }}
        </BaseButton>
      </div>
      <StepValues :step="step" :shown-elsewhere="colourParam" @set="set" />
      <div class="relative mt-2 flex items-center gap-0.5">
        <BaseButton kind="quiet" class="-ms-2" :icon="RotateCcw" @click="reset">{{ t('bench.resetStep', { step: name }) }}</BaseButton>
        <span class="flex-1"></span>
        <ActionMenu v-if="copies.length > 0" :actions="copies" :label="t('bench.copyStep', { step: name })" align="right" is-icon>
          <Copy :size="14" :stroke-width="1.8" aria-hidden="true" />
        </ActionMenu>
        <IconButton v-if="moveLabel" :icon="ArrowLeftRight" size="small" :label="moveLabel" @click="emit('moveHome')" />
        <IconButton :icon="ChevronUp" size="small" :label="t('bench.moveUp')" :disabled="isFirst" @click="emit('move', -1)" />
        <IconButton :icon="ChevronDown" size="small" :label="t('bench.moveDown')" :disabled="isLast" @click="emit('move', 1)" />
        <IconButton :icon="Trash2" size="small" :label="t('bench.removeStep', { step: name })" @click="remove" />
      </div>
    </div>
  </section>
</template>
