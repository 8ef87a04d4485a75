<script setup lang="ts">
import { Plus } from 'lucide-vue-next'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { VueDraggable } from 'vue-draggable-plus'
import { addStep, moveStep, type TreatmentHome } from '../../core/show/edits.ts'
import { newStep } from '../../core/show/create.ts'
import type { Input } from '../../core/show/show.ts'
import { steps, type StepKind } from '../../core/steps/index.ts'
import ActionMenu from '../base/ActionMenu.vue'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import CameraDevice from './CameraDevice.vue'
import StepCard from './StepCard.vue'
import { useStepWords } from './use-step-words.ts'

const props = defineProps<{ input: Input | null }>()
const { t } = useI18n()
const showStore = useShowStore()
const { nameOf } = useStepWords()
const openId = ref<string | null>(null)
const home = computed<TreatmentHome>(() => ({ type: 'input', inputId: props.input?.id ?? '' }))
const chain = computed(() => props.input?.treatment ?? [])

// The key is what most people came for.
watch(
  () => props.input?.id,
  () => (openId.value = chain.value.find((step) => step.kind === 'chromaKey')?.id ?? chain.value[0]?.id ?? null),
  { immediate: true },
)

const addActions = computed(() => steps.map((step) => ({ label: nameOf(step.kind), run: () => add(step.kind) })))

function add(kind: StepKind): void {
  const step = newStep(kind, makeId)
  showStore.edit(t('edits.addStep'), (show) => addStep(show, home.value, step))
  openId.value = step.id
}

function move(stepId: string, index: number): void {
  if (index < 0 || index >= chain.value.length) return
  showStore.edit(t('edits.stepOrder'), (show) => moveStep(show, home.value, stepId, index))
}

function onDrop(event: { oldIndex?: number | undefined; newIndex?: number | undefined }): void {
  const step = chain.value[event.oldIndex ?? -1]
  if (step !== undefined && event.newIndex !== undefined && event.newIndex !== event.oldIndex) move(step.id, event.newIndex)
}
</script>

<template>
  <aside class="min-h-0 overflow-y-auto px-3.5 py-3">
    <template v-if="input">
      <h2 class="font-head text-[16px] font-bold">{{ t('bench.cleanUp') }}</h2>
      <p class="mb-3 text-soft">{{ t('bench.cleanUpHint') }}</p>
      <section v-if="input.kind === 'camera'" class="mb-2 rounded-lg border border-line bg-raised px-2.5 py-2.5">
        <h3 class="mb-2 font-semibold">{{ t('bench.device') }}</h3>
        <CameraDevice :input="input" />
      </section>
      <VueDraggable :model-value="[...chain]" tag="ol" handle=".grip" :animation="150" :force-fallback="true" @end="onDrop">
        <li v-for="(step, index) in chain" :key="step.id" class="mb-2">
          <StepCard
            :step="step"
            :home="home"
            :is-open="step.id === openId"
            :is-first="index === 0"
            :is-last="index === chain.length - 1"
            @toggle="openId = openId === step.id ? null : step.id"
            @move="move(step.id, index + $event)"
          />
        </li>
      </VueDraggable>
      <ActionMenu :actions="addActions" :label="t('bench.addStep')">
        <span
          class="inline-flex w-[286px] items-center justify-center gap-1.5 rounded-lg border border-dashed border-line px-3 py-1.5 text-soft hover:border-soft hover:text-ink"
        >
          <Plus :size="16" aria-hidden="true" />
          {{ t('bench.addStep') }}
        </span>
      </ActionMenu>
    </template>
  </aside>
</template>
