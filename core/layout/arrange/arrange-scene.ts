// Layouts as edits: a scene keeps its layers, and gets them where a layout has them.
import { naturalSizeOf, inputIdOf } from '../../layers/index.ts'
import { PLAIN_FRAME } from '../../box/frame.ts'
import { newShapeLayer } from '../../layers/shape.ts'
import type { SourceInfos } from '../../picture/source.ts'
import { addContents } from '../../show/contents.ts'
import { updateScene } from '../../show/edits.ts'
import type { MakeId } from '../../random/make-id.ts'
import type { Content, Frame, Layer, Scene, Show } from '../../show/show.ts'
import type { Rect } from '../../box/fit.ts'
import { inkOf, newInk, withoutWall, withWall } from '../inside-page.ts'
import type { Cast } from './cast.ts'
import { cropRound, USUAL_HEAD, type Head } from './head.ts'
import { arrange, type Arrangement, type Layout } from './layouts.ts'

/** What is known of the pictures. */
export interface PictureFacts {
  readonly infos: SourceInfos
  /** Heads that were found, by the input's id. */
  readonly heads: ReadonlyMap<string, Head>
}

/** Size of a picture that has not come yet. */
const USUAL_SIZE = { widthPx: 1920, heightPx: 1080 } as const
export const DIVIDER_COLOUR = '#1e5b47'

/** Gives the layers of a cast the places of a layout, and what it needs beside them; what it has no place for is hidden. Others stay. */
export function arrangeScene(
  show: Show,
  sceneId: string,
  layout: Layout,
  cast: Cast,
  facts: PictureFacts,
  names: { readonly divider: string; readonly ink: string },
  makeId: MakeId,
): Show {
  const scene = show.scenes.find(({ id }) => id === sceneId)
  if (scene === undefined) return show
  const layerOf = (id: string) => scene.layers.find((layer) => layer.id === id)
  const presenters = cast.presenters.flatMap((id) => layerOf(id) ?? [])
  const page = cast.page === null ? undefined : layerOf(cast.page)
  if (presenters.length === 0 && page === undefined) return show
  const shown = presenters.map((layer) => ({ ...sizeOf(show, layer, facts), head: headOf(layer, facts) }))
  const made = arrange(layout, show.canvas, shown, page === undefined ? null : shownSize(page, sizeOf(show, page, facts)))
  const placed = new Map<string, Layer>()
  presenters.forEach((layer, index) => {
    const box = made.presenters[index]
    placed.set(layer.id, box === undefined ? hidden(layer) : presenterIn(show, layer, box, shown[index]!, made))
  })
  if (page !== undefined) placed.set(page.id, made.page === null ? hidden(page) : pageIn(show, page, made.page, made))
  const parts = partsFor(show, scene, made, page === undefined ? undefined : placed.get(page.id), names, makeId)
  for (const layer of parts.layers) placed.set(layer.id, layer)
  const order = inOrder(made, presenters, page, parts.layers)
  return updateScene(addContents(show, parts.contents), sceneId, (one) => ({ ...one, layers: reordered(one.layers, order, placed) }))
}

/** Whether a layout has nothing to place: neither presenter nor page. */
export function isEmptyCast({ presenters, page }: Cast): boolean {
  return presenters.length === 0 && page === null
}

/** Size of what a layer shows before it is cropped. */
export function sizeOf(show: Show, layer: Layer, { infos }: PictureFacts): { readonly widthPx: number; readonly heightPx: number } {
  return naturalSizeOf(show, layer, infos) ?? USUAL_SIZE
}

/** Where the head is in the picture of a layer, as far as it was found. */
export function headOf(layer: Layer, { heads }: PictureFacts): Head | null {
  return heads.get(inputIdOf(layer) ?? '') ?? null
}

function shownSize({ crop }: Layer, { widthPx, heightPx }: { readonly widthPx: number; readonly heightPx: number }) {
  return crop === null ? { widthPx, heightPx } : { widthPx: widthPx * (1 - crop.left - crop.right), heightPx: heightPx * (1 - crop.top - crop.bottom) }
}

function hidden(layer: Layer): Layer {
  return { ...layer, visible: false }
}

function presenterIn(
  show: Show,
  layer: Layer,
  box: Rect,
  shown: { readonly widthPx: number; readonly heightPx: number; readonly head: Head | null },
  made: Arrangement,
): Layer {
  return {
    ...(made.hasInk ? withoutWall(show, layer) : withWall(layer)),
    visible: true,
    placement: { ...box, angleDeg: 0, fit: 'fill' },
    crop: cropRound(shown.head ?? USUAL_HEAD, shown.widthPx, shown.heightPx, box.width / box.height),
    frame: frameFor(layer.frame, made.framesPresenters, show.canvas),
  }
}

function pageIn({ canvas }: Show, layer: Layer, box: Rect, made: Arrangement): Layer {
  return { ...layer, visible: true, placement: { ...box, angleDeg: 0, fit: 'fit' }, frame: frameFor(layer.frame, made.framesPage, canvas) }
}

/** What floats has a frame, and what reaches the edges none, unless the presenter has made one of their own: that stays. */
function frameFor(frame: Frame, floats: boolean, canvas: Show['canvas']): Frame {
  const usual = floatingFrame(canvas)
  if (floats) return isSame(frame, PLAIN_FRAME) ? usual : frame
  return isSame(frame, usual) ? PLAIN_FRAME : frame
}

/** The frame of what floats: border 4, corner 30 on a canvas 1080 high (common practice, no source), a soft shadow. */
export function floatingFrame({ widthPx, heightPx }: Show['canvas']): Frame {
  const unit = Math.min(widthPx, heightPx) / 1080
  return {
    form: 'box',
    cornerRadiusPx: 30 * unit,
    border: { widthPx: Math.max(0.5, 4 * unit), colour: '#ffffff', opacity: 1, side: 'inside' },
    shadow: { dx: 0, dy: 8 * unit, blurPx: 36 * unit, colour: '#000000', opacity: 0.35 },
  }
}

function isSame(one: unknown, other: unknown): boolean {
  return JSON.stringify(one) === JSON.stringify(other)
}

/** The divider and the ink: those that are there, shown or hidden, and those that are needed and missing. */
function partsFor(
  show: Show,
  scene: Scene,
  made: Arrangement,
  page: Layer | undefined,
  names: { readonly divider: string; readonly ink: string },
  makeId: MakeId,
) {
  const layers: Layer[] = []
  const contents: Content[] = []
  const divider = scene.layers.find(({ part }) => part === 'divider')
  if (made.divider === null) {
    if (divider !== undefined) layers.push(hidden(divider))
  } else {
    const placement = { ...made.divider, angleDeg: 0, fit: 'stretch' as const }
    if (divider !== undefined) layers.push({ ...divider, visible: true, placement })
    else {
      const fresh = newShapeLayer(names.divider, 'box', show.canvas, makeId)
      layers.push({ ...fresh.layer, part: 'divider', placement })
      contents.push(...fresh.contents)
    }
  }
  const ink = page === undefined ? undefined : inkOf(scene, page)
  if (made.hasInk && page !== undefined) {
    const fresh = ink ?? newInk(page, 'all', names.ink, makeId)
    layers.push({ ...fresh, visible: true, placement: page.placement, crop: page.crop, frame: page.frame })
  } else if (ink !== undefined) layers.push(hidden(ink))
  return { layers, contents }
}

function inOrder(made: Arrangement, presenters: readonly Layer[], page: Layer | undefined, parts: readonly Layer[]): string[] {
  const pages = page === undefined ? [] : [page.id]
  const people = presenters.map(({ id }) => id)
  const ids = (part: Layer['part']) => parts.filter((layer) => layer.part === part).map(({ id }) => id)
  return [...(made.isPageInFront ? [...people, ...pages] : [...pages, ...people]), ...ids('ink'), ...ids('divider')]
}

/** Puts the named layers, in their order, into the places that they have in the list; new ones in front of the last of these. */
function reordered(layers: readonly Layer[], order: readonly string[], placed: ReadonlyMap<string, Layer>): Layer[] {
  const known = order.filter((id) => layers.some((layer) => layer.id === id))
  const fresh = order.filter((id) => !known.includes(id))
  const last = layers.findLastIndex(({ id }) => known.includes(id))
  let next = 0
  const inPlace = layers.map((layer) => (known.includes(layer.id) ? placed.get(order.filter((id) => known.includes(id))[next++]!)! : layer))
  return [...inPlace.slice(0, last + 1), ...fresh.map((id) => placed.get(id)!), ...inPlace.slice(last + 1)]
}
