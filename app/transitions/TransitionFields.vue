<script setup lang="ts">
// A transition: which one, how long, and what it needs beside.
import { Play } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { isPicture } from '../../core/inputs/picture.ts'
import { sides } from '../../core/motion/appearance.ts'
import { transitions, usualTransitions, type Transition, type TransitionName } from '../../core/transitions/index.ts'
import ColourField from '../base/ColourField.vue'
import IconButton from '../base/IconButton.vue'
import SelectRow from '../base/rows/SelectRow.vue'
import SelectMenu from '../base/SelectMenu.vue'
import SliderRow from '../base/SliderRow.vue'
import { paceOf, usePaces } from '../build/use-paces.ts'
import { useShowStore } from '../show/show.store.ts'

const props = defineProps<{
  modelValue: Transition | null
  label: string
  /** What no transition of its own means; without it there has to be one. */
  none?: string
  canPlay: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: Transition | null]; play: [] }>()
const { t } = useI18n()
const showStore = useShowStore()
const { optionsFor, easingOf } = usePaces()
/** How far the slider goes, in seconds; a file may hold more. */
const MOST_SECONDS = 4
const USUAL_SECONDS = usualTransitions.dissolve.durationMs / 1000

const pictures = computed(() => showStore.show!.inputs.filter(isPicture))
const kinds = computed(() => [
  ...(props.none === undefined ? [] : [{ value: 'none' as const, label: props.none }]),
  ...Object.values(transitions)
    .filter(({ usual }) => usual !== null || pictures.value.length > 0)
    .map(({ kind }) => ({ value: kind, label: t(`transitions.kinds.${kind}`) })),
])
const sideOptions = computed(() => sides.map((value) => ({ value, label: t(`inspector.motionSides.${value}`) })))
const pictureOptions = computed(() => pictures.value.map(({ id, name }) => ({ value: id, label: name })))

function setKind(kind: TransitionName | 'none'): void {
  if (kind === 'none') return emit('update:modelValue', null)
  const { durationMs, easing } = props.modelValue ?? usualTransitions.dissolve
  const timing = props.modelValue === null || props.modelValue.kind === 'cut' ? usualTransitions.dissolve : { durationMs, easing }
  const base = { durationMs: timing.durationMs, easing: timing.easing }
  if (kind === 'pictureWipe') emit('update:modelValue', { ...base, kind, inputId: pictures.value[0]!.id, softness: 0.2 })
  else emit('update:modelValue', { ...usualTransitions[kind], ...base })
}

function set(part: Partial<Transition>): void {
  if (props.modelValue !== null) emit('update:modelValue', { ...props.modelValue, ...part } as Transition)
}
</script>

<template>
  <div class="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-1" role="group" :aria-label="label">
    <div class="flex min-h-6 items-center">
      <span dir="auto" class="min-w-0 flex-1 truncate" :title="label">{{ label }}</span>
      <IconButton v-if="canPlay" :icon="Play" size="small" :label="t('transitions.play', { name: label })" @click="emit('play')" />
      <slot name="aside" />
    </div>
    <SelectMenu :model-value="modelValue?.kind ?? 'none'" :label="label" :options="kinds" @update:model-value="setKind" />
    <template v-if="modelValue !== null && modelValue.kind !== 'cut'">
      <SelectRow
        v-if="'side' in modelValue"
        :model-value="modelValue.side"
        :label="t('inspector.motionSide')"
        :options="sideOptions"
        @update:model-value="set({ side: $event })"
      />
      <SelectRow
        v-if="'inputId' in modelValue"
        :model-value="modelValue.inputId"
        :label="t('transitions.picture')"
        :options="pictureOptions"
        @update:model-value="set({ inputId: $event })"
      />
      <div v-if="'colour' in modelValue" class="flex items-center justify-between gap-2">
        <span>{{ t('transitions.colour') }}</span>
        <ColourField :model-value="modelValue.colour" :label="t('transitions.colour')" @update:model-value="set({ colour: $event })" />
      </div>
      <SliderRow
        v-if="'angleDeg' in modelValue"
        :model-value="modelValue.angleDeg"
        :label="t('transitions.direction')"
        :min="-180"
        :max="180"
        :step="5"
        :usual="usualTransitions.wipe.angleDeg"
        unit="°"
        @update:model-value="set({ angleDeg: $event })"
      />
      <SliderRow
        v-if="'softness' in modelValue"
        :model-value="modelValue.softness * 100"
        :label="t('transitions.softness')"
        :min="0"
        :max="100"
        :step="1"
        :usual="usualTransitions.wipe.softness * 100"
        unit="%"
        @update:model-value="set({ softness: $event / 100 })"
      />
      <SliderRow
        :model-value="modelValue.durationMs / 1000"
        :label="t('inspector.motionTime')"
        :min="0.05"
        :max="MOST_SECONDS"
        :step="0.05"
        :usual="USUAL_SECONDS"
        unit="s"
        @update:model-value="set({ durationMs: Math.round($event * 1000) })"
      />
      <SelectRow
        :model-value="paceOf(modelValue.easing)"
        :label="t('inspector.motionPace')"
        :options="optionsFor(modelValue.easing)"
        @update:model-value="set({ easing: easingOf($event, modelValue!.easing) })"
      />
    </template>
  </div>
</template>
