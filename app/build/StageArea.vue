<script setup lang="ts">
import { Camera, Image, LoaderCircle, Type } from 'lucide-vue-next'
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { safeArea } from '../../core/layout/safe-area.ts'
import BaseButton from '../base/BaseButton.vue'
import EmptyState from '../base/EmptyState.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { useWindowShape } from '../shell/use-window-shape.ts'
import { useShowStore } from '../show/show.store.ts'
import StageHandles from './StageHandles.vue'
import StageTrouble from './StageTrouble.vue'
import { useAddLayer } from './use-add-layer.ts'
import { useSafeLines } from './use-safe-lines.ts'
import { useStageTrouble } from './use-stage-trouble.ts'

const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const { addFiles, addText, addCamera, chooseFiles } = useAddLayer()
const { isShown: showsSafe } = useSafeLines()
const { isStarting, words: trouble } = useStageTrouble()
const well = useTemplateRef<HTMLDivElement>('well')
const { width: wellWidth, height: wellHeight } = useElementSize(well)
const { isStacked } = useWindowShape()
const isDropTarget = ref(false)
const MARGIN_PX = 9

const canvas = computed(() => showStore.show!.canvas)
const zoom = computed(() => {
  const across = (wellWidth.value - 2 * MARGIN_PX) / canvas.value.widthPx
  // Stacked, the stage is as high as its picture.
  const down = isStacked.value ? Infinity : (wellHeight.value - 2 * MARGIN_PX) / canvas.value.heightPx
  return Math.max(0.05, Math.min(across, down))
})
const pictureStyle = computed(() => ({
  width: `${Math.round(canvas.value.widthPx * zoom.value)}px`,
  height: `${Math.round(canvas.value.heightPx * zoom.value)}px`,
}))
const safeStyle = computed(() => {
  const area = safeArea('title', 100, 100)
  return { left: `${area.x}%`, top: `${area.y}%`, width: `${area.width}%`, height: `${area.height}%` }
})
const isOnAir = computed(() => engine.onAirId !== null && showStore.sceneId === engine.onAirId)

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
    @dragover.prevent="isDropTarget = true"
    @dragleave="isDropTarget = false"
    @drop.prevent="onDrop"
  >
    <div v-if="showStore.scene" class="relative" :style="pictureStyle" :class="isOnAir ? 'outline-2 outline-offset-2 outline-[#e0604f]' : ''">
      <LivePicture
        class="absolute inset-0"
        :request="{ kind: 'scene', sceneId: showStore.scene.id, isSmall: false }"
        :width-px="canvas.widthPx"
        :height-px="canvas.heightPx"
        :label="t('build.stage', { scene: showStore.scene.name })"
        data-testid="stage"
      />
      <div v-if="showsSafe" class="safe pointer-events-none absolute" :style="safeStyle"></div>
      <StageHandles :zoom="zoom" />
      <div v-if="showStore.scene.layers.length === 0" class="pointer-events-none absolute inset-0 grid place-items-center text-[#e9e6dd]">
        <EmptyState class="pointer-events-auto" :title="t('build.emptyScene')" :hint="t('build.emptySceneHint')">
          <BaseButton class="text-ink" :icon="Camera" @click="addCamera">{{ t('build.addCamera') }}</BaseButton>
          <BaseButton class="text-ink" :icon="Image" @click="chooseFiles()">{{ t('build.addPicture') }}</BaseButton>
          <BaseButton class="text-ink" :icon="Type" @click="addText">{{ t('build.addText') }}</BaseButton>
        </EmptyState>
      </div>
      <p
        v-else-if="!engine.hasFirstPicture && isStarting && trouble === null"
        class="pointer-events-none absolute inset-0 m-auto flex h-fit w-fit items-center gap-2 rounded-lg bg-black/75 px-3 py-1.5 text-white"
      >
        <LoaderCircle :size="18" class="animate-spin" aria-hidden="true" />{{ t('build.cameraStarting') }}
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
.safe {
  border: 1px dashed #ffffffc0;
  outline: 1px dashed #00000080;
  outline-offset: -2px;
}
</style>
