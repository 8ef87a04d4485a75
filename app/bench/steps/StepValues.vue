<script setup lang="ts">
// The values of a step, one control each, made from the step's own description.
import { isCamera } from '../../../core/inputs/camera.ts'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Step } from '../../../core/show/show.ts'
import { stepOf } from '../../../core/steps/index.ts'
import type { ChoiceParam, ParamSpec, ParamValue } from '../../../core/steps/step.ts'
import ChoiceBar from '../../base/ChoiceBar.vue'
import SelectMenu from '../../base/SelectMenu.vue'
import SliderRow from '../../base/SliderRow.vue'
import ToggleSwitch from '../../base/ToggleSwitch.vue'
import ColourField from '../../base/ColourField.vue'
import { useShowStore } from '../../show/show.store.ts'
import { useStepWords } from '../use-step-words.ts'
import LookChooser from './LookChooser.vue'

const props = defineProps<{ step: Step; shownElsewhere: string | null }>()
const emit = defineEmits<{ set: [param: string, value: ParamValue] }>()
const { t } = useI18n()
const showStore = useShowStore()
const words = useStepWords()
const values = computed(() => props.step.params as Readonly<Record<string, ParamValue>>)
const specs = computed(() =>
  Object.entries(stepOf(props.step.kind).params as Readonly<Record<string, ParamSpec>>).filter(([name]) => name !== props.shownElsewhere && isOfUse(name)),
)
const inputOptions = computed(() => [
  { value: '', label: t('room.none') },
  ...(showStore.show?.inputs ?? []).filter((input) => !isCamera(input)).map((input) => ({ value: input.id, label: input.name })),
])

/** Values that make no difference now are left out. */
function isOfUse(name: string): boolean {
  const { step } = props
  if (step.kind === 'room')
    return name !== 'softness' && name !== 'input' ? true : name === 'softness' ? step.params.effect === 'softened' : step.params.effect === 'replaced'
  if (step.kind === 'spill' && name === 'light') return step.params.replace === 'backdrop'
  if (step.kind === 'chromaKey') return name !== 'plate' && name !== 'surface'
  return true
}

function optionsOf(name: string, spec: ChoiceParam) {
  return spec.options.map((value) => {
    const isOff = isMissing(name, value)
    return { value, label: t(`steps.${props.step.kind}.options.${name}.${value}`), isOff, ...(isOff ? { detail: t(`key.backdropNeeds.${value}`) } : {}) }
  })
}

/** A cloth can't be taken as fitted or measured before it was. */
function isMissing(name: string, option: string): boolean {
  const { step } = props
  if (step.kind !== 'chromaKey' || name !== 'backdrop') return false
  return (option === 'fitted' && step.params.surface.length === 0) || (option === 'plate' && step.params.plate === '')
}
</script>

<template>
  <div class="grid gap-1">
    <template v-for="[name, spec] in specs" :key="name">
      <SliderRow
        v-if="spec.type === 'number'"
        :model-value="Number((Number(values[name]) * words.shown(spec).factor).toFixed(4))"
        :label="words.paramOf(step.kind, name)"
        :min="spec.min * words.shown(spec).factor"
        :max="spec.max * words.shown(spec).factor"
        :step="spec.step * words.shown(spec).factor"
        :unit="words.shown(spec).unit"
        :usual="spec.default * words.shown(spec).factor"
        @update:model-value="emit('set', name, Number(($event / words.shown(spec).factor).toFixed(6)))"
      />
      <div v-else-if="spec.type === 'choice' && spec.options.includes('off')" class="flex items-center justify-between py-1">
        <span>{{ words.paramOf(step.kind, name) }}</span>
        <ToggleSwitch
          :model-value="values[name] === 'on'"
          :label="words.paramOf(step.kind, name)"
          @update:model-value="emit('set', name, $event ? 'on' : 'off')"
        />
      </div>
      <SelectMenu
        v-else-if="spec.type === 'choice' && spec.options.length > 3"
        class="my-1 w-full"
        :model-value="String(values[name])"
        :label="words.paramOf(step.kind, name)"
        :options="optionsOf(name, spec)"
        @update:model-value="emit('set', name, $event)"
      />
      <div v-else-if="spec.type === 'choice'" class="grid grid-cols-[minmax(52px,76px)_1fr] items-center gap-x-2 py-1">
        <span class="truncate" :title="words.paramOf(step.kind, name)">{{ words.paramOf(step.kind, name) }}</span>
        <ChoiceBar
          class="justify-self-end"
          :model-value="String(values[name])"
          :label="words.paramOf(step.kind, name)"
          :choices="optionsOf(name, spec)"
          @update:model-value="emit('set', name, $event)"
        />
        <p v-for="option in optionsOf(name, spec).filter((one) => one.isOff)" :key="option.value" class="col-span-2 mt-0.5 text-[12px] text-soft">
          {{ option.detail }}
        </p>
      </div>
      <div v-else-if="spec.type === 'colour'" class="flex items-center justify-between py-0.5">
        <span>{{ words.paramOf(step.kind, name) }}</span>
        <ColourField :model-value="String(values[name])" :label="words.paramOf(step.kind, name)" @update:model-value="emit('set', name, $event)" />
      </div>
      <LookChooser
        v-else-if="spec.type === 'reference' && spec.to === 'look'"
        :model-value="String(values[name])"
        :step-id="step.id"
        @update:model-value="emit('set', name, $event)"
      />
      <div v-else-if="spec.type === 'reference' && spec.to === 'input'" class="grid grid-cols-[76px_1fr] items-center gap-2 py-1">
        <span class="truncate">{{ words.paramOf(step.kind, name) }}</span>
        <SelectMenu
          :model-value="String(values[name])"
          :label="words.paramOf(step.kind, name)"
          :options="inputOptions"
          @update:model-value="emit('set', name, $event)"
        />
      </div>
    </template>
  </div>
</template>
