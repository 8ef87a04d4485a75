<script setup lang="ts">
// The edge of a panel beside the picture, placed by who uses it: dragged, or moved with the arrow keys; a double click brings the default back.
const props = defineProps<{
  label: string
  widthPx: number
  min: number
  max: number
  /** The side of the panel that the edge is at. */
  side: 'start' | 'end'
}>()
const emit = defineEmits<{ 'update:widthPx': [value: number]; reset: [] }>()
const STEP_PX = 16

function set(widthPx: number): void {
  emit('update:widthPx', Math.round(Math.min(props.max, Math.max(props.min, widthPx))))
}

/** Whether moving right makes the panel wider, in the direction of reading of the page. */
function growth(target: Element): 1 | -1 {
  const isRtl = getComputedStyle(target).direction === 'rtl'
  return (props.side === 'end') !== isRtl ? 1 : -1
}

function drag(event: PointerEvent): void {
  if (event.button !== 0) return
  const handle = event.currentTarget as HTMLElement
  const [startX, startPx, by] = [event.clientX, props.widthPx, growth(handle)]
  handle.setPointerCapture(event.pointerId)
  const onMove = (move: PointerEvent) => set(startPx + (move.clientX - startX) * by)
  const done = () => {
    handle.removeEventListener('pointermove', onMove)
    for (const type of ['pointerup', 'pointercancel', 'lostpointercapture']) handle.removeEventListener(type, done)
  }
  handle.addEventListener('pointermove', onMove)
  for (const type of ['pointerup', 'pointercancel', 'lostpointercapture']) handle.addEventListener(type, done)
}

function onKey(event: KeyboardEvent): void {
  const by = event.key === 'ArrowRight' ? STEP_PX : event.key === 'ArrowLeft' ? -STEP_PX : 0
  if (by !== 0) set(props.widthPx + by * growth(event.currentTarget as Element))
  else if (event.key === 'Home') set(props.min)
  else if (event.key === 'End') set(props.max)
  else return
  event.preventDefault()
}
</script>

<template>
  <div
    role="separator"
    tabindex="0"
    aria-orientation="vertical"
    class="panel-edge"
    :aria-label="label"
    :aria-valuenow="widthPx"
    :aria-valuemin="min"
    :aria-valuemax="max"
    @pointerdown.prevent="drag"
    @dblclick="emit('reset')"
    @keydown="onKey"
  ></div>
</template>

<style scoped>
.panel-edge {
  position: absolute;
  z-index: 15;
  top: 0;
  bottom: 0;
  width: 9px;
  cursor: ew-resize;
  touch-action: none;
}
.panel-edge::after {
  content: '';
  position: absolute;
  inset: 0 4px;
  background: transparent;
  transition: background-color 150ms;
}
.panel-edge:hover::after,
.panel-edge:focus-visible::after {
  background: var(--brass);
}
</style>
