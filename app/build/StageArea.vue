<script setup lang="ts">
import { Frame, LoaderCircle, Plus, Radio } from 'lucide-vue-next'
import { useElementSize, useLocalStorage } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { safeArea } from '../../core/layout/safe-area.ts'
import ActionMenu from '../base/ActionMenu.vue'
import BaseButton from '../base/BaseButton.vue'
import EmptyState from '../base/EmptyState.vue'
import IconButton from '../base/IconButton.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { useShowStore } from '../show/show.store.ts'
import StageHandles from './StageHandles.vue'
import { useAddLayer } from './use-add-layer.ts'

const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const { actions, addFiles, onFilesChosen } = useAddLayer()
const well = useTemplateRef<HTMLDivElement>('well')
const { width: wellWidth, height: wellHeight } = useElementSize(well)
const showsSafe = useLocalStorage('green-room:safe', true)
const isDropTarget = ref(false)
const MARGIN_PX = 28

const canvas = computed(() => showStore.show!.canvas)
const zoom = computed(() =>
  Math.max(0.05, Math.min((wellWidth.value - 2 * MARGIN_PX) / canvas.value.widthPx, (wellHeight.value - 2 * MARGIN_PX) / canvas.value.heightPx)),
)
const pictureStyle = computed(() => ({
  width: `${Math.round(canvas.value.widthPx * zoom.value)}px`,
  height: `${Math.round(canvas.value.heightPx * zoom.value)}px`,
}))
const safeStyle = computed(() => {
  const area = safeArea('title', 100, 100)
  return { left: `${area.x}%`, top: `${area.y}%`, width: `${area.width}%`, height: `${area.height}%` }
})
const isOnAir = computed(() => showStore.sceneId === showStore.onAirId)

function onDrop(event: DragEvent): void {
  isDropTarget.value = false
  const files = [...(event.dataTransfer?.files ?? [])]
  if (files.length > 0) void addFiles(files)
}
</script>

<template>
  <section class="grid min-h-0 min-w-0 grid-rows-[44px_minmax(0,1fr)]">
    <div class="flex items-center gap-1.5 bg-sunk px-3">
      <ActionMenu :actions="actions" :label="t('build.add')">
        <span class="inline-flex items-center gap-1.5 rounded-lg border border-line bg-raised px-3 py-1.5 font-medium">
          <Plus :size="16" aria-hidden="true" />
          {{ t('build.add') }}
        </span>
      </ActionMenu>
      <input
        ref="fileInput"
        type="file"
        accept="image/png,image/jpeg,image/webp,image/gif"
        multiple
        class="hidden"
        data-testid="picture-file"
        @change="onFilesChosen"
      />
      <span class="min-w-0 flex-1 truncate pl-2" :class="isOnAir && engine.isFeedOn ? 'font-medium text-tally' : ''">
        <template v-if="isOnAir && engine.isFeedOn">{{ t('build.isOnAir') }}</template>
      </span>
      <BaseButton v-if="!isOnAir && showStore.sceneId" :icon="Radio" @click="showStore.setOnAir(showStore.sceneId)">{{ t('build.putOnAir') }}</BaseButton>
      <IconButton :icon="Frame" :label="t('build.safe')" :is-on="showsSafe" @click="showsSafe = !showsSafe" />
      <span class="ml-1 font-num text-[11.5px] text-soft tabular-nums"
        >{{ canvas.widthPx }}×{{ canvas.heightPx }} · {{ canvas.frameRate }} · {{ Math.round(zoom * 100) }} %</span
      >
    </div>
    <div
      ref="well"
      class="relative grid min-h-0 place-items-center overflow-hidden bg-well"
      @dragover.prevent="isDropTarget = true"
      @dragleave="isDropTarget = false"
      @drop.prevent="onDrop"
    >
      <div
        v-if="showStore.scene"
        class="relative"
        :style="pictureStyle"
        :class="isOnAir && engine.isFeedOn ? 'outline-2 outline-offset-2 outline-[#e0604f]' : ''"
      >
        <LivePicture
          class="absolute inset-0"
          :request="{ kind: 'scene', sceneId: showStore.scene.id, isSmall: false }"
          :width-px="canvas.widthPx"
          :height-px="canvas.heightPx"
          :label="t('build.stage', { scene: showStore.scene.name })"
          data-testid="stage"
        />
        <div v-if="showsSafe" class="pointer-events-none absolute border border-dashed border-white/45" :style="safeStyle"></div>
        <StageHandles :zoom="zoom" />
        <div v-if="showStore.scene.layers.length === 0" class="absolute inset-0 grid place-items-center text-[#e9e6dd]">
          <EmptyState :title="t('build.emptyScene')" :hint="t('build.emptySceneHint')" />
        </div>
        <div v-else-if="!engine.hasFirstPicture" class="pointer-events-none absolute inset-0 grid place-items-center text-[#e9e6dd]">
          <span class="inline-flex items-center gap-2"><LoaderCircle :size="18" class="animate-spin" aria-hidden="true" />{{ t('build.cameraStarting') }}</span>
        </div>
      </div>
      <div
        v-if="isDropTarget"
        class="pointer-events-none absolute inset-3 grid place-items-center rounded-xl border-2 border-dashed border-[#e0b04b] bg-black/50 text-[16px] font-medium text-white"
      >
        {{ t('build.dropHere') }}
      </div>
    </div>
  </section>
</template>
