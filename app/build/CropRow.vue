<script setup lang="ts">
// What each edge of a picture loses, here only. The rest of it stays where it is.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { sizeOf } from '../../core/layout/arrange/arrange-scene.ts'
import { cropByEdges } from '../../core/layout/crop-drag.ts'
import { fitRects } from '../../core/box/fit.ts'
import { updateLayer } from '../../core/show/edits.ts'
import type { Crop, Layer } from '../../core/show/show.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import NumberCell from '../base/rows/NumberCell.vue'
import { useShowStore } from '../show/show.store.ts'

const props = defineProps<{ layer: Layer }>()
const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const NONE: Crop = { left: 0, top: 0, right: 0, bottom: 0 }
const edges = ['left', 'right', 'top', 'bottom'] as const
const crop = computed(() => props.layer.crop ?? NONE)
const size = computed(() => sizeOf(showStore.show!, props.layer, { infos: engine.infos, heads: new Map() }))
/** Pixels of the picture itself, as cameras and files count them. */
const pixels = computed(() => {
  const { widthPx, heightPx } = size.value
  return { left: crop.value.left * widthPx, right: crop.value.right * widthPx, top: crop.value.top * heightPx, bottom: crop.value.bottom * heightPx }
})

function set(edge: (typeof edges)[number], px: number): void {
  const { sceneId } = showStore
  if (sceneId === null) return
  const { placement } = props.layer
  const { source, target } = fitRects(placement.fit, size.value.widthPx, size.value.heightPx, placement.width, placement.height, props.layer.crop)
  const scale = edge === 'left' || edge === 'right' ? target.width / source.width : target.height / source.height
  // With "fill", the box already crops part of the picture.
  const now = { left: source.x, right: size.value.widthPx - source.x - source.width, top: source.y, bottom: size.value.heightPx - source.y - source.height }
  const by = (px - now[edge]) * scale
  const moves = { left: 0, top: 0, right: 0, bottom: 0, [edge]: edge === 'left' || edge === 'top' ? by : -by }
  showStore.edit(
    t('edits.crop', { name: props.layer.name }),
    (show) => updateLayer(show, sceneId, props.layer.id, (layer) => ({ ...layer, ...cropByEdges(layer, size.value, moves) })),
    `crop-${props.layer.id}-${edge}`,
  )
}

function reset(): void {
  const { sceneId } = showStore
  if (sceneId === null || props.layer.crop === null) return
  showStore.edit(t('edits.crop', { name: props.layer.name }), (show) => updateLayer(show, sceneId, props.layer.id, (layer) => ({ ...layer, crop: null })))
}
</script>

<template>
  <div class="mt-2.5">
    <p class="mb-1 flex items-center justify-between gap-2 text-[11.5px] text-soft">
      {{ t('inspector.cropHere', { width: Math.round(size.widthPx), height: Math.round(size.heightPx) }) }}
      <button v-if="layer.crop" type="button" class="min-h-6 rounded font-medium text-green hover:underline" @click="reset">
        {{ t('inspector.cropNone') }}
      </button>
    </p>
    <div class="grid grid-cols-2 gap-1.5 @min-[250px]:grid-cols-4">
      <NumberCell
        v-for="edge in edges"
        :key="edge"
        :model-value="Math.round(pixels[edge])"
        :caption="t(`inspector.cropEdges.${edge}`)"
        :label="t('inspector.cropEdge', { edge: t(`inspector.cropEdges.${edge}`) })"
        :range="{ min: 0, max: Math.round(0.99 * (edge === 'left' || edge === 'right' ? size.widthPx : size.heightPx)) }"
        :step="1"
        unit="px"
        :disabled="layer.locked"
        @update:model-value="set(edge, $event)"
      />
    </div>
  </div>
</template>
