<script setup lang="ts">
// What is selected on the stage, and everything that pointer and keys do with it there.
import { isGroup } from '../../../core/layers/group.ts'
import { isText } from '../../../core/layers/text.ts'
import { computed, ref, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Rect } from '../../../core/box/fit.ts'
import { layerAt } from '../../../core/layout/hit-test.ts'
import { boxRound } from '../../../core/box/placement.ts'
import { toSceneCanvas } from '../../../core/show/group-space.ts'
import type { GroupLayer, Layer, Placement } from '../../../core/show/show.ts'
import ContextMenu from '../../base/ContextMenu.vue'
import { useDecksStore } from '../../decks/decks.store.ts'
import { useShowStore } from '../../show/show.store.ts'
import { useClipboard } from '../use-clipboard.ts'
import { useFocusInspector } from '../use-focus-inspector.ts'
import { useLayerActions } from '../use-layer-actions.ts'
import { useLayerMenu } from '../use-layer-menu.ts'
import { useRemoveLayer } from '../use-remove-layer.ts'
import HandleBox from './HandleBox.vue'
import SnapGuides from './SnapGuides.vue'
import TextInPlace from './TextInPlace.vue'
import { useStageGestures, type Grip } from './use-stage-gestures.ts'

const props = defineProps<{ zoom: number }>()
const { t } = useI18n()
const showStore = useShowStore()
const decks = useDecksStore()
const area = useTemplateRef<HTMLDivElement>('area')
const removeLayer = useRemoveLayer()
const { focusFirst } = useFocusInspector()
const actions = useLayerMenu()
const { order } = useLayerActions()
const { duplicate } = useClipboard()
const menuAt = ref<{ readonly x: number; readonly y: number } | null>(null)
/** The text that is written in place. */
const writingId = ref<string | null>(null)
/** A box that is drawn over what is to be selected, in canvas pixels. */
const band = ref<Rect | null>(null)

const layer = computed(() => showStore.stageLayer)
/** Several are moved together; they are sized and turned one by one. */
const isMany = computed(() => showStore.stageSelected.length > 1)
const isHeld = computed(() => !showStore.isEditor || showStore.scene?.locked !== false || showStore.openGroups.some(({ locked }) => locked))
const isEditable = computed(() => showStore.stageSelected.some(({ locked }) => !locked) && !isHeld.value)
const around = computed(() => boxRound(showStore.stageSelected.map(({ placement }) => placement)))
/** Where the group that is worked in shows its layers. */
const openBox = computed(() => {
  const { openGroups, show } = showStore
  const group = openGroups.at(-1)
  return group === undefined || show === null ? null : { name: group.name, placement: toSceneCanvas(group.placement, openGroups.slice(0, -1), show.canvas) }
})
const { guides, place, moveBy, grab } = useStageGestures(() => props.zoom, pointOf)
const writing = computed(() => {
  const found = showStore.list.find(({ id }) => id === writingId.value)
  const placed = showStore.stageLayers.find(({ id }) => id === writingId.value)
  return isText(found) && placed !== undefined ? { layer: found, placement: placed.placement } : null
})
/** The box with the handles: of the one that is selected, or round all of them. */
const selection = computed(() => (isMany.value && around.value !== null ? { ...around.value, angleDeg: 0 } : (layer.value?.placement ?? null)))
const bandStyle = computed(() => (band.value === null ? { display: 'none' } : styleOf({ ...band.value, angleDeg: 0 })))

function styleOf({ x, y, width, height, angleDeg }: Omit<Placement, 'fit'>) {
  const { zoom } = props
  return { left: `${x * zoom}px`, top: `${y * zoom}px`, width: `${width * zoom}px`, height: `${height * zoom}px`, transform: `rotate(${angleDeg}deg)` }
}

/** Where on the canvas the pointer is. */
function pointOf(event: MouseEvent): readonly [x: number, y: number] {
  const bounds = area.value!.getBoundingClientRect()
  return [(event.clientX - bounds.left) / props.zoom, (event.clientY - bounds.top) / props.zoom]
}

/** The frontmost layer under the pointer: of the group that is worked in, else of the scene. */
function hitAt(event: MouseEvent): Layer | null {
  const { show, scene, openGroups, stageLayers } = showStore
  if (show === null || scene === null) return null
  const point = pointOf(event)
  return (openGroups.length === 0 ? null : layerAt(stageLayers, show.canvas, ...point)) ?? layerAt(scene.layers, show.canvas, ...point)
}

function onMouseDown(event: MouseEvent): void {
  if (event.button !== 0 || area.value === null || showStore.scene === null) return
  // What stands over the stage sees to itself: a text that is written, a menu.
  if (!(event.target instanceof Element) || event.target.closest('[data-over-stage]') !== null) return
  // From here the arrow keys move what was clicked.
  area.value.focus({ preventScroll: true })
  const hit = hitAt(event)
  if (hit !== null && (event.ctrlKey || event.metaKey || event.shiftKey)) {
    // What was pressed joins when the pointer is let go where it was; dragged, it draws a box.
    return drawBand(event, () => showStore.toggleLayer(hit.id), showStore.selectedIds)
  }
  if (isInSelection(event) && isEditable.value) return grab(event, { kind: 'move' })
  if (hit === null || hit.locked || isHeld.value) return drawBand(event, () => showStore.selectLayer(hit?.id ?? null), [])
  showStore.selectLayer(hit.id)
  grab(event, { kind: 'move' })
}

/** Whether the pointer is on what is selected: on the frontmost layer there, or inside the box round several. */
function isInSelection(event: MouseEvent): boolean {
  const hit = hitAt(event)
  if (hit !== null && showStore.selectedIds.includes(hit.id)) return true
  const [x, y] = pointOf(event)
  const box = isMany.value ? around.value : null
  return box !== null && x >= box.x && y >= box.y && x <= box.x + box.width && y <= box.y + box.height
}

/** Selects by a box; a press that goes nowhere does `onPress` in its place. */
function drawBand(event: MouseEvent, onPress: () => void, kept: readonly string[]): void {
  const [fromX, fromY] = pointOf(event)
  const onMove = (moved: MouseEvent) => {
    const [x, y] = pointOf(moved)
    if (band.value === null && Math.hypot(x - fromX, y - fromY) * props.zoom < 4) return
    band.value = { x: Math.min(fromX, x), y: Math.min(fromY, y), width: Math.abs(x - fromX), height: Math.abs(y - fromY) }
  }
  const onUp = () => {
    window.removeEventListener('mousemove', onMove)
    window.removeEventListener('mouseup', onUp)
    const drawn = band.value
    band.value = null
    if (drawn === null) return onPress()
    const inside = showStore.stageLayers.filter((one) => one.visible && !one.locked && meets(boxRound([one.placement])!, drawn))
    showStore.selectLayers([...kept.filter((id) => !inside.some((one) => one.id === id)), ...inside.map(({ id }) => id)])
  }
  window.addEventListener('mousemove', onMove)
  window.addEventListener('mouseup', onUp)
}

function meets(one: Rect, other: Rect): boolean {
  return one.x < other.x + other.width && other.x < one.x + one.width && one.y < other.y + other.height && other.y < one.y + one.height
}

function onGrab(event: MouseEvent, grip: Grip): void {
  area.value?.focus({ preventScroll: true })
  grab(event, grip)
}

function onContextMenu(event: MouseEvent): void {
  if (showStore.scene === null) return
  const hit = hitAt(event)
  if (hit !== null && !showStore.selectedIds.includes(hit.id)) showStore.selectLayer(hit.id)
  if (hit === null) showStore.selectLayer(null)
  menuAt.value = { x: event.clientX, y: event.clientY }
}

function onDoubleClick(event: MouseEvent): void {
  const hit = hitAt(event)
  if (isGroup(hit)) openAt(hit, event)
  else if (isText(hit) && !hit.locked && !isHeld.value) writingId.value = hit.id
}

/** Opens a group with the layer under the pointer selected. */
function openAt(group: GroupLayer, event: MouseEvent): void {
  showStore.openGroup(group, null)
  const inner = layerAt(showStore.stageLayers, showStore.show!.canvas, ...pointOf(event))
  showStore.openGroup(group, inner?.id)
}

function onKey(event: KeyboardEvent): void {
  const current = layer.value
  const isControl = event.ctrlKey || event.metaKey
  if (event.key === 'a' && isControl) {
    event.preventDefault()
    return showStore.selectLayers(showStore.list.filter(({ locked }) => !locked).map(({ id }) => id))
  }
  if (event.key === 'Escape') return void (showStore.leaveGroup() || showStore.selectLayer(null))
  if (current === null || event.altKey) return
  if (isControl) {
    if (event.key !== 'd') return
    event.preventDefault()
    return duplicate('own')
  }
  if (event.key === 'Enter' && event.shiftKey && (isGroup(current) || (isText(current) && !current.locked))) {
    event.preventDefault()
    if (isGroup(current)) showStore.openGroup(current)
    else writingId.value = current.id
    return
  }
  if (event.key === 'Enter') return focusFirst()
  if (event.key === 'ContextMenu' || (event.key === 'F10' && event.shiftKey)) return openMenuBySelection(event)
  if (!isEditable.value) return
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault()
    return removeLayer(showStore.stageSelected.filter(({ locked }) => !locked).map(({ id }) => id))
  }
  // Where there are slides, these keys turn them.
  if ((event.key === 'PageUp' || event.key === 'PageDown') && decks.current === null) {
    event.preventDefault()
    return order(event.key === 'PageUp' ? 'forward' : 'backward')
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

function openMenuBySelection(event: KeyboardEvent): void {
  event.preventDefault()
  const bounds = area.value?.querySelector('[data-testid="selection"]')?.getBoundingClientRect()
  if (bounds !== undefined) menuAt.value = { x: bounds.left + bounds.width / 2, y: bounds.top + bounds.height / 2 }
}
</script>

<template>
  <div
    ref="area"
    class="stage-handles absolute inset-0 outline-offset-4"
    tabindex="0"
    role="application"
    :aria-label="layer === null ? t('build.stageEmpty') : t('build.stageKeys', { name: isMany ? t('layer.many', showStore.selectedIds.length) : layer.name })"
    @mousedown="onMouseDown"
    @dblclick="onDoubleClick"
    @contextmenu.prevent="onContextMenu"
    @keydown.self="onKey"
  >
    <template v-if="isMany">
      <div
        v-for="each in showStore.stageSelected"
        :key="each.id"
        data-selected
        class="pointer-events-none absolute outline-1 outline-[#e2b24c]"
        :style="styleOf(each.placement)"
      ></div>
    </template>
    <div v-if="openBox" class="group-box pointer-events-none absolute" :style="styleOf(openBox.placement)" data-testid="open-group">
      <span dir="auto" class="absolute top-0 start-0 bg-black/60 px-1 text-[9.5px] leading-3 text-white">{{ openBox.name }}</span>
    </div>
    <HandleBox v-if="selection" :placement="selection" :zoom="zoom" :can-move="isEditable" :can-size="isEditable && !isMany" @grab="onGrab" />
    <SnapGuides :guides="guides" :zoom="zoom" />
    <div class="pointer-events-none absolute border border-[#e2b24c] bg-[#e2b24c26]" :style="bandStyle" data-testid="band"></div>
    <TextInPlace v-if="writing" :key="writing.layer.id" :layer="writing.layer" :placement="writing.placement" :zoom="zoom" @done="writingId = null" />
    <ContextMenu :actions="actions" :label="t('layer.menu')" :at="menuAt" @close="menuAt = null" />
  </div>
</template>

<style scoped>
/* Light on dark and dark on light: seen on any picture. */
.group-box {
  border: 1px dashed #e2b24cc0;
  outline: 1px dashed #00000080;
  outline-offset: -2px;
}
</style>
