// Moving, sizing, cropping and turning on the stage. Moveable has the handles; where things come to rest is core's.
import Moveable from 'moveable'
import { nextTick, onBeforeUnmount, onMounted, shallowRef, watch, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { placeAlike, siblingsOf } from '../../../core/show/all-scenes.ts'
import { sizeOf } from '../../../core/layout/arrange/arrange-scene.ts'
import { cropByEdges } from '../../../core/layout/crop-drag.ts'
import type { Rect } from '../../../core/layout/fit.ts'
import { boxRound } from '../../../core/layout/placement.ts'
import { snapEdges, snapMove, type SnapGuide } from '../../../core/layout/snap.ts'
import { placeLayer, updateLayer } from '../../../core/show/edits.ts'
import { moveLayersBy } from '../../../core/show/layer-set-edits.ts'
import type { Layer, Placement } from '../../../core/show/show.ts'
import { useEngineStore } from '../../engine/engine.store.ts'
import { useShowStore } from '../../show/show.store.ts'
import { useClipboard } from '../use-clipboard.ts'

/** So near a line, in pixels of the screen, what is moved comes to rest on it. */
const REACH_PX = 6
const LEAST_PX = 8
/** A turn comes to rest on multiples of this, when it is so near. */
const TURN_STEP = 15
const TURN_REACH = 3

interface Parts {
  readonly area: Readonly<Ref<HTMLElement | null>>
  readonly box: Readonly<Ref<HTMLElement | null>>
  readonly zoom: () => number
  readonly isEditable: Readonly<Ref<boolean>>
}

export function useStageGestures({ area, box, zoom, isEditable }: Parts) {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const { duplicate } = useClipboard()
  const guides = shallowRef<readonly SnapGuide[]>([])
  let moveable: Moveable | null = null
  let gesture = 0
  /** What was selected when the gesture began. */
  let from: Layer | null = null

  const isMany = () => showStore.selectedLayers.length > 1
  const toCanvas = (px: number) => px / zoom()

  function place(part: Partial<Placement>): void {
    const { sceneId, layer } = showStore
    if (sceneId === null || layer === null) return
    showStore.edit(t('edits.placement', { name: layer.name }), (show) => placeLayer(show, sceneId, layer.id, part), `placement-${layer.id}-${gesture}`)
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

  /** Boxes that what is moved may come to rest on. */
  function others(): Rect[] {
    return (showStore.scene?.layers ?? []).flatMap(({ id, visible, placement }) =>
      visible && !showStore.selectedIds.includes(id) ? [boxRound([placement])!] : [],
    )
  }

  function onDrag(left: number, top: number, isFree: boolean): void {
    const { layer, show } = showStore
    const around = boxRound(showStore.selectedLayers.map(({ placement }) => placement))
    if (layer === null || show === null || around === null) return
    const [x, y] = [toCanvas(left), toCanvas(top)]
    // Moveable tells where the box is; a turned one is snapped by the upright box round it.
    const own = isMany() ? around : layer.placement
    const moved = { ...around, x: around.x + x - own.x, y: around.y + y - own.y }
    const snapped = isFree ? { dx: 0, dy: 0, guides: [] } : snapMove(moved, others(), show.canvas, toCanvas(REACH_PX))
    guides.value = snapped.guides
    const [toX, toY] = [tidy(x + snapped.dx, snapped.dx), tidy(y + snapped.dy, snapped.dy)]
    if (isMany()) moveBy(toX - around.x, toY - around.y)
    else place({ x: toX, y: toY })
  }

  /** Whole pixels, but for places that lines have between them. */
  function tidy(value: number, snap: number): number {
    return snap === 0 ? Math.round(value) : Math.round(value * 100) / 100
  }

  function onResize(width: number, height: number, left: number, top: number, direction: readonly number[], isCrop: boolean, isFree: boolean): void {
    const { layer, show, sceneId } = showStore
    if (layer === null || show === null || sceneId === null || from === null) return
    const [towardsX = 0, towardsY = 0] = direction
    if (isCrop && canCrop(from)) {
      const [dx, dy] = [toCanvas(width) - from.placement.width, toCanvas(height) - from.placement.height]
      const moves = { left: towardsX < 0 ? -dx : 0, right: towardsX > 0 ? dx : 0, top: towardsY < 0 ? -dy : 0, bottom: towardsY > 0 ? dy : 0 }
      const cropped = cropByEdges(from, sizeOf(show, from, { infos: engine.infos, heads: new Map() }), moves)
      showStore.edit(
        t('edits.crop', { name: layer.name }),
        (current) => updateLayer(current, sceneId, layer.id, (one) => ({ ...one, ...cropped })),
        `crop-${layer.id}-${gesture}`,
      )
      return
    }
    const next = { x: toCanvas(left), y: toCanvas(top), width: Math.max(LEAST_PX, toCanvas(width)), height: Math.max(LEAST_PX, toCanvas(height)) }
    place(isFree || from.placement.angleDeg !== 0 ? rounded(next) : snappedSize(next, sign(towardsX), sign(towardsY)))
  }

  function snappedSize(next: Rect, towardsX: -1 | 0 | 1, towardsY: -1 | 0 | 1): Rect {
    const snapped = snapEdges(next, { x: towardsX, y: towardsY }, others(), showStore.show!.canvas, toCanvas(REACH_PX))
    const keeps = moveable?.keepRatio === true
    let [growX, growY] = [snapped.dx * towardsX, snapped.dy * towardsY]
    if (keeps && towardsX !== 0 && towardsY !== 0) {
      // One edge comes to rest; the other follows.
      const ratio = next.width / next.height
      if (growX !== 0 && (growY === 0 || Math.abs(growX) <= Math.abs(growY * ratio))) growY = growX / ratio
      else growX = growY * ratio
    }
    guides.value = snapped.guides
    const { x, y, width, height } = next
    return rounded({
      x: towardsX < 0 ? x - growX : x,
      y: towardsY < 0 ? y - growY : y,
      width: Math.max(LEAST_PX, width + growX),
      height: Math.max(LEAST_PX, height + growY),
    })
  }

  function rounded({ x, y, width, height }: Rect): Rect {
    const [left, top] = [Math.round(x), Math.round(y)]
    return { x: left, y: top, width: Math.max(1, Math.round(x + width) - left), height: Math.max(1, Math.round(y + height) - top) }
  }

  /** Whether a layer shows a picture of which a part can be taken off. */
  function canCrop(layer: Layer): boolean {
    if (layer.kind === 'scene' || layer.kind === 'group') return true
    return layer.kind === 'input' && showStore.show?.inputs.find(({ id }) => id === layer.inputId)?.kind !== 'colour'
  }

  function start(): void {
    gesture += 1
    from = showStore.layer
  }

  function startMoveable(): void {
    if (area.value === null || box.value === null) return
    moveable = new Moveable(area.value, {
      target: box.value,
      origin: false,
      draggable: true,
      resizable: true,
      rotatable: true,
      snappable: false,
      keepRatio: false,
      rotationPosition: 'top',
    })
    const end = () => {
      guides.value = []
      offerElsewhere()
    }
    moveable
      .on('dragStart', ({ inputEvent }: { inputEvent?: MouseEvent }) => {
        start()
        // Copies are dragged away; what was there stays.
        if (inputEvent?.altKey === true) duplicate('own')
      })
      .on('drag', ({ left, top, inputEvent }) => onDrag(left, top, isFreeOf(inputEvent)))
      .on('dragEnd', end)
      .on('resizeStart', ({ direction, inputEvent }) => {
        start()
        const isCorner = direction[0] !== 0 && direction[1] !== 0
        const isCrop = (inputEvent as MouseEvent | undefined)?.altKey === true
        // Corners of a picture keep its proportions, and those of other boxes don't; Shift turns that round.
        if (moveable !== null)
          moveable.keepRatio = !isCrop && isCorner && (from !== null && canCrop(from)) !== ((inputEvent as MouseEvent | undefined)?.shiftKey === true)
      })
      .on('resize', ({ width, height, drag, direction, inputEvent }) =>
        onResize(width, height, drag.left, drag.top, direction, (inputEvent as MouseEvent | undefined)?.altKey === true, isFreeOf(inputEvent)),
      )
      .on('resizeEnd', end)
      .on('rotateStart', start)
      .on('rotate', ({ rotation }) => place({ angleDeg: turned(rotation) }))
  }

  /** What lay alike in other scenes may come along. */
  function offerElsewhere(): void {
    const { show, sceneId, layer, undoLabel } = showStore
    if (show === null || sceneId === null || layer === null || from === null || layer.id !== from.id || layer.placement === from.placement) return
    const alike = siblingsOf(show, sceneId, from).filter(({ isAlike }) => isAlike)
    if (alike.length === 0) return
    toast(t('layer.alsoThere', { name: layer.name, count: alike.length }, alike.length), {
      action: {
        label: t('layer.moveThere'),
        onClick: () => {
          if (showStore.undoLabel === undoLabel) showStore.edit(t('edits.sameInAll', { name: layer.name }), (current) => placeAlike(current, layer, alike))
        },
      },
    })
  }

  /** Handles follow what changed elsewhere: numbers, undo, another selection, the window's size. */
  async function refresh(): Promise<void> {
    await nextTick()
    if (moveable === null) return
    moveable.draggable = isEditable.value
    moveable.resizable = isEditable.value && !isMany()
    moveable.rotatable = isEditable.value && !isMany()
    moveable.updateRect()
  }

  /** Goes on with a press on a layer that it has just selected. */
  async function dragFrom(event: MouseEvent): Promise<void> {
    await refresh()
    moveable?.dragStart(event)
  }

  onMounted(() => {
    startMoveable()
    void refresh()
  })
  onBeforeUnmount(() => moveable?.destroy())
  watch([() => showStore.selectedLayers, zoom, isEditable], refresh)

  return { guides, place, moveBy, dragFrom }
}

function isFreeOf(event: unknown): boolean {
  const { ctrlKey, metaKey } = (event ?? {}) as Partial<MouseEvent>
  return ctrlKey === true || metaKey === true
}

function sign(value: number): -1 | 0 | 1 {
  return value < 0 ? -1 : value > 0 ? 1 : 0
}

/** An angle between −180 and 180, on a step when it is near one. */
function turned(rotation: number): number {
  const round = (((Math.round(rotation) % 360) + 540) % 360) - 180
  const step = Math.round(round / TURN_STEP) * TURN_STEP
  return Math.abs(step - round) <= TURN_REACH ? step : round
}
