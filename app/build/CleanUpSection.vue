<script setup lang="ts">
// What cleans the input up: each step opens on the bench, at the place where it applies.
import { isCamera } from '../../core/inputs/camera.ts'
import { Globe, MapPin, ScanSearch } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { RouterLink } from 'vue-router'
import { moveStepHome, type TreatmentHome } from '../../core/show/edits.ts'
import type { Input, Step } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import IconButton from '../base/IconButton.vue'
import { useShowStore } from '../show/show.store.ts'
import KeyNotes from '../bench/steps/KeyNotes.vue'
import { useStepWords } from '../bench/use-step-words.ts'
import { useFindKey } from '../bench/use-find-key.ts'
import InspectorSection from './InspectorSection.vue'

const props = defineProps<{
  input: Input
  /** The layer in hand, whose own steps come after the input's. */
  layerId: string
  here: readonly Step[]
}>()
const { t } = useI18n()
const showStore = useShowStore()
const { nameOf, summaryOf } = useStepWords()

const sceneName = computed(() => showStore.scene?.name ?? '')
/** A cloth that is not keyed yet is what most people came for. */
const key = computed(() => props.input.treatment.find((step) => step.kind === 'chromaKey') ?? null)
const offersKey = computed(() => isCamera(props.input) && key.value !== null && !key.value.on)
const { progress, find, cancel, ends, isNobodyLeft, cropEnds, undo } = useFindKey(
  () => key.value!,
  () => ({ type: 'input', inputId: props.input.id }),
)

function benchAt(stepId: string | null, isHere: boolean) {
  const query = { ...(stepId === null ? {} : { step: stepId }), ...(isHere ? { scene: showStore.sceneId!, layer: props.layerId } : {}) }
  return { name: 'bench', params: { showId: showStore.showId!, inputId: props.input.id }, query }
}
/** Moves a step from everywhere to here only, or back, in one action. */
function moveScope(step: Step, isHere: boolean): void {
  const everywhere: TreatmentHome = { type: 'input', inputId: props.input.id }
  const here: TreatmentHome = { type: 'layer', sceneId: showStore.sceneId!, layerId: props.layerId }
  showStore.edit(t('edits.stepScope', { name: nameOf(step.kind) }), (show) =>
    isHere ? moveStepHome(show, here, everywhere, step.id) : moveStepHome(show, everywhere, here, step.id),
  )
}

const lists = computed(() => [
  { isHere: false, title: t('inspector.everywhere'), steps: props.input.treatment },
  { isHere: true, title: t('inspector.hereOnly', { place: sceneName.value }), steps: props.here },
])
</script>

<template>
  <InspectorSection name="cleanUp" :title="t('inspector.cleanUp')">
    <template #aside>
      <RouterLink class="inline-flex min-h-6 items-center font-medium text-green hover:underline" :to="benchAt(null, false)">
        {{ t('inspector.openBench') }}
      </RouterLink>
    </template>
    <div v-if="offersKey" class="mb-2">
      <BaseButton v-if="progress === null" kind="primary" class="w-full" :icon="ScanSearch" @click="find">{{ t('key.find') }}</BaseButton>
      <div v-else class="flex items-center gap-2" role="status">
        <div class="h-1.5 flex-1 overflow-hidden rounded bg-line" role="progressbar" :aria-label="t('key.finding')" :aria-valuenow="Math.round(progress * 100)">
          <div class="h-full bg-green transition-[width] duration-150" :style="{ width: `${progress * 100}%` }"></div>
        </div>
        <BaseButton kind="quiet" @click="cancel">{{ t('key.cancel') }}</BaseButton>
      </div>
    </div>
    <div class="mb-2 grid grid-cols-[minmax(0,1fr)] gap-2">
      <KeyNotes :ends="ends" :is-nobody-left="isNobodyLeft" @crop="cropEnds" @undo="undo" />
    </div>
    <template v-for="list in lists" :key="String(list.isHere)">
      <p class="mt-1.5 mb-0.5 text-[12px] text-soft first:mt-0">{{ list.title }}</p>
      <ol v-if="list.steps.length > 0" :data-testid="list.isHere ? 'here-only' : 'everywhere'">
        <li v-for="step in list.steps" :key="step.id" class="group flex items-center">
          <RouterLink
            class="flex min-h-6 min-w-0 flex-1 items-baseline gap-2 rounded px-1 py-0.5 hover:bg-sunk"
            :class="step.on ? '' : 'text-soft'"
            :to="benchAt(step.id, list.isHere)"
            :title="`${nameOf(step.kind)}: ${step.on ? summaryOf(step) : t('inspector.off')}`"
          >
            <span class="shrink-0">{{ nameOf(step.kind) }}</span>
            <span class="ms-auto min-w-0 truncate text-[11.5px] text-soft">{{ step.on ? summaryOf(step) : t('inspector.off') }}</span>
          </RouterLink>
          <IconButton
            :icon="list.isHere ? Globe : MapPin"
            size="small"
            class="size-6! shrink-0"
            :label="t(list.isHere ? 'inspector.toEverywhere' : 'inspector.toHere', { name: nameOf(step.kind), place: sceneName })"
            @click="moveScope(step, list.isHere)"
          />
        </li>
      </ol>
      <p v-else-if="!list.isHere" class="px-1 text-soft">{{ t('inspector.noSteps') }}</p>
      <RouterLink v-if="list.isHere" class="inline-flex min-h-6 items-center rounded px-1 font-medium text-green hover:underline" :to="benchAt(null, true)">
        {{ t('inspector.changeHere') }}
      </RouterLink>
    </template>
  </InspectorSection>
</template>
