// What covers what, for the presenter who asks where the camera has gone.
import { HIDING_OPACITY } from '../layers/coverage.ts'
import { weightOf } from '../layers/tree.ts'
import { inputOf, naturalSizeOf, layerKindOf } from '../layers/index.ts'
import type { SourceInfos } from '../picture/source.ts'
import { frameShape } from '../box/frame.ts'
import { inverse, mapPoint, followedBy, translation } from '../composite/affine.ts'
import { shapeCoverage } from '../composite/shape.ts'
import type { Layer, Scene, Show } from '../show/show.ts'
import { USUAL_HEAD } from './arrange/head.ts'
import { fitRects, type Rect } from '../box/fit.ts'
import { boxToCanvas } from '../box/placement.ts'

/** How much of a layer can't be seen, and why. */
export interface HiddenLayer {
  readonly layerId: string
  /** Share 0..1 of the layer's own area on the canvas that opaque layers in front of it cover. */
  readonly hiddenShare: number
  /** The same of what matters most in it: of a camera the head, where heads are as a rule; of others all. */
  readonly coreShare: number
  /** Of those, the layer that covers most. */
  readonly coveredBy: string
}

const GRID_COLUMNS = 96
const GRID_ROWS = 54
/** What was found of each scene last: several parts of the studio ask for the same one after each edit. */
const foundIn = new WeakMap<Scene, { readonly show: Show; readonly infos: SourceInfos; readonly found: readonly HiddenLayer[] }>()
/** The cells of each layer, and what else they depend on: an edit changes few of them. */
const cellsOfLayer = new WeakMap<Layer, { readonly key: string; readonly cells: Uint8Array }>()

/** Layers of a scene that opaque layers in front cover, from back to front, measured on a 96 × 54 grid. */
export function hiddenLayers(show: Show, scene: Scene, infos: SourceInfos): readonly HiddenLayer[] {
  const known = foundIn.get(scene)
  if (known?.show === show && known.infos === infos) return known.found
  const found = measured(show, scene, infos)
  foundIn.set(scene, { show, infos, found })
  return found
}

function measured(show: Show, scene: Scene, infos: SourceInfos): HiddenLayer[] {
  const shapes = scene.layers.filter((layer) => layer.visible && layer.opacity > 0).map((layer) => shapeOf(show, layer, infos))
  const result: HiddenLayer[] = []
  /** Of each cell, the nearest layer in front that hides what is behind it: an index, −1 for none. */
  const cover = new Int32Array(GRID_COLUMNS * GRID_ROWS).fill(-1)
  // From the front on, so that every cell is looked at once for each layer.
  for (let index = shapes.length - 1; index >= 0; index -= 1) {
    const shape = shapes[index]!
    const hidden = hiddenPart(shape, shapes, cover)
    if (hidden !== null) result.push(hidden)
    if (shape.hides) for (let cell = 0; cell < cover.length; cell += 1) if (shape.cells[cell] !== 0) cover[cell] = index
  }
  return result.reverse()
}

function hiddenPart({ layerId, cells }: Shape, shapes: readonly Shape[], cover: Int32Array): HiddenLayer | null {
  const covered = new Map<number, number>()
  let area = 0
  let hidden = 0
  let core = 0
  let coreHidden = 0
  for (let cell = 0; cell < cells.length; cell += 1) {
    if (cells[cell] === 0) continue
    area += 1
    const isCore = cells[cell] === 2
    if (isCore) core += 1
    const by = cover[cell]!
    if (by < 0) continue
    hidden += 1
    if (isCore) coreHidden += 1
    covered.set(by, (covered.get(by) ?? 0) + 1)
  }
  if (hidden === 0) return null
  const [coveredBy] = [...covered].reduce((most, entry) => (entry[1] > most[1] ? entry : most))
  return { layerId, hiddenShare: hidden / area, coreShare: core === 0 ? hidden / area : coreHidden / core, coveredBy: shapes[coveredBy]!.layerId }
}

interface Shape {
  readonly layerId: string
  readonly hides: boolean
  /** 1 for each cell of the grid whose middle it holds, 2 where that is what matters most in it. */
  readonly cells: Uint8Array
}

function shapeOf(show: Show, layer: Layer, infos: SourceInfos): Shape {
  const { placement } = layer
  // What is not a picture of its own size is as large as its box.
  const info = inputOf(show, layer) === undefined ? undefined : naturalSizeOf(show, layer, infos)
  const size = info ?? { widthPx: placement.width, heightPx: placement.height }
  const isCamera = inputOf(show, layer) !== undefined && weightOf(show, layer) === 'camera'
  const key = [show.canvas.widthPx, show.canvas.heightPx, size.widthPx, size.heightPx, isCamera].join()
  let known = cellsOfLayer.get(layer)
  if (known?.key !== key) cellsOfLayer.set(layer, (known = { key, cells: cellsHeld(show.canvas, layer, size, isCamera) }))
  return {
    layerId: layer.id,
    hides: layer.opacity >= HIDING_OPACITY && layer.blend === 'normal' && layerKindOf(layer).coverage(layer, show, infos) === 'opaque',
    cells: known.cells,
  }
}

function cellsHeld(canvas: Show['canvas'], { placement, crop, frame }: Layer, size: Size, isCamera: boolean): Uint8Array {
  const { source, target } = fitRects(placement.fit, size.widthPx, size.heightPx, placement.width, placement.height, crop)
  const toFrame = inverse(followedBy(translation(target.x, target.y), boxToCanvas(placement)))
  // Where the head is in what is seen of the picture.
  const scaleX = target.width / source.width
  const scaleY = target.height / source.height
  const head: Rect | null = isCamera
    ? {
        x: (USUAL_HEAD.x * size.widthPx - source.x) * scaleX,
        y: (USUAL_HEAD.y * size.heightPx - source.y) * scaleY,
        width: USUAL_HEAD.width * size.widthPx * scaleX,
        height: USUAL_HEAD.height * size.heightPx * scaleY,
      }
    : null
  const shape = frameShape(frame, target.width, target.height, 1)
  return cellsOf(canvas, (x, y) => {
    const [frameX, frameY] = mapPoint(toFrame, x, y)
    if (shapeCoverage(shape, frameX, frameY) <= 0.5) return 0
    return head !== null && isInside(head, frameX, frameY) ? 2 : 1
  })
}

interface Size {
  readonly widthPx: number
  readonly heightPx: number
}

function isInside({ x, y, width, height }: Rect, atX: number, atY: number): boolean {
  return atX >= x && atX <= x + width && atY >= y && atY <= y + height
}

function cellsOf(canvas: Show['canvas'], valueAt: (x: number, y: number) => number): Uint8Array {
  const cells = new Uint8Array(GRID_COLUMNS * GRID_ROWS)
  for (let row = 0; row < GRID_ROWS; row += 1) {
    for (let column = 0; column < GRID_COLUMNS; column += 1) {
      const x = ((column + 0.5) / GRID_COLUMNS) * canvas.widthPx
      const y = ((row + 0.5) / GRID_ROWS) * canvas.heightPx
      cells[row * GRID_COLUMNS + column] = valueAt(x, y)
    }
  }
  return cells
}
