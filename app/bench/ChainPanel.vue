<script setup lang="ts">
import { isCamera } from '../../core/inputs/camera.ts'
import { newStep } from '../../core/steps/treatment.ts'
import { Plus } from 'lucide-vue-next'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { VueDraggable } from 'vue-draggable-plus'
import { addStep, moveStep, moveStepHome, treatmentAt, type TreatmentHome } from '../../core/show/edits.ts'
import type { Input } from '../../core/show/show.ts'
import { adviceFor } from '../../core/steps/advice.ts'
import type { StepKind } from '../../core/steps/index.ts'
import ActionMenu from '../base/ActionMenu.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useBenchStore } from './bench.store.ts'
import DeviceCard from './DeviceCard.vue'
import PresetMenu from './PresetMenu.vue'
import ScopeChoice from './ScopeChoice.vue'
import StepCard from './StepCard.vue'
import { stepGroups } from './step-groups.ts'
import { usePlaces } from './use-places.ts'
import { useStepWords } from './use-step-words.ts'

const props = defineProps<{
  input: Input | null
  /** The step that a link asked for. */
  stepId: string | null
}>()
const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const bench = useBenchStore()
const { nameOf } = useStepWords()
const openId = ref<string | null>(null)
const places = usePlaces(() => props.input?.id ?? null)
const chain = computed(() => (showStore.show === null || props.input === null ? [] : treatmentAt(showStore.show, bench.home)))
/** Steps that apply everywhere run before those that apply here only; their notes are counted here but shown there. */
const everywhere = computed(() => (bench.layer === null ? [] : (props.input?.treatment ?? [])))
const advice = computed(() => {
  const offset = everywhere.value.length
  return new Map(adviceFor([...everywhere.value, ...chain.value]).map((note) => [note.index - offset, note.code]))
})
/** Where "only here" is: the scene on the stage in Build, else the first that shows the input. */
const preferred = computed(() => places.value.find((place) => place.sceneId === showStore.sceneId) ?? places.value[0] ?? null)
const otherPlace = computed(() => places.value.find((place) => place.layerId === bench.layer?.layerId) ?? preferred.value)
const moveLabel = computed(() => {
  if (bench.layer !== null) return t('bench.useEverywhere')
  return otherPlace.value === null ? null : t('bench.useHere', { place: otherPlace.value.name })
})

// The key is what most people came for.
watch(
  () => `${props.input?.id} ${bench.layer?.layerId} ${props.stepId}`,
  () =>
    (openId.value =
      (chain.value.find((step) => step.id === props.stepId) ?? chain.value.find((step) => step.kind === 'chromaKey'))?.id ?? chain.value[0]?.id ?? null),
  { immediate: true },
)

const addActions = computed(() =>
  Object.entries(stepGroups).flatMap(([group, kinds]) =>
    kinds.map((kind, i) => ({
      label: nameOf(kind),
      detail: t(`steps.${kind}.brief`),
      ...(i === 0 ? { group: t(`bench.groups.${group}`) } : {}),
      run: () => add(kind),
    })),
  ),
)

function add(kind: StepKind): void {
  const step = newStep(kind, makeId)
  const { home } = bench
  showStore.edit(t('edits.addStep', { name: nameOf(kind) }), (show) => addStep(show, home, step))
  openId.value = step.id
}

function move(stepId: string, index: number): void {
  if (index < 0 || index >= chain.value.length) return
  const { home } = bench
  showStore.edit(t('edits.stepOrder', { name: nameOf(chain.value.find((step) => step.id === stepId)!.kind) }), (show) => moveStep(show, home, stepId, index))
}

/** Moves a step between "everywhere" and "here only"; the bench switches along. */
function moveHome(stepId: string): void {
  const place = otherPlace.value
  if (props.input === null || place === null) return
  const from = bench.home
  const isHere = bench.layer !== null
  const to: TreatmentHome = isHere ? { type: 'input', inputId: props.input.id } : { type: 'layer', sceneId: place.sceneId, layerId: place.layerId }
  showStore.edit(t('edits.stepScope', { name: nameOf(chain.value.find((step) => step.id === stepId)!.kind) }), (show) => moveStepHome(show, from, to, stepId))
  bench.layer = isHere ? null : { sceneId: place.sceneId, layerId: place.layerId }
  openId.value = stepId
}

function onDrop(event: { oldIndex?: number | undefined; newIndex?: number | undefined }): void {
  const step = chain.value[event.oldIndex ?? -1]
  if (step !== undefined && event.newIndex !== undefined && event.newIndex !== event.oldIndex) move(step.id, event.newIndex)
}
</script>

<template>
  <aside class="min-h-0 min-w-0 overflow-y-auto px-3 py-2" :aria-label="t('bench.cleanUp')">
    <template v-if="input">
      <div class="mb-1.5 flex items-center justify-between">
        <h2 class="font-head text-[16px] font-bold">{{ t('bench.cleanUp') }}</h2>
        <PresetMenu :input="input" />
      </div>
      <ScopeChoice :places="places" :preferred="preferred" />
      <DeviceCard v-if="isCamera(input) && bench.layer === null" :key="input.id" :input="input" />
      <p v-if="engine.personFailure" class="mb-2 rounded-lg bg-wash px-2.5 py-2" role="status">{{ t('room.failed') }}</p>
      <p v-if="everywhere.length > 0" class="mb-2 rounded-lg border border-dashed border-line px-2.5 py-2 text-soft">
        {{
          t('bench.firstEverywhere', {
            steps: everywhere
              .filter((step) => step.on)
              .map((step) => nameOf(step.kind))
              .join(', '),
          })
        }}
      </p>
      <VueDraggable :model-value="[...chain]" tag="ol" handle=".grip" :animation="150" :force-fallback="true" @end="onDrop">
        <li v-for="(step, index) in chain" :key="step.id" class="mb-2">
          <StepCard
            :step="step"
            :home="bench.home"
            :is-open="step.id === openId"
            :is-first="index === 0"
            :is-last="index === chain.length - 1"
            :advice="advice.get(index) ?? null"
            :move-label="moveLabel"
            @toggle="openId = openId === step.id ? null : step.id"
            @move="move(step.id, index + $event)"
            @move-home="moveHome(step.id)"
          />
        </li>
      </VueDraggable>
      <ActionMenu :actions="addActions" :label="t('bench.addStep')" is-wide>
        <span
          class="inline-flex min-h-8 w-[250px] max-w-full items-center justify-center gap-1.5 rounded-lg border border-dashed border-line px-3 py-1.5 text-soft hover:border-soft hover:text-ink"
        >
          <Plus :size="16" aria-hidden="true" />
          {{ t('bench.addStep') }}
        </span>
      </ActionMenu>
    </template>
  </aside>
</template>
