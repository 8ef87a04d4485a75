import { inverse, mapPoint, scaling, followedBy, translation } from '../composite/affine.ts'
import { fitRects } from '../layout/fit.ts'
import { boxToCanvas, mappedBounds } from '../layout/placement.ts'
import type { Layer, Scene, Show, Step } from '../show/show.ts'
import { makesMatte } from '../steps/chain.ts'
import type { StepCall } from '../steps/index.ts'
import type { Draw, FramePlan, MissingPicture, SourceId, SourceInfo, TextJob } from './frame-plan.ts'

/** Sizes of the sources that have a picture now. */
export type SourceInfos = ReadonlyMap<SourceId, SourceInfo>

/**
 * What to draw for `scene` of `show`. Pure and cheap; the result stays valid until the show,
 * the scene or a source's size changes. Layers that are wholly covered fall out; the picture is the same with and without
 * (`culls`).
 */
export function planFrame(show: Show, scene: Scene, infos: SourceInfos, { culls = true } = {}): FramePlan {
  const { widthPx, heightPx } = show.canvas
  const draws: Draw[] = []
  const texts: TextJob[] = []
  const missing: MissingPicture[] = []
  for (const layer of scene.layers) {
    if (!layer.visible || layer.opacity === 0) continue
    if (layer.kind === 'text') texts.push(textJob(layer.id, layer.text, layer.placement))
    const source = sourceOf(show, layer, infos)
    if (source === null) continue
    if (source.info === undefined) {
      missing.push({ layerId: layer.id, sourceId: source.id })
      continue
    }
    const steps = [...activeSteps(source.everywhere), ...activeSteps(layer.treatment)]
    const draw = planDraw(show.canvas, layer, source.id, source.info, steps)
    if (draw === null) continue
    if (culls && source.info.isOpaque && hidesEverythingUnder(draw, widthPx, heightPx)) {
      draws.length = 0
      missing.length = 0
    }
    draws.push(draw)
  }
  const shown = new Set(draws.map((draw) => draw.sourceId))
  return { widthPx, heightPx, ground: 'black', draws, texts: texts.filter((text) => shown.has(text.sourceId)), missing }
}

interface ResolvedSource {
  readonly id: SourceId
  readonly info: SourceInfo | undefined
  readonly everywhere: readonly Step[]
}

function sourceOf(show: Show, layer: Layer, infos: SourceInfos): ResolvedSource | null {
  if (layer.kind === 'text') {
    const { widthPx, heightPx } = textSize(layer.placement)
    return { id: textSourceId(layer.id, widthPx, heightPx), info: { widthPx, heightPx, isOpaque: false }, everywhere: [] }
  }
  const input = show.inputs.find((candidate) => candidate.id === layer.inputId)
  if (input === undefined) return null
  if (input.kind === 'colour') {
    return { id: plainSourceId(input.colour), info: { widthPx: 1, heightPx: 1, isOpaque: true }, everywhere: input.treatment }
  }
  const id = inputSourceId(input.id)
  return { id, info: infos.get(id), everywhere: input.treatment }
}

/** The source that carries an input's pictures. */
export function inputSourceId(inputId: string): SourceId {
  return `input:${inputId}`
}

/** The source that carries a text layer's picture at one size. */
function textSourceId(layerId: string, widthPx: number, heightPx: number): SourceId {
  return `text:${layerId}:${widthPx}×${heightPx}`
}

/** The one-pixel source of a plain colour. */
export function plainSourceId(hex: string): SourceId {
  return `colour:${hex.toLowerCase()}`
}

function textSize(placement: Layer['placement']) {
  return { widthPx: Math.max(1, Math.round(placement.width)), heightPx: Math.max(1, Math.round(placement.height)) }
}

function textJob(layerId: string, content: TextJob['content'], placement: Layer['placement']): TextJob {
  const size = textSize(placement)
  return { sourceId: textSourceId(layerId, size.widthPx, size.heightPx), content, ...size, key: JSON.stringify([content, size]) }
}

/** A plan for one input alone, filling a canvas; `steps` as given. Clear ground. */
export function planInput(inputId: string, info: SourceInfo, steps: readonly StepCall[], widthPx: number, heightPx: number): FramePlan {
  const id = inputSourceId(inputId)
  const layer = {
    id: 'alone',
    opacity: 1,
    placement: { x: 0, y: 0, width: widthPx, height: heightPx, angleDeg: 0, fit: 'fit' as const },
    frame: { cornerRadiusPx: 0 },
  }
  const draw = planDraw({ widthPx, heightPx }, layer, id, info, steps)
  return { widthPx, heightPx, ground: 'clear', draws: draw === null ? [] : [draw], texts: [], missing: [] }
}

/** The steps of a treatment that are on. */
export function activeSteps(treatment: readonly Step[]): StepCall[] {
  return treatment.filter((step) => step.on).map(({ kind, params }) => ({ kind, params }) as StepCall)
}

type PlacedLayer = Pick<Layer, 'id' | 'placement' | 'opacity' | 'frame'>

function planDraw(
  canvas: { readonly widthPx: number; readonly heightPx: number },
  layer: PlacedLayer,
  sourceId: SourceId,
  info: SourceInfo,
  steps: readonly StepCall[],
): Draw | null {
  const { placement } = layer
  const fitted = fitRects(placement.fit, info.widthPx, info.heightPx, placement.width, placement.height)
  const toCanvas = boxToCanvas(placement)
  const frameToCanvas = followedBy(translation(fitted.target.x, fitted.target.y), toCanvas)
  const bounds = mappedBounds(frameToCanvas, fitted.target.width, fitted.target.height, canvas.widthPx, canvas.heightPx)
  if (bounds.right <= bounds.left || bounds.bottom <= bounds.top) return null
  const toFrame = inverse(frameToCanvas)
  const scaleX = fitted.source.width / fitted.target.width
  const scaleY = fitted.source.height / fitted.target.height
  const halvings = halvingsFor(Math.min(scaleX, scaleY), Math.min(info.widthPx, info.heightPx))
  const halved = 2 ** -halvings
  const frameToSource = followedBy(followedBy(scaling(scaleX, scaleY), translation(fitted.source.x, fitted.source.y)), scaling(halved, halved))
  return {
    layerId: layer.id,
    sourceId,
    steps,
    treatedKey: `${sourceId} ${JSON.stringify(steps)}`,
    halvings,
    toSource: followedBy(toFrame, frameToSource),
    toFrame,
    frame: { width: fitted.target.width, height: fitted.target.height, cornerRadius: layer.frame.cornerRadiusPx },
    bounds,
    opacity: layer.opacity,
    sourceRect: fitted.source,
  }
}

/** Halvings that leave less than a factor of two to interpolate, so that small pictures don't sparkle. */
function halvingsFor(sourcePixelsPerCanvasPixel: number, shorterSidePx: number): number {
  if (sourcePixelsPerCanvasPixel < 2) return 0
  const wanted = Math.floor(Math.log2(sourcePixelsPerCanvasPixel))
  return Math.min(wanted, Math.floor(Math.log2(shorterSidePx)))
}

/** Room for rounding in the affine maps: far less than any pixel's share that could be seen. */
const ROUNDING_PX = 1e-6

/** Whether every pixel of the canvas is wholly inside the frame, and opaque there. */
function hidesEverythingUnder(draw: Draw, widthPx: number, heightPx: number): boolean {
  if (draw.opacity !== 1 || draw.frame.cornerRadius !== 0 || makesMatte(draw.steps)) return false
  const { width, height } = draw.frame
  // The frame is convex: with the canvas's corners inside, all of it is.
  return [0, widthPx].every((x) =>
    [0, heightPx].every((y) => {
      const [frameX, frameY] = mapPoint(draw.toFrame, x, y)
      return frameX >= -ROUNDING_PX && frameX <= width + ROUNDING_PX && frameY >= -ROUNDING_PX && frameY <= height + ROUNDING_PX
    }),
  )
}

/** Whether the draw is not turned, so that canvas rows are source rows. */
export function isUpright(draw: Draw): boolean {
  return draw.toFrame.b === 0 && draw.toFrame.c === 0
}
