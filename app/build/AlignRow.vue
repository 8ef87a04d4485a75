<script setup lang="ts">
// Lining up: one layer with the canvas, several with each other.
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceBetween,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceBetween,
  Scaling,
} from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { aligned, alignments, distributed, matchedInSize, type Alignment } from '../../core/layout/align.ts'
import { placeLayers } from '../../core/show/layer-set-edits.ts'
import type { Placement } from '../../core/show/show.ts'
import IconButton from '../base/IconButton.vue'
import { useShowStore } from '../show/show.store.ts'

const { t } = useI18n()
const showStore = useShowStore()
const count = computed(() => showStore.selectedLayers.length)
const isFixed = computed(() => showStore.selectedLayers.every(({ locked }) => locked) || showStore.scene?.locked === true)
const icons: Readonly<Record<Alignment, typeof Scaling>> = {
  left: AlignStartVertical,
  centre: AlignCenterVertical,
  right: AlignEndVertical,
  top: AlignStartHorizontal,
  middle: AlignCenterHorizontal,
  bottom: AlignEndHorizontal,
}

function change(make: (placements: readonly Placement[]) => readonly Placement[]): void {
  const { sceneId, selectedIds, selectedLayers } = showStore
  if (sceneId === null) return
  const name = selectedLayers.length === 1 ? selectedLayers[0]!.name : t('layer.many', selectedLayers.length)
  showStore.edit(t('edits.align', { name }), (show) => placeLayers(show, sceneId, selectedIds, make))
}

/** All as large as the one that was selected last. */
function matchSize(): void {
  const model = showStore.stageLayer?.placement
  if (model !== undefined) change((placements) => matchedInSize([...placements, model]).slice(0, placements.length))
}
</script>

<template>
  <div class="flex flex-wrap gap-0.5" role="group" :aria-label="count > 1 ? t('align.together') : t('align.canvas')">
    <IconButton
      v-for="alignment in alignments"
      :key="alignment"
      :icon="icons[alignment]"
      size="small"
      :label="t(`align.${alignment}`)"
      :disabled="isFixed"
      @click="change((placements) => aligned(placements, alignment, showStore.show!.canvas))"
    />
    <template v-if="count > 1">
      <IconButton
        :icon="AlignHorizontalSpaceBetween"
        size="small"
        :label="t('align.spreadX')"
        :disabled="isFixed || count < 3"
        @click="change((placements) => distributed(placements, 'x'))"
      />
      <IconButton
        :icon="AlignVerticalSpaceBetween"
        size="small"
        :label="t('align.spreadY')"
        :disabled="isFixed || count < 3"
        @click="change((placements) => distributed(placements, 'y'))"
      />
      <IconButton :icon="Scaling" size="small" :label="t('align.size', { name: showStore.layer?.name ?? '' })" :disabled="isFixed" @click="matchSize" />
    </template>
  </div>
</template>
