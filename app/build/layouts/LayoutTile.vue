<script setup lang="ts">
// What a layout would make of this scene, as a small live picture; places that nobody has yet are outlined.
import { Image, UserRound } from 'lucide-vue-next'
import { computed } from 'vue'
import type { Rect } from '../../../core/box/fit.ts'
import LivePicture from '../../live-picture/LivePicture.vue'
import { useShowStore } from '../../show/show.store.ts'
import type { LayoutDraft } from './use-layouts.ts'

const props = defineProps<{ draft: LayoutDraft; widthPx: number }>()
const showStore = useShowStore()
const canvas = computed(() => showStore.show!.canvas)
/** High canvases have high previews, but no higher than there is room for. */
const size = computed(() => {
  const { widthPx, heightPx } = canvas.value
  const height = Math.min(props.widthPx * 0.62, (props.widthPx * heightPx) / widthPx)
  return { widthPx: Math.round((height * widthPx) / heightPx), heightPx: Math.round(height) }
})

function styleOf(box: Rect) {
  const { widthPx, heightPx } = canvas.value
  return {
    left: `${(box.x / widthPx) * 100}%`,
    top: `${(box.y / heightPx) * 100}%`,
    width: `${(box.width / widthPx) * 100}%`,
    height: `${(box.height / heightPx) * 100}%`,
  }
}
</script>

<template>
  <span class="grid place-items-center overflow-hidden rounded-[4px] bg-well">
    <span dir="ltr" class="relative block" :style="{ width: `${size.widthPx}px`, height: `${size.heightPx}px`, maxWidth: '100%' }">
      <LivePicture
        class="pointer-events-none absolute inset-0"
        :request="{ kind: 'draft', scene: draft.scene, contents: draft.contents }"
        :width-px="size.widthPx * 2"
        :height-px="size.heightPx * 2"
        label=""
      />
      <span v-for="(box, i) in draft.open.presenters" :key="i" class="open-place" :style="styleOf(box)"><UserRound :size="22" aria-hidden="true" /></span>
      <span v-if="draft.open.page" class="open-place" :style="styleOf(draft.open.page)"><Image :size="20" aria-hidden="true" /></span>
    </span>
  </span>
</template>

<style scoped>
.open-place {
  position: absolute;
  display: grid;
  place-items: center;
  border: 1px dashed #ffffff8c;
  color: #ffffffb8;
  background: #ffffff14;
}
</style>
