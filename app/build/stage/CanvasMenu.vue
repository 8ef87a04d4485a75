<script setup lang="ts">
// The size and rate of the picture; everything on it follows.
import { ChevronDown } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { followCanvas } from '../../../core/layout/arrange/follow-canvas.ts'
import ActionMenu, { type MenuAction } from '../../base/ActionMenu.vue'
import { useEngineStore } from '../../engine/engine.store.ts'
import { useAirStore } from '../../air/air.store.ts'
import { useHeads } from '../../inputs/use-heads.ts'
import { makeId } from '../../show/make-id.ts'
import { useShowStore } from '../../show/show.store.ts'

const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const air = useAirStore()
const { heads } = useHeads()
const canvas = computed(() => showStore.show!.canvas)
const SIZES = [
  ['wide720', 1280, 720],
  ['wide1080', 1920, 1080],
  ['classic', 960, 720],
  ['square', 1080, 1080],
  ['tall', 720, 1280],
] as const

function set(part: Partial<typeof canvas.value>): void {
  showStore.edit(t('edits.canvas'), (show) => followCanvas(show, { ...show.canvas, ...part }, { infos: engine.infos, heads: heads.value }, makeId))
}

const actions = computed<MenuAction[]>(() => [
  ...SIZES.map(([name, widthPx, heightPx], i) => ({
    label: `${widthPx}×${heightPx}`,
    detail: t(`build.canvasSizes.${name}`),
    ...(i === 0 ? { group: t('build.canvasSize') } : {}),
    disabled: air.isFeedOn || (canvas.value.widthPx === widthPx && canvas.value.heightPx === heightPx),
    run: () => set({ widthPx, heightPx }),
  })),
  ...[30, 60].map((frameRate, i) => ({
    label: t('build.aSecond', { n: frameRate }),
    ...(i === 0 ? { group: t('build.canvasRate') } : {}),
    disabled: air.isFeedOn || canvas.value.frameRate === frameRate,
    run: () => set({ frameRate }),
  })),
])
</script>

<template>
  <ActionMenu :actions="actions" :label="t('build.canvas', { size: `${canvas.widthPx}×${canvas.heightPx}`, rate: canvas.frameRate })" align="right">
    <span
      class="inline-flex h-7 items-center gap-1 rounded-md px-1.5 font-num text-[11.5px] whitespace-nowrap text-soft tabular-nums hover:bg-sunk hover:text-ink"
    >
      {{ canvas.widthPx }}×{{ canvas.heightPx }} · {{ canvas.frameRate }}<ChevronDown :size="12" aria-hidden="true" />
    </span>
  </ActionMenu>
</template>
