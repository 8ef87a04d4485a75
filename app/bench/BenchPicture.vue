<script setup lang="ts">
import { Pipette, Snowflake } from 'lucide-vue-next'
import { onKeyStroke, useElementSize } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { parseHex } from '../../core/colour/hex.ts'
import { setStepParams, switchStep } from '../../core/show/edits.ts'
import type { Input, Step } from '../../core/show/show.ts'
import { stepOf } from '../../core/steps/index.ts'
import BaseButton from '../base/BaseButton.vue'
import ChoiceBar from '../base/ChoiceBar.vue'
import EmptyState from '../base/EmptyState.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { useShowStore } from '../show/show.store.ts'
import { useBenchStore, type BenchMode } from './bench.store.ts'
import SplitDivider from './SplitDivider.vue'

const props = defineProps<{ input: Input | null }>()
const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const bench = useBenchStore()
const well = useTemplateRef<HTMLDivElement>('well')
const { width: wellWidth, height: wellHeight } = useElementSize(well)
const divider = ref(0.5)
const MARGIN_PX = 28

const modes = computed(() => (['before', 'split', 'after', 'matte'] as const).map((value) => ({ value, label: t(`bench.${value}`) })))
const info = computed(() => engine.infos.get(`input:${props.input?.id}`) ?? { widthPx: 1280, heightPx: 720, isOpaque: true })
const pictureStyle = computed(() => {
  const zoom = Math.min((wellWidth.value - 2 * MARGIN_PX) / info.value.widthPx, (wellHeight.value - 2 * MARGIN_PX) / info.value.heightPx)
  return { width: `${Math.max(1, Math.round(info.value.widthPx * zoom))}px`, height: `${Math.max(1, Math.round(info.value.heightPx * zoom))}px` }
})
const isPicking = computed(() => bench.pickingStepId !== null)
const keyStep = computed(() => props.input?.treatment.find((step) => step.kind === 'chromaKey') ?? null)
const pickingStep = computed(() => props.input?.treatment.find((step) => step.id === bench.pickingStepId) ?? null)
/** While picking, the untreated picture is shown: the cloth may be gone from the other. */
const mode = computed<BenchMode>(() => (isPicking.value ? 'before' : bench.mode))

function togglePick(): void {
  bench.pickingStepId = isPicking.value ? null : (keyStep.value?.id ?? null)
}

/** Gives the colour under the pointer to the step that asked for one. */
async function onPictureClick(event: MouseEvent): Promise<void> {
  const { input } = props
  const step = pickingStep.value
  if (input === null || step === null) return
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const colour = await engine.pick(input.id, (event.clientX - bounds.left) / bounds.width, (event.clientY - bounds.top) / bounds.height, step.id)
  if (colour === null) {
    toast.error(t('bench.noPicture'))
    return
  }
  const params = pickOf(step, colour)
  if (params === null) {
    toast.error(t(`steps.${step.kind}.pickRefused`))
    return
  }
  bench.pickingStepId = null
  const home = { type: 'input', inputId: input.id } as const
  showStore.edit(t('edits.pick'), (show) => setStepParams(switchStep(show, home, step.id, true), home, step.id, params))
  toast(t(`steps.${step.kind}.picked`, { colour }))
}

function pickOf(step: Step, colour: string): Readonly<Record<string, number | string>> | null {
  const { pick } = stepOf(step.kind)
  return pick?.(parseHex(colour)) ?? null
}

function toggleFreeze(): void {
  if (props.input === null) return
  bench.isFrozen = !bench.isFrozen
  engine.freeze(props.input.id, bench.isFrozen)
}

onKeyStroke('Escape', () => (bench.pickingStepId = null))
onBeforeUnmount(() => {
  bench.pickingStepId = null
  if (bench.isFrozen && props.input !== null) engine.freeze(props.input.id, false)
  bench.isFrozen = false
})
</script>

<template>
  <section class="grid min-h-0 min-w-0 grid-rows-[44px_minmax(0,1fr)]">
    <div class="flex items-center gap-2 bg-sunk px-3">
      <ChoiceBar v-model="bench.mode" :label="t('bench.view')" :choices="modes" />
      <span class="min-w-0 flex-1 truncate text-soft">
        <template v-if="pickingStep">{{ t(`steps.${pickingStep.kind}.pickHint`) }}</template>
        <template v-else-if="mode === 'matte'">{{ t('bench.matteHint') }}</template>
      </span>
      <BaseButton :icon="Pipette" :disabled="keyStep === null" :class="isPicking ? 'border-brass! bg-wash!' : ''" :aria-pressed="isPicking" @click="togglePick">
        {{ isPicking ? t('bench.picking') : t('steps.chromaKey.pick') }}
      </BaseButton>
      <BaseButton
        v-if="input?.kind === 'camera'"
        :icon="Snowflake"
        :class="bench.isFrozen ? 'border-brass! bg-wash!' : ''"
        :aria-pressed="bench.isFrozen"
        @click="toggleFreeze"
      >
        {{ bench.isFrozen ? t('bench.frozen') : t('bench.freeze') }}
      </BaseButton>
    </div>
    <div ref="well" class="relative grid min-h-0 place-items-center overflow-hidden bg-well">
      <EmptyState v-if="input === null" class="text-[#e9e6dd]" :title="t('bench.empty')" :hint="t('bench.emptyHint')" />
      <div v-else class="relative" :class="isPicking ? 'cursor-crosshair' : ''" :style="pictureStyle" data-testid="bench-picture" @click="onPictureClick">
        <LivePicture
          v-if="mode !== 'before'"
          class="absolute inset-0"
          :class="mode === 'matte' ? 'bg-black' : 'checker'"
          :request="{ kind: 'input', inputId: input.id, stage: mode === 'matte' ? 'matte' : 'after', isSmall: false }"
          :width-px="info.widthPx"
          :height-px="info.heightPx"
          :label="t(mode === 'matte' ? 'bench.matte' : 'bench.after')"
        />
        <LivePicture
          v-if="mode === 'before' || mode === 'split'"
          class="absolute inset-0"
          :style="mode === 'split' ? { clipPath: `inset(0 ${(1 - divider) * 100}% 0 0)` } : {}"
          :request="{ kind: 'input', inputId: input.id, stage: 'before', isSmall: false }"
          :width-px="info.widthPx"
          :height-px="info.heightPx"
          :label="t('bench.before')"
        />
        <SplitDivider v-if="mode === 'split'" v-model="divider" />
      </div>
    </div>
  </section>
</template>
