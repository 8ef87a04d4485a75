<script setup lang="ts">
// What the other side gets: the scene as a small tile, which texts cannot be read there, and why one's own tile is mirrored.
import { textOf, isText } from '../../core/layers/text.ts'
import { layersOf } from '../../core/layers/tree.ts'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { isTooSmallInTile, TILE_WIDTH_PX } from '../../core/text/tile-size.ts'
import ToggleSwitch from '../base/ToggleSwitch.vue'
import { useAirStore } from '../air/air.store.ts'
import LivePicture from '../live-picture/LivePicture.vue'
import { useShowStore } from '../show/show.store.ts'

const { t } = useI18n()
const showStore = useShowStore()
const air = useAirStore()
/** A view only: what is sent is never mirrored. */
const isMirrored = ref(false)

const scene = computed(() => {
  const id = air.onAirId ?? showStore.onAirId
  return showStore.show?.scenes.find((candidate) => candidate.id === id) ?? showStore.show?.scenes[0] ?? null
})
const texts = computed(() =>
  (scene.value ? layersOf(scene.value) : []).flatMap((layer) => (isText(layer) && layer.visible ? textOf(showStore.show!, layer).blocks : [])),
)
const tooSmall = computed(() => texts.value.filter(({ text, sizePx }) => text.trim() !== '' && isTooSmallInTile(sizePx, showStore.show!.canvas.widthPx)))
const verdict = computed(() => {
  if (texts.value.length === 0) return t('theySee.noText')
  if (tooSmall.value.length === 0) return t('theySee.smallNone')
  return t('theySee.small', { texts: tooSmall.value.map(({ text }) => `“${text}”`).join(', ') })
})
const sample = computed(() => texts.value.find(({ text }) => text.trim() !== '')?.text ?? t('theySee.sample'))
const tileHeightPx = computed(() => Math.round((TILE_WIDTH_PX * showStore.show!.canvas.heightPx) / showStore.show!.canvas.widthPx))
</script>

<template>
  <div v-if="scene" class="see" data-testid="they-see">
    <figure class="min-w-0">
      <div class="overflow-hidden rounded-md bg-well" :style="{ width: `${TILE_WIDTH_PX}px`, height: `${tileHeightPx}px`, maxWidth: '100%' }">
        <LivePicture
          :class="isMirrored ? 'mirrored h-full' : 'h-full'"
          :request="{ kind: 'scene', sceneId: scene.id, isSmall: true }"
          :width-px="TILE_WIDTH_PX"
          :height-px="tileHeightPx"
          :label="t('theySee.tile', { scene: scene.name })"
        />
      </div>
      <figcaption class="mt-1.5 text-[12px] text-soft">{{ t('theySee.tile', { scene: scene.name }) }}</figcaption>
    </figure>
    <div class="min-w-0">
      <p class="leading-snug" role="status" :class="tooSmall.length > 0 ? 'rounded-md bg-wash px-2.5 py-2' : 'text-soft'">{{ verdict }}</p>
      <h3 class="mt-3 mb-0.5 font-semibold">{{ t('theySee.yours') }}</h3>
      <p class="max-w-[52ch] leading-snug text-soft">{{ t('theySee.why', { text: sample }) }}</p>
      <p class="mt-2 flex min-h-7 items-center gap-2">
        <ToggleSwitch v-model="isMirrored" :label="t('theySee.mirror')" />
        <span>{{ t('theySee.mirror') }}</span>
      </p>
    </div>
  </div>
</template>

<style scoped>
.see {
  display: grid;
  grid-template-columns: minmax(0, 320px) minmax(0, 1fr);
  gap: 10px 20px;
}
.mirrored {
  transform: scaleX(-1);
}
@media (max-width: 819px), (max-height: 519px) {
  .see {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
