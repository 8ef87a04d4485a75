// A drawing that is kept: with its page where it is on one, otherwise as forms of the scene, which can be moved and coloured as any.
import { strokeContours } from '../drawing/stroke-contours.ts'
import { strokeOpacity, type Stroke } from '../drawing/stroke.ts'
import { surfaceOf, type SurfaceId } from '../drawing/surface.ts'
import { isDeck, type DeckInput } from '../inputs/deck.ts'
import { newGroupLayer } from '../layers/group.ts'
import { newLayerBase, type Canvas, type Content, type Layer } from '../layers/layer.ts'
import type { Contour } from '../outline/read-outline.ts'
import type { MakeId } from '../random/make-id.ts'
import { LIMITS, RANGES, withinRange } from '../schema/limits.ts'
import { addContents } from '../show/contents.ts'
import { addLayer, updateInputOf } from '../show/edits.ts'
import type { Show } from '../show/show.ts'

/** Keeps strokes of a surface in the show; the same object where there is nothing to keep, or nowhere to keep it. `name` is for the layer of a scene. */
export function keepDrawing(show: Show, surface: SurfaceId, strokes: readonly Stroke[], name: string, makeId: MakeId): Show {
  const what = surfaceOf(surface)
  if (strokes.length === 0 || what === null) return show
  if ('sceneId' in what) return withForms(show, what.sceneId, strokes, name, makeId)
  return withPageStrokes(show, what.inputId, what.pageId, (kept) => [...kept, ...strokes])
}

/** Whether a surface can keep so many more strokes. The forms of a scene are counted where the show is edited. */
export function hasRoomFor(show: Show, surface: SurfaceId, count: number): boolean {
  const what = surfaceOf(surface)
  if (what === null || 'sceneId' in what) return true
  const page = show.inputs
    .filter(isDeck)
    .find(({ id }) => id === what.inputId)
    ?.pages.find(({ id }) => id === what.pageId)
  return (page?.strokes.length ?? 0) + count <= LIMITS.strokes
}

/** Takes away what is kept on a page. */
export function clearPage(show: Show, inputId: string, pageId: string): Show {
  return withPageStrokes(show, inputId, pageId, () => [])
}

function withPageStrokes(show: Show, inputId: string, pageId: string, change: (strokes: readonly Stroke[]) => readonly Stroke[]): Show {
  const pages = (deck: DeckInput) => deck.pages.map((page) => (page.id === pageId ? { ...page, strokes: change(page.strokes) } : page))
  return updateInputOf(show, inputId, isDeck, (deck) => ({ ...deck, pages: pages(deck) }))
}

function withForms(show: Show, sceneId: string, strokes: readonly Stroke[], name: string, makeId: MakeId): Show {
  if (!show.scenes.some(({ id }) => id === sceneId)) return show
  const forms = formsOf(strokes, show.canvas).flatMap((form) => formLayer(form, name, makeId) ?? [])
  if (forms.length === 0) return show
  const layers = forms.map(({ layer }) => layer)
  const withContents = addContents(
    show,
    forms.map(({ content }) => content),
  )
  return addLayer(withContents, sceneId, layers.length === 1 ? layers[0]! : newGroupLayer(name, layers, show.canvas, makeId))
}

/** Contours of one colour. */
interface Form {
  readonly colour: string
  readonly opacity: number
  readonly contours: readonly Contour[]
}

/** Strokes of one colour that follow each other are one form; what lets through is one each, or it would not be seen twice where it crosses. */
function formsOf(strokes: readonly Stroke[], { widthPx, heightPx }: Canvas): readonly Form[] {
  const forms: Form[] = []
  for (const stroke of strokes) {
    const form = { colour: stroke.colour, opacity: strokeOpacity(stroke.tool), contours: strokeContours(stroke, widthPx, heightPx).map(sameWay) }
    const last = forms.at(-1)
    const together = last?.colour === form.colour && last.opacity === 1 && form.opacity === 1 ? [...last.contours, ...form.contours] : null
    if (together !== null && pathOf(together, 0, 0, LEAST_PX).length <= LIMITS.pathLength) forms[forms.length - 1] = { ...form, contours: together }
    else forms.push(form)
  }
  return forms
}

/** All contours run the same way round, so that none cuts a hole into another. */
function sameWay(contour: Contour): Contour {
  const { points } = contour
  let area = 0
  for (let i = 0; i < points.length; i += 2) {
    const next = (i + 2) % points.length
    area += points[i]! * points[next + 1]! - points[next]! * points[i + 1]!
  }
  if (area >= 0) return contour
  const backwards = Array.from({ length: points.length / 2 }, (_, i) => [points[points.length - 2 - 2 * i]!, points[points.length - 1 - 2 * i]!])
  return { ...contour, points: Float64Array.from(backwards.flat()) }
}

/** Corners that are nearer than this to the one before are left out. */
const LEAST_PX = 0.3

function formLayer({ colour, opacity, contours }: Form, name: string, makeId: MakeId): { readonly layer: Layer; readonly content: Content } | null {
  const across = contours.flatMap(({ points }) => [...points.filter((_, index) => index % 2 === 0)])
  const down = contours.flatMap(({ points }) => [...points.filter((_, index) => index % 2 === 1)])
  const [x, y] = [Math.floor(Math.min(...across)), Math.floor(Math.min(...down))]
  const [width, height] = [Math.ceil(Math.max(...across)) - x, Math.ceil(Math.max(...down)) - y]
  if (!(width >= 1 && height >= 1)) return null
  let leastPx = LEAST_PX
  let path = pathOf(contours, x, y, leastPx)
  while (path.length > LIMITS.pathLength) path = pathOf(contours, x, y, (leastPx *= 1.5))
  const placed = (value: number) => withinRange(RANGES.position, value)
  const base = newLayerBase(name, { x: placed(x), y: placed(y), width, height, angleDeg: 0, fit: 'stretch' }, makeId)
  return {
    layer: { ...base, kind: 'shape', contentId: base.id },
    content: { id: base.id, kind: 'shape', fill: { kind: 'plain', colour, opacity }, outline: { path, width, height, stroke: null } },
  }
}

/** Path data of contours, from a corner on. */
function pathOf(contours: readonly Contour[], left: number, top: number, leastPx: number): string {
  return contours
    .map(({ points }) => {
      const kept: string[] = []
      let [lastX, lastY] = [Infinity, Infinity]
      for (let i = 0; i < points.length; i += 2) {
        const [x, y] = [points[i]! - left, points[i + 1]! - top]
        if (Math.hypot(x - lastX, y - lastY) < leastPx) continue
        kept.push(`${Number(x.toFixed(1))} ${Number(y.toFixed(1))}`)
        ;[lastX, lastY] = [x, y]
      }
      return kept.length < 3 ? '' : `M${kept.join('L')}Z`
    })
    .join('')
}
