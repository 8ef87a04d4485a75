<script setup lang="ts">
// Selecting, moving, sizing and turning on the stage. Moveable does the handles and the snapping.
import Moveable from 'moveable'
import { computed, nextTick, onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { layerAt } from '../../core/layout/hit-test.ts'
import { boxRound } from '../../core/layout/placement.ts'
import { placeLayer } from '../../core/show/edits.ts'
import { moveLayersBy } from '../../core/show/layer-set-edits.ts'
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
/** Several are moved together; they are sized and turned one by one. */
const isMany = computed(() => showStore.selectedLayers.length > 1)
const isEditable = computed(() => showStore.selectedLayers.some(({ locked }) => !locked) && showStore.isEditor)
const around = computed(() => boxRound(showStore.selectedLayers.map(({ placement }) => placement)))
const boxStyle = computed(() => {
  if (isMany.value && around.value !== null) return styleOf({ ...around.value, angleDeg: 0 })
  return layer.value === null ? { display: 'none' } : styleOf(layer.value.placement)
})

function styleOf({ x, y, width, height, angleDeg }: Omit<Placement, 'fit'>) {
  const { zoom } = props
  return { left: `${x * zoom}px`, top: `${y * zoom}px`, width: `${width * zoom}px`, height: `${height * zoom}px`, transform: `rotate(${angleDeg}deg)` }
}

function place(part: Partial<Placement>): void {
  const { sceneId, layerId } = showStore
  if (sceneId === null || layerId === null) return
  showStore.edit(t('edits.placement', { name: layer.value?.name ?? '' }), (show) => placeLayer(show, sceneId, layerId, part), `placement-${layerId}-${gesture}`)
}

/** Moves all that are selected, by canvas pixels. */
function moveBy(dx: number, dy: number): void {
  const { sceneId, selectedIds } = showStore
  if (sceneId === null) return
  showStore.edit(
    t('edits.placement', { name: t('layer.many', selectedIds.length) }),
    (show) => moveLayersBy(show, sceneId, selectedIds, dx, dy),
    `move-${gesture}`,
  )
}

function onDrag(left: number, top: number): void {
  if (!isMany.value) place({ x: toCanvas(left), y: toCanvas(top) })
  else if (around.value !== null) moveBy(toCanvas(left) - Math.round(around.value.x), toCanvas(top) - Math.round(around.value.y))
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
    .on('drag', ({ left, top }) => onDrag(left, top))
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
  moveable.resizable = isEditable.value && !isMany.value
  moveable.rotatable = isEditable.value && !isMany.value
  moveable.updateRect()
}

async function onMouseDown(event: MouseEvent): Promise<void> {
  if (event.button !== 0 || area.value === null || showStore.scene === null) return
  if (event.target !== area.value && event.target !== box.value) return
  // From here the arrow keys move what was clicked.
  area.value.focus({ preventScroll: true })
  const bounds = area.value.getBoundingClientRect()
  const hit = layerAt(showStore.scene, showStore.show!.canvas, (event.clientX - bounds.left) / props.zoom, (event.clientY - bounds.top) / props.zoom)
  if (hit !== null && (event.shiftKey || event.ctrlKey || event.metaKey)) return showStore.toggleLayer(hit.id)
  if (event.target === box.value && hit !== null && showStore.selectedIds.includes(hit.id)) return
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
    return removeLayer(showStore.selectedLayers.filter(({ locked }) => !locked).map(({ id }) => id))
  }
  const by = event.shiftKey ? 10 : 1
  const ways: Readonly<Record<string, readonly [dx: number, dy: number]>> = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }
  const way = ways[event.key]
  if (way === undefined) return
  event.preventDefault()
  const { x, y } = current.placement
  if (isMany.value) moveBy(...way)
  else place({ x: x + way[0], y: y + way[1] })
}

onMounted(() => {
  startMoveable()
  void refresh()
})
onBeforeUnmount(() => moveable?.destroy())
watch([() => showStore.selectedLayers, () => props.zoom, isEditable], refresh)
</script>

<template>
  <div
    ref="area"
    class="stage-handles absolute inset-0 outline-offset-4"
    :class="layer === null ? 'is-empty' : ''"
    tabindex="0"
    role="application"
    :aria-label="layer === null ? t('build.stageEmpty') : t('build.stageKeys', { name: isMany ? t('layer.many', showStore.selectedIds.length) : layer.name })"
    @mousedown="onMouseDown"
    @keydown.self="onKey"
  >
    <template v-if="isMany">
      <div
        v-for="each in showStore.selectedLayers"
        :key="each.id"
        class="pointer-events-none absolute outline-1 outline-[#e2b24c]"
        :style="styleOf(each.placement)"
      ></div>
    </template>
    <div ref="box" class="absolute" :style="boxStyle" :class="layer?.locked && !isMany ? 'outline-1 outline-dashed outline-[#e0b04b]' : ''"></div>
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
