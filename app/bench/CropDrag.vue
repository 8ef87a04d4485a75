<script setup lang="ts">
// Alt and drag: the nearest edge of the picture is cut off. The rest neither moves nor scales.
import { newStep } from '../../core/steps/treatment.ts'
import { useEventListener } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { addStep, setStepParams, switchStep, treatmentAt } from '../../core/show/edits.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useBenchStore } from './bench.store.ts'

defineProps<{ widthPx: number; heightPx: number }>()
type Edge = 'left' | 'top' | 'right' | 'bottom'
const { t } = useI18n()
const showStore = useShowStore()
const bench = useBenchStore()
const isArmed = ref(false)
const edge = ref<Edge | null>(null)
const isDragging = ref(false)
let dragKey = ''

const crop = computed(() => (showStore.show === null ? undefined : treatmentAt(showStore.show, bench.home).find((step) => step.kind === 'crop')))
const values = computed(() => (crop.value?.kind === 'crop' && crop.value.on ? crop.value.params : { left: 0, top: 0, right: 0, bottom: 0 }))

useEventListener(window, 'keydown', (event: KeyboardEvent) => (isArmed.value = event.altKey))
useEventListener(window, 'keyup', (event: KeyboardEvent) => (isArmed.value = event.altKey || isDragging.value))
useEventListener(window, 'blur', () => (isArmed.value = false))

/** Share of the picture at the pointer, and which kept edge is nearest. */
function placeOf(event: PointerEvent): { readonly x: number; readonly y: number; readonly nearest: Edge } {
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const x = ((event.clientX - bounds.left) / bounds.width) * 100
  const y = ((event.clientY - bounds.top) / bounds.height) * 100
  const { left, top, right, bottom } = values.value
  const distances: readonly (readonly [Edge, number])[] = [
    ['left', Math.abs(x - left)],
    ['top', Math.abs(y - top)],
    ['right', Math.abs(100 - right - x)],
    ['bottom', Math.abs(100 - bottom - y)],
  ]
  return { x, y, nearest: distances.reduce((best, next) => (next[1] < best[1] ? next : best))[0] }
}

function onDown(event: PointerEvent): void {
  edge.value = placeOf(event).nearest
  isDragging.value = true
  dragKey = `crop-drag-${event.timeStamp}`
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  drag(event)
}

function drag(event: PointerEvent): void {
  if (!isDragging.value) {
    edge.value = placeOf(event).nearest
    return
  }
  const { x, y } = placeOf(event)
  const cut = { left: x, top: y, right: 100 - x, bottom: 100 - y }[edge.value!]
  set(edge.value!, Math.min(95, Math.max(0, Math.round(cut * 2) / 2)))
}

function set(side: Edge, percent: number): void {
  const { home } = bench
  showStore.edit(
    t('steps.crop.name'),
    (show) => {
      const known = treatmentAt(show, home).find((step) => step.kind === 'crop')
      const step = known ?? newStep('crop', makeId)
      const withStep = known === undefined ? addStep(show, home, step) : switchStep(show, home, step.id, true)
      return setStepParams(withStep, home, step.id, { [side]: percent })
    },
    dragKey,
  )
}

function onUp(event: PointerEvent): void {
  isDragging.value = false
  isArmed.value = event.altKey
}
</script>

<template>
  <div
    v-if="isArmed"
    class="absolute inset-0 z-10 touch-none"
    :class="edge === 'left' || edge === 'right' ? 'cursor-ew-resize' : 'cursor-ns-resize'"
    data-testid="crop-drag"
    @pointerdown.prevent="onDown"
    @pointermove="drag"
    @pointerup="onUp"
    @pointercancel="onUp"
    @click.stop
  >
    <div
      class="absolute border-2 border-white/90 shadow-[0_0_0_1px_#0009]"
      :style="{ left: `${values.left}%`, top: `${values.top}%`, right: `${values.right}%`, bottom: `${values.bottom}%` }"
    ></div>
    <span class="absolute bottom-2 start-1/2 -translate-x-1/2 rounded bg-black/75 px-2 py-0.5 text-[12px] whitespace-nowrap text-white">{{
      t('bench.cropHint')
    }}</span>
  </div>
</template>
