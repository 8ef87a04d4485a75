// The presenter inside a page: in front of its paper and behind its ink. The page is there twice, the second time without its white.
import { layerKindOf, inputOf, showsSame } from '../layers/index.ts'
import { activeSteps, newStep } from '../steps/treatment.ts'
import { updateScene } from '../show/edits.ts'
import type { MakeId } from '../random/make-id.ts'
import type { InputLayer, Layer, Scene, SceneLayer, Show, Step } from '../show/show.ts'
import { makesMatte } from '../steps/chain.ts'

/**
 * What of a page is in front of the presenter. `all`: it darkens whatever is under it, white not at all. `dark`: dark ink only. `greys`:
 * everything but white, opaque.
 */
export const inkModes = ['all', 'dark', 'greys'] as const
export type InkMode = (typeof inkModes)[number]

/** Brightness from which a page is paper, and how soft its edge is: dropped wide, only dark ink is left; tight, all but white is. */
const PAPER: Readonly<Record<Exclude<InkMode, 'all'>, { readonly from: number; readonly softness: number }>> = {
  dark: { from: 0.5, softness: 0.2 },
  greys: { from: 0.95, softness: 0.1 },
}
/** A wall that is white in the camera's picture, unevenly lit as walls are. */
const WHITE_WALL = { from: 0.8, to: 1, softness: 0.06 } as const

/** A layer that can be a page. */
export type PageLayer = InputLayer | SceneLayer

/** Whether a presenter can stand in a layer: pictures, screens, clips and scenes; not cameras and colours. */
export function canBePage(show: Show, layer: Layer): layer is PageLayer {
  return layer.part === null && layerKindOf(layer).pageRank(layer, show) !== null
}

/** The ink of a page in its scene; undefined when there is none. */
export function inkOf(scene: Scene, page: Layer): Layer | undefined {
  return scene.layers.find((layer) => layer.part === 'ink' && showsSame(layer, page))
}

/** How the ink of a page is set; null for a layer that is no ink. */
export function inkModeOf({ part, blend, treatment }: Layer): InkMode | null {
  if (part !== 'ink') return null
  if (blend === 'multiply') return 'all'
  const key = treatment.find((step) => step.kind === 'lumaKey')
  return key !== undefined && key.params.from < 0.75 ? 'dark' : 'greys'
}

/** The ink of a page as a layer of its own, to be put in front of the presenter. */
export function newInk(page: Layer, mode: InkMode, name: string, makeId: MakeId): Layer {
  const own = page.treatment.map((step) => ({ ...step, id: makeId() }))
  return inMode({ ...page, id: makeId(), name, part: 'ink', locked: false, treatment: own }, mode, makeId)
}

/** An ink layer in another mode. */
export function inMode(ink: Layer, mode: InkMode, makeId: MakeId): Layer {
  const rest = ink.treatment.filter((step) => step.kind !== 'lumaKey')
  if (mode === 'all') return { ...ink, blend: 'multiply', treatment: rest }
  const key = newStep('lumaKey', makeId) as Extract<Step, { kind: 'lumaKey' }>
  return { ...ink, blend: 'normal', treatment: [...rest, { ...key, params: { ...PAPER[mode], to: 1 } }] }
}

/** Changes what of a page is in front of the presenter. */
export function setInkMode(show: Show, sceneId: string, inkId: string, mode: InkMode, makeId: MakeId): Show {
  return updateScene(show, sceneId, (scene) => ({ ...scene, layers: scene.layers.map((layer) => (layer.id === inkId ? inMode(layer, mode, makeId) : layer)) }))
}

/** Whether nothing takes a presenter's background away, neither everywhere nor here. */
export function isUncut(show: Show, presenter: Layer): boolean {
  const input = inputOf(show, presenter)
  const cuts = (steps: readonly Step[]) => makesMatte(activeSteps(steps).filter(({ kind }) => kind !== 'crop'))
  return input !== undefined && !cuts(input.treatment) && !cuts(presenter.treatment)
}

/** A presenter whose white wall is dropped, here only. One that is cut out already stays as it is. */
export function withoutWall(show: Show, presenter: Layer): Layer {
  if (!isUncut(show, presenter)) return presenter
  // Named after its layer, so that coming back to it is coming back to the same.
  const key: Step = { id: `w-${presenter.id}`.slice(0, 40), kind: 'lumaKey', on: true, params: WHITE_WALL }
  return { ...presenter, treatment: [...presenter.treatment, key] }
}

/** Whether the wall behind a presenter is taken for white: that is how `withoutWall` left it, and nothing else cuts them out. */
export function isWallTakenForWhite(show: Show, presenter: Layer): boolean {
  return presenter.treatment.some((step) => step.on && isDrop(step)) && isUncut(show, withWall(presenter))
}

function isDrop({ kind, params }: Step): boolean {
  return kind === 'lumaKey' && Object.entries(WHITE_WALL).every(([key, value]) => (params as Record<string, unknown>)[key] === value)
}

/** The presenter with the wall that `withoutWall` dropped. */
export function withWall(presenter: Layer): Layer {
  return presenter.treatment.some(isDrop) ? { ...presenter, treatment: presenter.treatment.filter((step) => !isDrop(step)) } : presenter
}

/**
 * Puts a presenter inside a page: the page behind, the presenter over it, the page's ink in front. Everything else keeps its place. The
 * presenter's wall is dropped where nothing else cuts them out. A page that has its ink already gets that one.
 */
export function putInsidePage(show: Show, sceneId: string, pageId: string, presenterId: string, mode: InkMode, inkName: string, makeId: MakeId): Show {
  return updateScene(show, sceneId, (scene) => {
    const page = scene.layers.find(({ id }) => id === pageId)
    const presenter = scene.layers.find(({ id }) => id === presenterId)
    if (page === undefined || presenter === undefined || !canBePage(show, page)) return scene
    const known = inkOf(scene, page)
    const ink = {
      ...(known === undefined ? newInk(page, mode, inkName, makeId) : inMode(known, mode, makeId)),
      visible: true,
      placement: page.placement,
      crop: page.crop,
    }
    const rest = scene.layers.filter(({ id }) => id !== page.id && id !== presenter.id && id !== known?.id)
    // Where the page was: what was behind it stays behind, what was in front stays in front.
    const at = scene.layers.slice(0, scene.layers.indexOf(page)).filter((layer) => rest.includes(layer)).length
    const standing = { ...withoutWall(show, presenter), visible: true }
    return { ...scene, layers: rest.toSpliced(at, 0, { ...page, visible: true }, standing, ink) }
  })
}
