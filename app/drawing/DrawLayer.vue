<script setup lang="ts">
// Over the stage while the presenter draws: presses become strokes on the page or the scene under them.
import { computed, nextTick, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { useShowStore } from '../show/show.store.ts'
import DrawBar from './DrawBar.vue'
import { useDrawingStore } from './drawing.store.ts'
import { penPath } from './pen-path.ts'
import { usePen, type PenPoint } from './use-pen.ts'

const { t } = useI18n()
const drawing = useDrawingStore()
const canvas = computed(() => useShowStore().show!.canvas)
const area = useTemplateRef<HTMLDivElement>('area')
const { down, move, up, cancel, preview, isDown } = usePen(() => toast.warning(t('drawing.full')))
/** Keys move the pen by these shares of the canvas. */
const KEY_STEP = 0.02
const FINE_STEP = 0.004
/** Where keys hold the pen, as shares of the canvas; null until they are used. */
const keyPen = ref<{ x: number; y: number } | null>(null)
/** A marker lets through what is under it: drawn twice it would be darker. */
const path = computed(() =>
  preview.value === null || preview.value.tool === 'marker' ? '' : penPath(preview.value, canvas.value.widthPx, canvas.value.heightPx),
)

function pointOf(event: PointerEvent): PenPoint {
  const bounds = area.value!.getBoundingClientRect()
  return {
    x: ((event.clientX - bounds.left) / bounds.width) * canvas.value.widthPx,
    y: ((event.clientY - bounds.top) / bounds.height) * canvas.value.heightPx,
    // A mouse has none: half, as pens rest.
    pressure: event.pointerType === 'mouse' ? 0.5 : event.pressure,
  }
}

function onDown(event: PointerEvent): void {
  if (event.button !== 0 || isDown.value) return
  area.value!.setPointerCapture(event.pointerId)
  keyPen.value = null
  down(pointOf(event))
}

function onMove(event: PointerEvent): void {
  if (drawing.pointing !== null) {
    const { x, y } = pointOf(event)
    return drawing.point({ x: x / canvas.value.widthPx, y: y / canvas.value.heightPx })
  }
  if (!isDown.value) return
  const all = event.getCoalescedEvents()
  move((all.length === 0 ? [event] : all).map(pointOf), event.shiftKey)
}

function onKey(event: KeyboardEvent): void {
  const ways: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }
  const way = ways[event.key]
  if (way !== undefined) moveKeyPen(way, event.shiftKey ? FINE_STEP : KEY_STEP)
  else if (event.key === ' ' || event.key === 'Enter') {
    moveKeyPen([0, 0], 0)
    if (isDown.value) up()
    else down(keyPoint())
  } else return
  event.preventDefault()
  event.stopPropagation()
}

/** Wherever the focus is, on the pens too. */
function onEscape(event: KeyboardEvent): void {
  if (isDown.value) cancel()
  else drawing.isOn = false
  event.preventDefault()
  event.stopPropagation()
}

function moveKeyPen([x, y]: readonly [number, number], step: number): void {
  const within = (value: number) => Math.min(1, Math.max(0, value))
  const at = keyPen.value ?? { x: 0.5, y: 0.5 }
  keyPen.value = { x: within(at.x + x * step), y: within(at.y + y * step) }
  if (drawing.pointing !== null) drawing.point(keyPen.value)
  else if (isDown.value) move([keyPoint()], false)
}

function keyPoint(): PenPoint {
  const { x, y } = keyPen.value!
  return { x: x * canvas.value.widthPx, y: y * canvas.value.heightPx, pressure: 0.5 }
}

onMounted(async () => {
  await nextTick()
  area.value?.focus({ preventScroll: true })
})
// Another scene came to the stage, or the pen was put away, with a stroke half drawn.
onBeforeUnmount(up)
</script>

<template>
  <div class="absolute inset-0" @keydown.esc="onEscape">
    <div
      ref="area"
      tabindex="0"
      role="application"
      class="absolute inset-0 touch-none focus-visible:outline-2 focus-visible:outline-offset-2 focus-visible:outline-brass"
      :class="drawing.pointing === null ? 'cursor-crosshair' : 'cursor-none'"
      :aria-label="t('drawing.area')"
      :aria-description="t('drawing.areaKeys')"
      data-testid="draw-layer"
      @pointerdown="onDown"
      @pointermove="onMove"
      @pointerup="up"
      @pointercancel="cancel"
      @pointerleave="drawing.point(null)"
      @keydown="onKey"
    >
      <svg class="pointer-events-none absolute inset-0 size-full" :viewBox="`0 0 ${canvas.widthPx} ${canvas.heightPx}`" aria-hidden="true">
        <path v-if="path" :d="path" :fill="drawing.colour" fill-rule="nonzero" />
      </svg>
      <span
        v-if="keyPen"
        class="pointer-events-none absolute size-4 -translate-1/2 rounded-full border-2 border-white shadow-[0_0_0_1px_#000000a0]"
        :class="isDown ? 'bg-[#d9412e]' : ''"
        :style="{ left: `${keyPen.x * 100}%`, top: `${keyPen.y * 100}%` }"
      ></span>
    </div>
    <DrawBar />
  </div>
</template>
