// Moving, sizing, cropping and turning on the stage with the pointer. Where things come to rest, and what a dragged edge does, is core's.
import { layerKindOf } from '../../../core/layers/index.ts'
import { onScopeDispose, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { TIME_TO_ACT_MS } from '../../shell/announce.ts'
import { sizeOf } from '../../../core/layout/arrange/arrange-scene.ts'
import { cropByEdges } from '../../../core/layout/crop-drag.ts'
import { boxRound } from '../../../core/box/placement.ts'
import { resized, turnedTo, type Towards } from '../../../core/layout/resize.ts'
import { snapEdges, snapMove, type SnapGuide } from '../../../core/layout/snap.ts'
import type { Rect } from '../../../core/box/fit.ts'
import { placeAlike, siblingsOf } from '../../../core/show/all-scenes.ts'
import { placeLayer, updateLayer } from '../../../core/show/edits.ts'
import { moveLayersBy } from '../../../core/show/layer-set-edits.ts'
import type { Layer, Placement } from '../../../core/show/show.ts'
import { useEngineStore } from '../../engine/engine.store.ts'
import { useShowStore } from '../../show/show.store.ts'
import { useClipboard } from '../use-clipboard.ts'
import { useSafeLines } from './use-safe-lines.ts'

/** So near a line, in pixels of the screen, what is moved comes to rest on it. */
const REACH_PX = 6
const LEAST_PX = 8
/** A press that goes no farther is no drag. */
const STILL_PX = 3

/** What the pointer has hold of. */
export type Grip = { readonly kind: 'move' } | { readonly kind: 'size'; readonly towards: Towards } | { readonly kind: 'turn' }

/** `zoom`: pixels of the screen for one of the canvas. `pointOf`: where on the canvas a pointer is. */
export function useStageGestures(zoom: () => number, pointOf: (event: MouseEvent) => readonly [x: number, y: number]) {
  const { t } = useI18n()
  const showStore = useShowStore()
  const engine = useEngineStore()
  const { duplicate } = useClipboard()
  const { setMoving } = useSafeLines()
  const guides = shallowRef<readonly SnapGuide[]>([])
  let gesture = 0
  let stop: (() => void) | null = null

  const isMany = () => showStore.stageSelected.length > 1
  const reach = () => REACH_PX / zoom()

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
    return showStore.stageLayers.flatMap(({ id, visible, placement }) => (visible && !showStore.selectedIds.includes(id) ? [boxRound([placement])!] : []))
  }

  /** Follows the pointer until it is let go. */
  function grab(event: MouseEvent, grip: Grip): void {
    stop?.()
    event.preventDefault()
    const [startX, startY] = pointOf(event)
    let from: Layer | null = null
    let around: Rect | null = null
    const begin = () => {
      gesture += 1
      setMoving(true)
      // Copies are dragged away; what was there stays.
      if (grip.kind === 'move' && event.altKey) duplicate('own')
      from = showStore.stageLayer
      around = boxRound(showStore.stageSelected.map(({ placement }) => placement))
    }
    const onMove = (moved: MouseEvent) => {
      const [x, y] = pointOf(moved)
      const [dx, dy] = [x - startX, y - startY]
      if (from === null) {
        if (Math.hypot(dx, dy) * zoom() < STILL_PX) return
        begin()
      }
      if (from === null || around === null) return
      const isFree = moved.ctrlKey || moved.metaKey
      if (grip.kind === 'move') onDrag(from, around, dx, dy, isFree)
      else if (grip.kind === 'turn') place({ angleDeg: turnedTo(from.placement, x, y, isFree) })
      else if (moved.altKey && canCrop(from)) onCrop(from, grip.towards, dx, dy)
      else onSize(from, grip.towards, dx, dy, isFree, moved.shiftKey)
    }
    const onUp = () => {
      stop?.()
      if (from !== null) offerElsewhere(from)
    }
    window.addEventListener('mousemove', onMove)
    window.addEventListener('mouseup', onUp)
    stop = () => {
      window.removeEventListener('mousemove', onMove)
      window.removeEventListener('mouseup', onUp)
      guides.value = []
      setMoving(false)
      stop = null
    }
  }

  function onDrag(from: Layer, around: Rect, dx: number, dy: number, isFree: boolean): void {
    const snapped = isFree
      ? { dx: 0, dy: 0, guides: [] }
      : snapMove({ ...around, x: around.x + dx, y: around.y + dy }, others(), showStore.show!.canvas, reach())
    guides.value = snapped.guides
    const now = boxRound(showStore.stageSelected.map(({ placement }) => placement))
    if (now === null) return
    if (isMany()) return moveBy(tidy(around.x + dx, snapped.dx) - now.x, tidy(around.y + dy, snapped.dy) - now.y)
    place({ x: tidy(from.placement.x + dx, snapped.dx), y: tidy(from.placement.y + dy, snapped.dy) })
  }

  function onSize(from: Layer, towards: Towards, dx: number, dy: number, isFree: boolean, isShift: boolean): void {
    // Corners of a picture keep its proportions, and those of other boxes don't; Shift turns that round.
    const keeps = towards.x !== 0 && towards.y !== 0 && canCrop(from) !== isShift
    const sized = resized(from.placement, towards, dx, dy, keeps, LEAST_PX)
    const isUpright = from.placement.angleDeg === 0
    const snapped = isFree || !isUpright ? { dx: 0, dy: 0, guides: [] } : snapEdges(sized, towards, others(), showStore.show!.canvas, reach())
    guides.value = snapped.guides
    // What an edge still lacks to its line is dragged too.
    const last = snapped.dx === 0 && snapped.dy === 0 ? sized : resized(sized, towards, snapped.dx, snapped.dy, keeps, LEAST_PX)
    place(isUpright ? { ...last, ...rounded(last) } : last)
  }

  function onCrop(from: Layer, towards: Towards, dx: number, dy: number): void {
    const { show, sceneId } = showStore
    if (show === null || sceneId === null) return
    // Along the layer's own directions.
    const angle = (-from.placement.angleDeg * Math.PI) / 180
    const [alongX, alongY] = [dx * Math.cos(angle) - dy * Math.sin(angle), dx * Math.sin(angle) + dy * Math.cos(angle)]
    const moves = {
      left: towards.x < 0 ? alongX : 0,
      right: towards.x > 0 ? alongX : 0,
      top: towards.y < 0 ? alongY : 0,
      bottom: towards.y > 0 ? alongY : 0,
    }
    const cropped = cropByEdges(from, sizeOf(show, from, { infos: engine.infos, heads: new Map() }), moves)
    showStore.edit(
      t('edits.crop', { name: from.name }),
      (current) =>
        placeLayer(
          updateLayer(current, sceneId, from.id, (one) => ({ ...one, crop: cropped.crop })),
          sceneId,
          from.id,
          cropped.placement,
        ),
      `crop-${from.id}-${gesture}`,
    )
  }

  /** Whether a layer shows a picture of which a part can be taken off. */
  function canCrop(layer: Layer): boolean {
    return layerKindOf(layer).hasPicture(layer, showStore.show!)
  }

  /** What lay alike in other scenes may come along. */
  function offerElsewhere(from: Layer): void {
    const { show, sceneId, layer, undoLabel, openGroups } = showStore
    if (show === null || sceneId === null || layer === null || openGroups.length > 0 || layer.id !== from.id || layer.placement === from.placement) return
    const alike = siblingsOf(show, sceneId, from).filter(({ isAlike }) => isAlike)
    if (alike.length === 0) return
    toast(t('layer.alsoThere', { name: layer.name, count: alike.length }, alike.length), {
      duration: TIME_TO_ACT_MS,
      action: {
        label: t('layer.moveThere'),
        onClick: () => {
          if (showStore.undoLabel === undoLabel) showStore.edit(t('edits.sameInAll', { name: layer.name }), (current) => placeAlike(current, layer, alike))
        },
      },
    })
  }

  onScopeDispose(() => stop?.())

  return { guides, place, moveBy, grab }
}

/** Whole pixels, but for places that lines have between them. */
function tidy(value: number, snap: number): number {
  return snap === 0 ? Math.round(value) : Math.round((value + snap) * 100) / 100
}

function rounded({ x, y, width, height }: Rect): Rect {
  const [left, top] = [Math.round(x), Math.round(y)]
  return { x: left, y: top, width: Math.max(1, Math.round(x + width) - left), height: Math.max(1, Math.round(y + height) - top) }
}
