<script setup lang="ts">
// Over the stage while a spot of what is on air is chosen, or seen closer: where it is pressed is looked at.
import { Minus, Plus, Undo2 } from 'lucide-vue-next'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { focusedScene, shareAt } from '../../core/layout/focus.ts'
import { layerAt } from '../../core/layout/hit-test.ts'
import { naturalSizeOf } from '../../core/layers/index.ts'
import IconButton from '../base/IconButton.vue'
import BaseButton from '../base/BaseButton.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { announce } from '../shell/announce.ts'
import { useLanguage } from '../shell/use-language.ts'
import { useShowStore } from '../show/show.store.ts'
import { useAirStore } from './air.store.ts'

const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const air = useAirStore()
const { direction } = useLanguage()
const area = useTemplateRef<HTMLDivElement>('area')
const KEY_STEP = 0.04
const WHEEL_PX = 400
/** Where keys aim, as shares of the canvas. */
const aim = ref({ x: 0.5, y: 0.5 })
const focus = computed(() => air.focus.now)
/** The scene as the audience sees it now. */
const seen = computed(() => {
  const { show, scene } = showStore
  return show === null || scene === null ? null : focus.value === null ? scene : focusedScene(show, scene, focus.value)
})
const say = computed(() =>
  focus.value?.closer != null ? t('air.closer', { times: focus.value.closer.scale.toFixed(1) }) : focus.value === null ? t('air.aim') : t('air.filled'),
)

function lookAt(x: number, y: number): void {
  const { show } = showStore
  if (show === null || seen.value === null) return
  const { widthPx, heightPx } = show.canvas
  const focusable = seen.value.layers.filter(({ id }) => air.focus.canFocus(id))
  const hit = layerAt(focusable, show.canvas, x * widthPx, y * heightPx)
  if (hit === null) return announce(t('air.nothingHere'))
  const size = naturalSizeOf(show, hit, engine.infos)
  if (size !== undefined) air.focus.lookAt(hit.id, ...shareAt(hit, size, x * widthPx, y * heightPx))
}

function onPress(event: MouseEvent): void {
  const bounds = area.value!.getBoundingClientRect()
  lookAt((event.clientX - bounds.left) / bounds.width, (event.clientY - bounds.top) / bounds.height)
}

function onKey(event: KeyboardEvent): void {
  const ways: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }
  const way = ways[event.key]
  if (way !== undefined) {
    const move = (at: number, by: number) => Math.min(1, Math.max(0, at + by * KEY_STEP))
    aim.value = { x: move(aim.value.x, way[0]), y: move(aim.value.y, way[1]) }
    // While it is closer already, it goes along.
    if (focus.value?.closer != null) lookAt(0.5 + way[0] * KEY_STEP * 4, 0.5 + way[1] * KEY_STEP * 4)
  } else if (event.key === 'Enter') lookAt(aim.value.x, aim.value.y)
  else if (event.key === 'Escape') air.focus.back()
  else if (event.key === '+') air.focus.scaleBy(1.2)
  else if (event.key === '-') air.focus.scaleBy(1 / 1.2)
  else return
  event.preventDefault()
  event.stopPropagation()
}

watch(
  () => air.focus.isAiming,
  async (isAiming) => {
    if (!isAiming) return
    aim.value = { x: 0.5, y: 0.5 }
    await nextTick()
    area.value?.focus({ preventScroll: true })
  },
  { immediate: true },
)
</script>

<template>
  <div
    ref="area"
    tabindex="0"
    role="application"
    class="absolute inset-0 cursor-zoom-in"
    :aria-label="t('air.lookCloser')"
    :aria-description="t('air.aimKeys')"
    data-testid="focus-layer"
    @click="onPress"
    @keydown="onKey"
    @wheel.prevent="air.focus.scaleBy(Math.exp(-$event.deltaY / WHEEL_PX))"
  >
    <span
      v-if="air.focus.isAiming && focus === null"
      class="pointer-events-none absolute size-9 -translate-1/2 rounded-full border-2 border-white shadow-[0_0_0_1px_#000000a0]"
      :style="{ left: `${aim.x * 100}%`, top: `${aim.y * 100}%` }"
    ></span>
    <div
      class="absolute inset-x-0 bottom-3 mx-auto flex w-fit max-w-[calc(100%-16px)] items-center gap-1 rounded-xl border border-line bg-paper py-1 ps-3 pe-1 shadow-lg"
      :dir="direction()"
      @click.stop
    >
      <span class="min-w-0 truncate font-medium" role="status">{{ say }}</span>
      <template v-if="focus?.closer">
        <IconButton :icon="Minus" size="small" :label="t('air.lessClose')" @click="air.focus.scaleBy(1 / 1.25)" />
        <IconButton :icon="Plus" size="small" :label="t('air.moreClose')" @click="air.focus.scaleBy(1.25)" />
      </template>
      <BaseButton kind="quiet" class="px-2! py-0.5!" :icon="Undo2" @click="air.focus.back()">{{ t('air.back') }}</BaseButton>
    </div>
  </div>
</template>
