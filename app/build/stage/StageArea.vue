<script setup lang="ts">
import { LoaderCircle } from 'lucide-vue-next'
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { safeArea } from '../../../core/layout/safe-area.ts'
import { useEngineStore } from '../../engine/engine.store.ts'
import { useAirStore } from '../../air/air.store.ts'
import FocusLayer from '../../air/FocusLayer.vue'
import type { ViewRequest } from '../../../engine/protocol.ts'
import DrawLayer from '../../drawing/DrawLayer.vue'
import { useDrawingStore } from '../../drawing/drawing.store.ts'
import LivePicture from '../../live-picture/LivePicture.vue'
import { useWindowShape } from '../../shell/use-window-shape.ts'
import { useShowStore } from '../../show/show.store.ts'
import EmptyStage from './EmptyStage.vue'
import StageHandles from './StageHandles.vue'
import StageTrouble from './StageTrouble.vue'
import { useAddLayer } from '../use-add-layer.ts'
import { useSafeLines } from './use-safe-lines.ts'
import { stageCue } from './stage-cue.ts'
import { useStageTrouble } from './use-stage-trouble.ts'
import { useStageView } from './use-stage-view.ts'

const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const air = useAirStore()
const drawing = useDrawingStore()
const { addFiles } = useAddLayer()
const { isShown: showsSafe } = useSafeLines()
const { words: trouble } = useStageTrouble()
const well = useTemplateRef<HTMLDivElement>('well')
const picture = useTemplateRef<HTMLDivElement>('picture')
const { width: wellWidth, height: wellHeight } = useElementSize(well)
const { isStacked } = useWindowShape()
const isDropTarget = ref(false)
const MARGIN_PX = 9

const canvas = computed(() => showStore.show!.canvas)
const fitted = computed(() => {
  const across = (wellWidth.value - 2 * MARGIN_PX) / canvas.value.widthPx
  // Stacked, the stage is as high as its picture.
  const down = isStacked.value ? Infinity : (wellHeight.value - 2 * MARGIN_PX) / canvas.value.heightPx
  return Math.max(0.05, Math.min(across, down))
})
const { nearness, centre, look, pan } = useStageView()
const zoom = computed(() => fitted.value * nearness.value)
const size = computed(() => ({ width: Math.round(canvas.value.widthPx * zoom.value), height: Math.round(canvas.value.heightPx * zoom.value) }))
const pictureStyle = computed(() => ({
  width: `${size.value.width}px`,
  height: `${size.value.height}px`,
  transform: nearness.value === 1 ? 'none' : `translate(${(0.5 - centre.value.x) * size.value.width}px, ${(0.5 - centre.value.y) * size.value.height}px)`,
}))
const safeAreas = (['action', 'title'] as const).map((kind) => {
  const area = safeArea(kind, 100, 100)
  return { kind, style: { left: `${area.x}%`, top: `${area.y}%`, width: `${area.width}%`, height: `${area.height}%` } }
})
/** Whether something of the scene is brought near on air: then the stage shows what the audience sees. */
const isNear = computed(() => air.focus.now !== null && air.onAirId === showStore.sceneId)
const isAiming = computed(() => air.focus.isAiming && air.onAirId === showStore.sceneId)
/** A graphic is seen over the scene that the audience has, or would have first. */
const stageRequest = computed<ViewRequest>(() => {
  if (isNear.value) return { kind: 'air' }
  const { id, graphic } = showStore.scene!
  const under = graphic === null ? null : (air.onAirId ?? showStore.onAirId)
  return {
    kind: 'scene' as const,
    sceneId: id,
    isSmall: false,
    ...(under === null ? {} : { under }),
    ...(stageCue.value?.sceneId === id ? { cue: stageCue.value.cue } : {}),
  }
})
/** What the audience sees: not while the holding card is in its place. */
const isOnAir = computed(() => {
  const { sceneId } = showStore
  if (air.onAirId === null || sceneId === null || air.showsCard) return false
  return sceneId === air.onAirId || air.graphics.shownIds.has(sceneId)
})

/** With Control the wheel looks nearer; without, it moves what is looked at. */
function onWheel(event: WheelEvent): void {
  const bounds = picture.value?.getBoundingClientRect()
  if (bounds === undefined || (!event.ctrlKey && nearness.value === 1)) return
  event.preventDefault()
  if (event.ctrlKey)
    look(nearness.value * Math.exp(-event.deltaY / 300), (event.clientX - bounds.left) / bounds.width, (event.clientY - bounds.top) / bounds.height)
  else pan(event.deltaX / bounds.width, event.deltaY / bounds.height)
}

/** The middle button takes the picture along. */
function onPointerDown(event: PointerEvent): void {
  if (event.button !== 1 || well.value === null) return
  event.preventDefault()
  const target = well.value
  target.setPointerCapture(event.pointerId)
  const onMove = (moved: PointerEvent) => pan(-moved.movementX / size.value.width, -moved.movementY / size.value.height)
  target.addEventListener('pointermove', onMove)
  target.addEventListener('lostpointercapture', () => target.removeEventListener('pointermove', onMove), { once: true })
}

function onDrop(event: DragEvent): void {
  isDropTarget.value = false
  const files = [...(event.dataTransfer?.files ?? [])]
  if (files.length > 0) void addFiles(files)
}
</script>

<template>
  <section
    ref="well"
    class="relative isolate grid min-h-0 min-w-0 place-items-center overflow-hidden bg-well"
    :class="isStacked ? 'py-[9px]' : ''"
    :aria-label="t('build.stageArea')"
    @wheel="onWheel"
    @pointerdown="onPointerDown"
    @dragover.prevent="isDropTarget = true"
    @dragleave="isDropTarget = false"
    @drop.prevent="onDrop"
  >
    <div
      v-if="showStore.scene"
      ref="picture"
      dir="ltr"
      class="relative max-w-none"
      :style="pictureStyle"
      :class="isOnAir ? 'outline-2 outline-offset-2 outline-[#e0604f]' : ''"
    >
      <LivePicture
        class="absolute inset-0"
        :request="stageRequest"
        :width-px="canvas.widthPx"
        :height-px="canvas.heightPx"
        :label="t('build.stage', { scene: showStore.scene.name })"
        data-testid="stage"
      />
      <template v-if="showsSafe">
        <div v-for="area in safeAreas" :key="area.kind" class="safe pointer-events-none absolute" :class="area.kind" :style="area.style">
          <span class="absolute -top-px bg-black/60 px-1 text-[9.5px] leading-3 text-white" :class="area.kind === 'title' ? 'start-3' : 'end-3'">{{
            area.kind === 'title' ? t('build.safeTitle') : t('build.safeAction')
          }}</span>
        </div>
      </template>
      <StageHandles v-if="!isNear && !drawing.isOn" :zoom="zoom" />
      <FocusLayer v-if="isAiming || (isNear && !drawing.isOn)" />
      <DrawLayer v-if="drawing.isOn && !isAiming" :key="showStore.scene.id" />
      <div v-if="showStore.scene.layers.length === 0" class="pointer-events-none absolute inset-0 grid place-items-center text-[#e9e6dd]">
        <EmptyStage class="pointer-events-auto" />
      </div>
      <p
        v-else-if="!engine.hasFirstPicture && trouble === null"
        class="pointer-events-none absolute inset-0 m-auto flex h-fit w-fit items-center gap-2 rounded-lg bg-black/75 px-3 py-1.5 text-white"
      >
        <LoaderCircle :size="18" class="animate-spin" aria-hidden="true" />{{ t('build.pictureStarting') }}
      </p>
    </div>
    <StageTrouble />
    <div
      v-if="isDropTarget"
      class="pointer-events-none absolute inset-3 grid place-items-center rounded-xl border-2 border-dashed border-[#e0b04b] bg-black/50 text-[16px] font-medium text-white"
    >
      {{ t('build.dropHere') }}
    </div>
  </section>
</template>

<style scoped>
/* Light on dark and dark on light: seen on any picture. */
.safe.action {
  opacity: 0.5;
}
.safe {
  border: 1px dashed #ffffffc0;
  outline: 1px dashed #00000080;
  outline-offset: -2px;
}
</style>
