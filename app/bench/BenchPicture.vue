<script setup lang="ts">
import { isCamera } from '../../core/inputs/camera.ts'
import { Eye, Snowflake } from 'lucide-vue-next'
import { onKeyStroke, useElementSize } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, toRef, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Input } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import ChoiceBar from '../base/ChoiceBar.vue'
import EmptyState from '../base/EmptyState.vue'
import SelectMenu from '../base/SelectMenu.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { useInputsStore } from '../inputs/inputs.store.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { useBenchStore, type BenchMode, type Zoom } from './bench.store.ts'
import CropDrag from './CropDrag.vue'
import PixelGlass from './PixelGlass.vue'
import SplitDivider from './SplitDivider.vue'
import { usePick } from './use-pick.ts'

const props = defineProps<{ input: Input | null }>()
const emit = defineEmits<{ addCamera: [] }>()
const { t } = useI18n()
const engine = useEngineStore()
const inputs = useInputsStore()
const bench = useBenchStore()
const well = useTemplateRef<HTMLDivElement>('well')
const { width: wellWidth, height: wellHeight } = useElementSize(well)
const { pickingStep, isPicking, pickAt } = usePick(toRef(props, 'input'))
const divider = ref(0.5)
const pointer = ref<{ readonly x: number; readonly y: number } | null>(null)
const MARGIN_PX = 10

const modes = computed(() => (['before', 'split', 'after', 'matte'] as const).map((value) => ({ value, label: t(`bench.${value}`) })))
const backings = computed(() => (['checker', 'warning', 'white', 'black'] as const).map((value) => ({ value, label: t(`bench.backings.${value}`) })))
const zooms = computed(() =>
  (['fit', 1, 2, 4] as const satisfies readonly Zoom[]).map((value) => ({ value, label: value === 'fit' ? t('bench.fit') : `${value * 100} %` })),
)
const info = computed(() => engine.infos.get(`input:${props.input?.id}`) ?? { widthPx: 1280, heightPx: 720, isOpaque: true })
const scale = computed(() => {
  if (bench.zoom !== 'fit') return bench.zoom
  return Math.min((wellWidth.value - 2 * MARGIN_PX) / info.value.widthPx, (wellHeight.value - 2 * MARGIN_PX) / info.value.heightPx)
})
const pictureStyle = computed(() => ({
  width: `${Math.max(1, Math.round(info.value.widthPx * scale.value))}px`,
  height: `${Math.max(1, Math.round(info.value.heightPx * scale.value))}px`,
}))
/** While picking, the untreated picture is shown: the cloth may be gone from the other. */
const mode = computed<BenchMode>(() => (isPicking.value ? 'before' : bench.mode))

function shareAt(event: MouseEvent): { readonly x: number; readonly y: number } {
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  return { x: (event.clientX - bounds.left) / bounds.width, y: (event.clientY - bounds.top) / bounds.height }
}

function onClick(event: MouseEvent): void {
  const { x, y } = shareAt(event)
  void pickAt(x, y)
}

function toggleFreeze(): void {
  if (props.input === null) return
  bench.isFrozen = !bench.isFrozen
  inputs.freeze(props.input.id, bench.isFrozen)
}

/** What to do next, over the foot of the picture. */
const hint = computed(() => {
  if (pickingStep.value !== null) return t(`steps.${pickingStep.value.kind}.pickHint`)
  return mode.value === 'matte' ? t('bench.matteHint') : null
})

onKeyStroke('Escape', () => (bench.pickingStepId = null))

const KEY_STEP = 0.005
const KEY_LEAP = 0.05
const picture = useTemplateRef<HTMLDivElement>('picture')

// Picking begins in the middle, so that the arrow keys can take the glass from there.
watch(isPicking, async (is) => {
  if (!is) return
  pointer.value ??= { x: 0.5, y: 0.5 }
  await nextTick()
  picture.value?.focus({ preventScroll: true })
})

function onPickKey(event: KeyboardEvent): void {
  if (!isPicking.value || pointer.value === null) return
  const by = event.shiftKey ? KEY_LEAP : KEY_STEP
  const moves: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }
  const move = moves[event.key]
  const within = (value: number) => Math.min(0.999, Math.max(0.001, value))
  if (event.key === 'Enter' || event.key === ' ') void pickAt(pointer.value.x, pointer.value.y)
  else if (move !== undefined) pointer.value = { x: within(pointer.value.x + move[0]), y: within(pointer.value.y + move[1]) }
  else return
  event.preventDefault()
}
onBeforeUnmount(() => {
  bench.pickingStepId = null
  if (bench.isFrozen && props.input !== null) inputs.freeze(props.input.id, false)
  bench.isFrozen = false
})
</script>

<template>
  <section class="grid min-h-0 min-w-0 grid-rows-[auto_minmax(0,1fr)]" :aria-label="t('bench.view')">
    <div class="flex min-h-10 min-w-0 flex-wrap items-center gap-x-2 gap-y-1 bg-sunk px-2.5 py-1">
      <ChoiceBar v-model="bench.mode" :label="t('bench.viewAs')" :choices="modes" />
      <SelectMenu v-if="mode === 'split' || mode === 'after'" v-model="bench.backing" :label="t('bench.backing')" :options="backings" />
      <span class="flex-1"></span>
      <BaseButton
        :icon="Eye"
        :title="t('bench.clippingHint')"
        :class="bench.showsClipping ? 'border-brass! bg-wash!' : ''"
        :aria-pressed="bench.showsClipping"
        @click="bench.showsClipping = !bench.showsClipping"
      >
        <span class="max-[1180px]:sr-only">{{ t('bench.clipping') }}</span>
      </BaseButton>
      <BaseButton
        v-if="input && isCamera(input)"
        :icon="Snowflake"
        :class="bench.isFrozen ? 'border-brass! bg-wash!' : ''"
        :aria-pressed="bench.isFrozen"
        @click="toggleFreeze"
      >
        <span class="max-[1180px]:sr-only">{{ bench.isFrozen ? t('bench.frozen') : t('bench.freeze') }}</span>
      </BaseButton>
      <SelectMenu v-model="bench.zoom" class="shrink-0" :label="t('bench.zoom')" :options="zooms" />
    </div>
    <div class="bench-well relative grid min-h-0">
      <p
        v-if="hint"
        class="pointer-events-none absolute inset-x-0 bottom-3 z-10 mx-auto w-fit max-w-[92%] rounded-md bg-black/75 px-3 py-1.5 text-center text-[#f5f1e8]"
        role="status"
      >
        {{ hint }}
      </p>
      <div
        ref="well"
        class="relative grid min-h-0 overflow-auto bg-well"
        :class="bench.zoom === 'fit' ? 'place-items-center' : ''"
        :tabindex="bench.zoom === 'fit' ? -1 : 0"
      >
        <EmptyState v-if="input === null" class="text-[#e9e6dd]" :title="t('bench.empty')" :hint="t('bench.emptyHint')">
          <BaseButton class="text-ink" @click="emit('addCamera')">{{ t('bench.addStandin') }}</BaseButton>
        </EmptyState>
        <div
          v-else
          ref="picture"
          dir="ltr"
          class="relative m-auto shrink-0 overflow-hidden"
          :tabindex="isPicking ? 0 : undefined"
          :role="isPicking ? 'application' : undefined"
          :aria-label="isPicking ? t('bench.pickKeys') : undefined"
          :class="[isPicking ? 'cursor-crosshair' : '', scale > 1 ? 'pixelated' : '']"
          :style="pictureStyle"
          data-testid="bench-picture"
          @keydown="onPickKey"
          @click="onClick"
          @pointermove="pointer = shareAt($event)"
          @pointerleave="isPicking || (pointer = null)"
        >
          <LivePicture
            v-if="mode !== 'before'"
            class="absolute inset-0"
            :class="mode === 'matte' ? 'bg-black' : `backing-${bench.backing}`"
            :request="{
              kind: 'input',
              inputId: input.id,
              stage: mode === 'matte' ? 'matte' : 'after',
              isSmall: false,
              layer: bench.layer,
              showsClipping: bench.showsClipping,
            }"
            :width-px="info.widthPx"
            :height-px="info.heightPx"
            :label="t(mode === 'matte' ? 'bench.matte' : 'bench.after')"
          />
          <LivePicture
            v-if="mode === 'before' || mode === 'split'"
            class="before-picture absolute inset-0"
            :style="mode === 'split' ? { clipPath: `inset(0 ${(1 - divider) * 100}% 0 0)` } : {}"
            :request="{ kind: 'input', inputId: input.id, stage: 'before', isSmall: false, showsClipping: bench.showsClipping }"
            :width-px="info.widthPx"
            :height-px="info.heightPx"
            :label="t('bench.before')"
          />
          <CropDrag v-if="!isPicking" :width-px="info.widthPx" :height-px="info.heightPx" />
          <SplitDivider v-if="mode === 'split'" v-model="divider" />
          <PixelGlass v-if="isPicking && pointer" :x="pointer.x" :y="pointer.y" />
        </div>
      </div>
    </div>
  </section>
</template>

<style scoped>
@media (max-width: 819px), (max-height: 519px) {
  .bench-well {
    height: 56vw;
  }
}
.pixelated :deep(canvas) {
  image-rendering: pixelated;
}
.backing-checker {
  background: repeating-conic-gradient(#dedede 0 25%, #ececec 0 50%) 0 0 / 12px 12px;
}
:root[data-theme='blackout'] .backing-checker {
  background: repeating-conic-gradient(#3a3a3a 0 25%, #444444 0 50%) 0 0 / 12px 12px;
}
.backing-warning {
  background: #e5007d;
}
.backing-white {
  background: #ffffff;
}
.backing-black {
  background: #000000;
}
</style>
