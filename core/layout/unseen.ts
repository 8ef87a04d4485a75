// Why a layer can't be seen, and the edit that mends it.
import { layerKindOf, treatmentOf, neededSourceOf, inputOf } from '../layers/index.ts'
import type { MakeId } from '../random/make-id.ts'
import { newStep } from '../steps/treatment.ts'
import type { SourceInfos } from '../picture/source.ts'
import { moveLayer, updateLayer } from '../show/edits.ts'
import { setVisible } from '../show/visibility.ts'
import type { Layer, Scene, Show, Step } from '../show/show.ts'
import { floatingFrame, sizeOf, type PictureFacts, headOf } from './arrange/arrange-scene.ts'
import { headInBox, USUAL_HEAD } from './arrange/head.ts'
import { arrange } from './arrange/layouts.ts'
import { depthFix, type DepthAdvice } from './depth-advice.ts'
import { hiddenLayers } from './hidden-layers.ts'
import { canBePage } from './inside-page.ts'
import { boxRound } from '../box/placement.ts'

export const unseenReasons = ['hidden', 'clear', 'outside', 'croppedAway', 'empty', 'missing', 'covered'] as const
export type UnseenReason = (typeof unseenReasons)[number]

/** A layer of which nothing is seen. */
export interface Unseen {
  readonly layerId: string
  readonly reason: UnseenReason
  /** Of one that is covered: by which layer most of all. */
  readonly by: string | null
}

/** From here on it counts as wholly covered. */
const ALL = 0.995
/** Cropped by steps to less than this share of a side nothing is left to see. */
const LEAST_SHARE = 0.002

/** Every layer of a scene of which nothing is seen, by its id. */
export function unseenIn(show: Show, scene: Scene, infos: SourceInfos): ReadonlyMap<string, Unseen> {
  const covered = hiddenLayers(show, scene, infos)
  return new Map(
    scene.layers.flatMap((layer) => {
      const found = unseen(show, scene, layer, infos, covered)
      return found === null ? [] : [[layer.id, found] as const]
    }),
  )
}

/** Why nothing of a layer of a scene is seen; null when something is. */
export function unseen(show: Show, scene: Scene, layer: Layer, infos: SourceInfos, allCovered = hiddenLayers(show, scene, infos)): Unseen | null {
  const because = (reason: UnseenReason, by: string | null = null): Unseen => ({ layerId: layer.id, reason, by })
  if (!layer.visible) return because('hidden')
  if (layer.opacity === 0) return because('clear')
  if (layerKindOf(layer).isEmpty(layer, show)) return because('empty')
  if (isOutside(show, layer)) return because('outside')
  const steps = treatmentOf(show, layer)
  if (isCroppedAway(steps)) return because('croppedAway')
  if (isMissing(show, layer, infos)) return because('missing')
  const covered = allCovered.find(({ layerId }) => layerId === layer.id)
  return covered !== undefined && covered.hiddenShare > ALL ? because('covered', covered.coveredBy) : null
}

function isOutside({ canvas }: Show, { placement }: Layer): boolean {
  const { x, y, width, height } = boxRound([placement])!
  return x >= canvas.widthPx || y >= canvas.heightPx || x + width <= 0 || y + height <= 0
}

/** Crops add up where they overlap: together they may leave nothing. */
function isCroppedAway(steps: readonly Step[]): boolean {
  const kept = { left: 0, top: 0, right: 1, bottom: 1 }
  for (const step of steps) {
    if (step.kind !== 'crop' || !step.on) continue
    kept.left = Math.max(kept.left, step.params.left / 100)
    kept.top = Math.max(kept.top, step.params.top / 100)
    kept.right = Math.min(kept.right, 1 - step.params.right / 100)
    kept.bottom = Math.min(kept.bottom, 1 - step.params.bottom / 100)
  }
  return kept.right - kept.left < LEAST_SHARE || kept.bottom - kept.top < LEAST_SHARE
}

function isMissing(show: Show, layer: Layer, infos: SourceInfos): boolean {
  const sourceId = neededSourceOf(show, layer)
  return sourceId !== null && !infos.has(sourceId)
}

/** The layer just in front of what covers it, and of nothing more: people and words stay before it. */
function broughtForward(show: Show, scene: Scene, layerId: string, infos: SourceInfos): Show | null {
  const from = scene.layers.findIndex(({ id }) => id === layerId)
  for (let index = from + 1; index < scene.layers.length; index += 1) {
    const next = moveLayer(show, scene.id, layerId, index)
    const moved = next.scenes.find(({ id }) => id === scene.id)!
    const hidden = hiddenLayers(next, moved, infos).find((one) => one.layerId === layerId)
    if (hidden === undefined || hidden.hiddenShare <= ALL) return next
  }
  return null
}

/** The show after the fault is mended; null where no edit can: a picture that is missing has to come from elsewhere, an empty layer has to be filled. */
export function mended(show: Show, sceneId: string, { layerId, reason }: Unseen, facts: PictureFacts): Show | null {
  const scene = show.scenes.find(({ id }) => id === sceneId)
  if (scene === undefined) return null
  const change = (make: (layer: Layer) => Layer) => updateLayer(show, sceneId, layerId, make)
  switch (reason) {
    case 'hidden':
      return setVisible(show, sceneId, [layerId], true)
    case 'clear':
      return change((layer) => ({ ...layer, opacity: 1 }))
    case 'outside':
      return change((layer) => ({ ...layer, placement: { ...layer.placement, ...broughtIn(show, layer) } }))
    case 'croppedAway':
      return withoutCrops(show, sceneId, layerId)
    case 'covered': {
      const hidden = hiddenLayers(show, scene, facts.infos).find((one) => one.layerId === layerId)
      const move = hidden === undefined ? null : depthFix(show, scene, facts.infos, { ...hidden, kind: 'trouble' })
      if (move !== null) return moveLayer(show, sceneId, move.layerId, move.index)
      // Neither way round is better by what matters, but the presenter wants to see it.
      return hidden === undefined ? null : broughtForward(show, scene, layerId, facts.infos)
    }
    case 'empty':
    case 'missing':
      return null
  }
}

/** As much of a step as brings the box onto the canvas. */
function broughtIn({ canvas }: Show, { placement }: Layer): { readonly x: number; readonly y: number } {
  const box = boxRound([placement])!
  const inside = (at: number, length: number, whole: number) => (length >= whole ? (whole - length) / 2 : Math.min(whole - length, Math.max(0, at)))
  return {
    x: Math.round(placement.x + inside(box.x, box.width, canvas.widthPx) - box.x),
    y: Math.round(placement.y + inside(box.y, box.height, canvas.heightPx) - box.y),
  }
}

/** Crops of the layer's own go first; those that hold everywhere only if that is not enough. */
function withoutCrops(show: Show, sceneId: string, layerId: string): Show {
  const off = (steps: readonly Step[]): readonly Step[] => steps.map((step) => (step.kind === 'crop' ? { ...step, on: false } : step))
  const here = updateLayer(show, sceneId, layerId, (layer) => ({ ...layer, treatment: off(layer.treatment) }))
  const layer = here.scenes.find(({ id }) => id === sceneId)?.layers.find(({ id }) => id === layerId)
  const shown = inputOf(here, layer)
  if (layer === undefined || shown === undefined || !isCroppedAway(treatmentOf(here, layer))) return here
  return { ...here, inputs: here.inputs.map((input) => (input === shown ? { ...input, treatment: off(input.treatment) } : input)) }
}

/** What else can be done about a layer that covers another, beside changing their order. */
export const coverCures = ['smaller', 'dropWhite'] as const
export type CoverCure = (typeof coverCures)[number]

/** The cures that make sense: whatever covers can be made smaller; paper can be dropped from what can be a page. */
export function curesFor(show: Show, scene: Scene, { coveredBy }: DepthAdvice): readonly CoverCure[] {
  const front = scene.layers.find(({ id }) => id === coveredBy)
  if (front === undefined || front.locked) return []
  return canBePage(show, front) && front.blend === 'normal' ? coverCures : ['smaller']
}

/** The show after a cure. Smaller: beside the head of who is covered. White dropped: here only. */
export function cured(show: Show, sceneId: string, advice: DepthAdvice, cure: CoverCure, facts: PictureFacts, makeId: MakeId): Show {
  const scene = show.scenes.find(({ id }) => id === sceneId)
  const front = scene?.layers.find(({ id }) => id === advice.coveredBy)
  const back = scene?.layers.find(({ id }) => id === advice.layerId)
  if (front === undefined || back === undefined) return show
  if (cure === 'dropWhite') {
    const key = newStep('lumaKey', makeId) as Extract<Step, { kind: 'lumaKey' }>
    return updateLayer(show, sceneId, front.id, (layer) => ({
      ...layer,
      treatment: [...layer.treatment, { ...key, params: { from: 0.9, to: 1, softness: 0.1 } }],
    }))
  }
  const head = headOf(back, facts) ?? USUAL_HEAD
  const seen = headInBox(head, back.crop, back.placement)
  const { widthPx, heightPx } = show.canvas
  // The head where it is on the canvas, as if a picture of the canvas's size showed it.
  const onCanvas = { x: seen.x / widthPx, y: seen.y / heightPx, width: seen.width / widthPx, height: seen.height / heightPx }
  const { page } = arrange({ name: 'shoulder', side: 'left' }, show.canvas, [{ widthPx, heightPx, head: onCanvas }], sizeOf(show, front, facts))
  return updateLayer(show, sceneId, front.id, (layer) => ({
    ...layer,
    placement: { ...page!, angleDeg: 0, fit: layer.placement.fit === 'stretch' ? 'stretch' : 'fit' },
    frame: layer.frame.border === null && layer.frame.shadow === null ? floatingFrame(show.canvas) : layer.frame,
  }))
}
