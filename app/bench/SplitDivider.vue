<script setup lang="ts">
// The line between before and after: dragged, or moved with the arrow keys.
import { ChevronsLeftRight } from 'lucide-vue-next'
import { useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'

const model = defineModel<number>({ required: true })
const { t } = useI18n()
const line = useTemplateRef<HTMLDivElement>('line')
const KEY_STEP = 0.02

function set(share: number): void {
  model.value = Math.min(1, Math.max(0, share))
}

function onPointerDown(event: PointerEvent): void {
  line.value?.setPointerCapture(event.pointerId)
}

function onPointerMove(event: PointerEvent): void {
  if (line.value?.hasPointerCapture(event.pointerId) !== true) return
  const bounds = line.value.parentElement!.getBoundingClientRect()
  set((event.clientX - bounds.left) / bounds.width)
}

function onKey(event: KeyboardEvent): void {
  if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return
  event.preventDefault()
  set(model.value + (event.key === 'ArrowLeft' ? -KEY_STEP : KEY_STEP))
}
</script>

<template>
  <div class="pointer-events-none absolute inset-0">
    <span class="absolute top-2.5 start-2.5 rounded bg-black/70 px-2 py-0.5 text-[12px] text-white">{{ t('bench.before') }}</span>
    <span class="absolute top-2.5 end-2.5 rounded bg-black/70 px-2 py-0.5 text-[12px] text-white">{{ t('bench.after') }}</span>
  </div>
  <div
    ref="line"
    class="absolute inset-y-0 -ms-4 grid w-8 cursor-ew-resize touch-none place-items-center"
    :style="{ left: `${model * 100}%` }"
    role="slider"
    tabindex="0"
    :aria-label="t('bench.divider')"
    aria-valuemin="0"
    aria-valuemax="100"
    :aria-valuenow="Math.round(model * 100)"
    @pointerdown="onPointerDown"
    @pointermove="onPointerMove"
    @keydown="onKey"
    @click.stop
  >
    <span class="absolute inset-y-0 w-0.5 bg-white" aria-hidden="true"></span>
    <span class="relative grid size-7 place-items-center rounded-full bg-white text-[#222] shadow" aria-hidden="true"><ChevronsLeftRight :size="16" /></span>
  </div>
</template>
