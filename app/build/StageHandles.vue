<script setup lang="ts">
// Selecting, moving, sizing and turning on the stage. Moveable does the handles and the snapping.
import Moveable from 'moveable'
import { computed, nextTick, onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { layerAt } from '../../core/layout/hit-test.ts'
import { placeLayer } from '../../core/show/edits.ts'
import type { Placement } from '../../core/show/show.ts'
import { useShowStore } from '../show/show.store.ts'
import { useFocusInspector } from './use-focus-inspector.ts'
import { useRemoveLayer } from './use-remove-layer.ts'

const props = defineProps<{ zoom: number }>()
const { t } = useI18n()
const showStore = useShowStore()
const area = useTemplateRef<HTMLDivElement>('area')
const box = useTemplateRef<HTMLDivElement>('box')
const SNAP_PX = 6
const removeLayer = useRemoveLayer()
const { focusFirst } = useFocusInspector()
let moveable: Moveable | null = null
let gesture = 0

const layer = computed(() => showStore.layer)
const isEditable = computed(() => layer.value !== null && !layer.value.locked && showStore.isEditor)
const boxStyle = computed(() => {
  const placement = layer.value?.placement
  if (placement === undefined) return { display: 'none' }
  return {
    left: `${placement.x * props.zoom}px`,
    top: `${placement.y * props.zoom}px`,
    width: `${placement.width * props.zoom}px`,
    height: `${placement.height * props.zoom}px`,
    transform: `rotate(${placement.angleDeg}deg)`,
  }
})

function place(part: Partial<Placement>): void {
  const { sceneId, layerId } = showStore
  if (sceneId === null || layerId === null) return
  showStore.edit(t('edits.placement', { name: layer.value?.name ?? '' }), (show) => placeLayer(show, sceneId, layerId, part), `placement-${layerId}-${gesture}`)
}

const toCanvas = (px: number) => Math.round(px / props.zoom)

function startMoveable(): void {
  if (area.value === null || box.value === null) return
  moveable = new Moveable(area.value, {
    target: box.value,
    origin: false,
    draggable: true,
    resizable: true,
    rotatable: true,
    snappable: true,
    snapThreshold: SNAP_PX,
    isDisplaySnapDigit: false,
    keepRatio: false,
    rotationPosition: 'top',
  })
  moveable
    .on('dragStart', () => (gesture += 1))
    .on('drag', ({ left, top }) => place({ x: toCanvas(left), y: toCanvas(top) }))
    .on('resizeStart', () => (gesture += 1))
    .on('resize', ({ width, height, drag }) =>
      place({ x: toCanvas(drag.left), y: toCanvas(drag.top), width: Math.max(8, toCanvas(width)), height: Math.max(8, toCanvas(height)) }),
    )
    .on('rotateStart', () => (gesture += 1))
    .on('rotate', ({ rotation }) => place({ angleDeg: normalise(Math.round(rotation)) }))
}

function normalise(angleDeg: number): number {
  const turned = ((angleDeg % 360) + 360) % 360
  return turned > 180 ? turned - 360 : turned
}

/** Handles follow what changed elsewhere: numbers, undo, another selection, the window's size. */
async function refresh(): Promise<void> {
  await nextTick()
  if (moveable === null || area.value === null) return
  const { clientWidth: width, clientHeight: height } = area.value
  moveable.verticalGuidelines = [0, width / 2, width]
  moveable.horizontalGuidelines = [0, height / 2, height]
  moveable.draggable = isEditable.value
  moveable.resizable = isEditable.value
  moveable.rotatable = isEditable.value
  moveable.updateRect()
}

async function onMouseDown(event: MouseEvent): Promise<void> {
  if (event.button !== 0 || area.value === null || showStore.scene === null) return
  if (event.target !== area.value && event.target !== box.value) return
  // From here the arrow keys move what was clicked.
  area.value.focus({ preventScroll: true })
  const bounds = area.value.getBoundingClientRect()
  const hit = layerAt(showStore.scene, showStore.show!.canvas, (event.clientX - bounds.left) / props.zoom, (event.clientY - bounds.top) / props.zoom)
  if (event.target === box.value && hit?.id === layer.value?.id) return
  showStore.selectLayer(hit?.id ?? null)
  if (hit === null || hit.locked) return
  await refresh()
  moveable?.dragStart(event)
}

function onKey(event: KeyboardEvent): void {
  const current = layer.value
  if (current === null || event.altKey || event.ctrlKey || event.metaKey) return
  if (event.key === 'Enter') return focusFirst()
  if (event.key === 'Escape') return showStore.selectLayer(null)
  if (!isEditable.value) return
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault()
    return removeLayer(current.id)
  }
  const by = event.shiftKey ? 10 : 1
  const moves: Readonly<Record<string, Partial<Placement>>> = {
    ArrowLeft: { x: current.placement.x - by },
    ArrowRight: { x: current.placement.x + by },
    ArrowUp: { y: current.placement.y - by },
    ArrowDown: { y: current.placement.y + by },
  }
  const move = moves[event.key]
  if (move === undefined) return
  event.preventDefault()
  place(move)
}

onMounted(() => {
  startMoveable()
  void refresh()
})
onBeforeUnmount(() => moveable?.destroy())
watch([layer, () => props.zoom, isEditable], refresh)
</script>

<template>
  <div
    ref="area"
    class="stage-handles absolute inset-0 outline-offset-4"
    :class="layer === null ? 'is-empty' : ''"
    tabindex="0"
    role="application"
    :aria-label="layer === null ? t('build.stageEmpty') : t('build.stageKeys', { name: layer.name })"
    @mousedown="onMouseDown"
    @keydown.self="onKey"
  >
    <div ref="box" class="absolute" :style="boxStyle" :class="layer?.locked ? 'outline-1 outline-dashed outline-[#e0b04b]' : ''"></div>
  </div>
</template>

<style>
.stage-handles.is-empty .moveable-control-box {
  display: none !important;
}
.stage-handles .moveable-control-box {
  --moveable-color: #e2b24c;
}
.stage-handles .moveable-control {
  width: 10px !important;
  height: 10px !important;
  margin-top: -5px !important;
  margin-left: -5px !important;
  border-radius: 1px !important;
  border: 1.5px solid #a87823 !important;
  background: #fff !important;
}
.stage-handles .moveable-rotation-control {
  border-radius: 10px !important;
}
.stage-handles .moveable-guideline.moveable-bold {
  background: #5ad1a8 !important;
}
</style>
