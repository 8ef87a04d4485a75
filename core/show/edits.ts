// Pure edits: each returns a new show that shares what did not change. Unknown ids change nothing.
import { inputIdOf, sceneIdOf, childrenOf } from '../layers/index.ts'
import type { FitMode } from '../box/fit.ts'
import { withoutUnusedContents } from './contents.ts'
import { withoutPairsOf, withoutTransitionsBy } from './show-transitions.ts'
import { fromSceneCanvas, groupsRound, toSceneCanvas } from './group-space.ts'
import { changeListOf, findLayer, mapLayers } from '../layers/tree.ts'
import { LIMITS, RANGES, withinRange } from '../schema/limits.ts'
import type { Favourite, Input, Layer, Placement, Scene, Show, Step, Microphone } from './show.ts'
import { stepOf, steps as taughtSteps, type StepKind } from '../steps/index.ts'
import { defaultParams, type ParamSpecs, type ParamValue } from '../steps/step.ts'

/** Where a treatment hangs: on an input (everywhere) or on a layer (here only). */
export type TreatmentHome =
  { readonly type: 'input'; readonly inputId: string } | { readonly type: 'layer'; readonly sceneId: string; readonly layerId: string }

/** Renames the show. */
export function renameShow(show: Show, name: string): Show {
  return { ...show, name }
}

/** Changes who presents, or until when a countdown runs. */
export function setPresenter(show: Show, part: Partial<Show['presenter']>): Show {
  return { ...show, presenter: { ...show.presenter, ...part } }
}

/** Puts an input at the end of the list. */
export function addInput(show: Show, input: Input): Show {
  return { ...show, inputs: [...show.inputs, input] }
}

/** Changes fields of an input. */
export function updateInput(show: Show, inputId: string, change: (input: Input) => Input): Show {
  return { ...show, inputs: show.inputs.map((input) => (input.id === inputId ? change(input) : input)) }
}

/** Changes fields of an input of one kind; one of another kind stays as it is. */
export function updateInputOf<I extends Input>(show: Show, inputId: string, isKind: (input: Input) => input is I, change: (input: I) => Input): Show {
  return updateInput(show, inputId, (input) => (isKind(input) ? change(input) : input))
}

/** Takes an input away, with every layer that shows it; steps that put it in place of a room have nothing there then. */
export function removeInput(show: Show, inputId: string): Show {
  const cleared = (steps: readonly Step[]) =>
    steps.map((step) => (step.kind === 'room' && step.params.input === inputId ? { ...step, params: { ...step.params, input: '' } } : step))
  const plain = withoutTransitionsBy(show, inputId)
  return {
    ...plain,
    inputs: show.inputs.filter((input) => input.id !== inputId).map((input) => ({ ...input, treatment: cleared(input.treatment) })),
    favourites: show.favourites.filter((favourite) => favourite.type !== 'input' || favourite.inputId !== inputId),
    scenes: plain.scenes.map((scene) => ({
      ...scene,
      layers: mapLayers(scene.layers, (layer) => (inputIdOf(layer) === inputId ? null : { ...layer, treatment: cleared(layer.treatment) })),
    })),
  }
}

/** The scenes of a show that are scenes of their own. */
export const ownScenesOf = ({ scenes }: Pick<Show, 'scenes'>): readonly Scene[] => scenes.filter(({ graphic }) => graphic === null)

/** The scenes of a show that are laid over others. */
export const graphicsOf = ({ scenes }: Pick<Show, 'scenes'>): readonly Scene[] => scenes.filter(({ graphic }) => graphic !== null)

/** Inserts a scene at `index` of the list: a scene among the scenes, a graphic among the graphics that follow them; else as the last of its kind. */
export function addScene(show: Show, scene: Scene, index = show.scenes.length): Show {
  const own = ownScenesOf(show).length
  const at = scene.graphic === null ? Math.min(index, own) : Math.max(index, own)
  return { ...show, scenes: show.scenes.toSpliced(at, 0, scene) }
}

/** Changes a scene. */
export function updateScene(show: Show, sceneId: string, change: (scene: Scene) => Scene): Show {
  return { ...show, scenes: show.scenes.map((scene) => (scene.id === sceneId ? change(scene) : scene)) }
}

/** Takes a scene or a graphic away, with every layer that shows it; the last scene stays, since a show has at least one. */
export function removeScene(show: Show, sceneId: string): Show {
  const own = ownScenesOf(show)
  if (own.length === 1 && own[0]!.id === sceneId) return show
  const without = (layers: readonly Layer[]) => mapLayers(layers, (layer) => (sceneIdOf(layer) === sceneId ? null : layer))
  return withoutUnusedContents({
    ...show,
    transitions: withoutPairsOf(show.transitions, sceneId),
    scenes: show.scenes.filter((scene) => scene.id !== sceneId).map((scene) => ({ ...scene, layers: without(scene.layers) })),
  })
}

/** Moves a scene to `index` of the list, but not among the graphics; a graphic not among the scenes. */
export function moveScene(show: Show, sceneId: string, index: number): Show {
  const isOwn = show.scenes.find(({ id }) => id === sceneId)?.graphic === null
  const own = ownScenesOf(show).length
  return { ...show, scenes: moveItem(show.scenes, sceneId, isOwn ? Math.min(index, own - 1) : Math.max(index, own)) }
}

/** Puts a layer in front of the others, or at `index` from the back. */
export function addLayer(show: Show, sceneId: string, layer: Layer, index?: number): Show {
  return updateScene(show, sceneId, (scene) => ({
    ...scene,
    layers: scene.layers.toSpliced(index ?? scene.layers.length, 0, layer),
  }))
}

/** Changes a layer. */
export function updateLayer(show: Show, sceneId: string, layerId: string, change: (layer: Layer) => Layer): Show {
  return updateScene(show, sceneId, (scene) => ({
    ...scene,
    layers: mapLayers(scene.layers, (layer) => (layer.id === layerId ? change(layer) : layer)),
  }))
}

/** Moves a layer to `index` from the back of the list it is in: its scene's, or its group's. */
export function moveLayer(show: Show, sceneId: string, layerId: string, index: number): Show {
  return updateScene(show, sceneId, (scene) => ({ ...scene, layers: changeListOf(scene.layers, layerId, (list) => moveItem(list, layerId, index)) }))
}

/** Sets parts of a layer's placement on the scene's canvas, whatever groups it lies in; numbers beyond their ranges end there. */
export function placeLayer(show: Show, sceneId: string, layerId: string, part: Partial<Placement>): Show {
  return updateScene(show, sceneId, (scene) => {
    const groups = groupsRound(scene, layerId)
    const placed = (layer: Layer) => bounded(fromSceneCanvas({ ...toSceneCanvas(layer.placement, groups, show.canvas), ...part }, groups, show.canvas))
    return { ...scene, layers: mapLayers(scene.layers, (layer) => (layer.id === layerId ? { ...layer, placement: placed(layer) } : layer)) }
  })
}

/** The placement with each number clamped to its range. */
export function bounded({ x, y, width, height, angleDeg, fit }: Placement): Placement {
  return {
    x: withinRange(RANGES.position, x),
    y: withinRange(RANGES.position, y),
    width: withinRange(RANGES.size, width),
    height: withinRange(RANGES.size, height),
    angleDeg: withinRange(RANGES.angleDeg, angleDeg),
    fit,
  }
}

/** Makes a layer fill the canvas, upright. */
export function fitToCanvas(show: Show, sceneId: string, layerId: string, fit: FitMode): Show {
  const { widthPx, heightPx } = show.canvas
  return placeLayer(show, sceneId, layerId, { x: 0, y: 0, width: widthPx, height: heightPx, angleDeg: 0, fit })
}

/** The treatment at `home`; empty when the id is unknown. */
export function treatmentAt(show: Show, home: TreatmentHome): readonly Step[] {
  if (home.type === 'input') return show.inputs.find((input) => input.id === home.inputId)?.treatment ?? []
  const scene = show.scenes.find((candidate) => candidate.id === home.sceneId)
  return scene === undefined ? [] : (findLayer(scene, home.layerId)?.treatment ?? [])
}

/** Replaces the treatment at `home`. */
export function changeTreatment(show: Show, home: TreatmentHome, change: (steps: readonly Step[]) => readonly Step[]): Show {
  return home.type === 'input'
    ? updateInput(show, home.inputId, (input) => ({ ...input, treatment: change(input.treatment) }))
    : updateLayer(show, home.sceneId, home.layerId, (layer) => ({ ...layer, treatment: change(layer.treatment) }))
}

/** Puts a step where the order taught by core/steps has it: before the first step that comes later. */
export function addStep(show: Show, home: TreatmentHome, step: Step): Show {
  const rankOf = (kind: StepKind) => taughtSteps.findIndex((each) => each.kind === kind)
  return changeTreatment(show, home, (chain) => {
    const index = chain.findIndex((other) => rankOf(other.kind) > rankOf(step.kind))
    return chain.toSpliced(index < 0 ? chain.length : index, 0, step)
  })
}

/** Sets parameters of one step. One that was off is on then: whoever sets a value wants to see it. */
export function setStepParams(show: Show, home: TreatmentHome, stepId: string, params: Readonly<Record<string, ParamValue>>): Show {
  return changeTreatment(show, home, (steps) =>
    steps.map((step) => (step.id === stepId ? ({ ...step, on: true, params: { ...step.params, ...params } } as Step) : step)),
  )
}

/** Gives a step its default parameters, on or off as it is. */
export function resetStep(show: Show, home: TreatmentHome, stepId: string): Show {
  return changeTreatment(show, home, (steps) =>
    steps.map((step) => (step.id === stepId ? ({ ...step, params: defaultParams(stepOf(step.kind).params as ParamSpecs) } as Step) : step)),
  )
}

/** Switches one step on or off. */
export function switchStep(show: Show, home: TreatmentHome, stepId: string, on: boolean): Show {
  return changeTreatment(show, home, (steps) => steps.map((step) => (step.id === stepId ? { ...step, on } : step)))
}

/** Moves a step to `index` of its chain. */
export function moveStep(show: Show, home: TreatmentHome, stepId: string, index: number): Show {
  return changeTreatment(show, home, (steps) => moveItem(steps, stepId, index))
}

/** Moves a step to another home, in one edit: from everywhere to here only, or back. It lands where the taught order has it. */
export function moveStepHome(show: Show, from: TreatmentHome, to: TreatmentHome, stepId: string): Show {
  const step = treatmentAt(show, from).find((candidate) => candidate.id === stepId)
  if (step === undefined) return show
  return addStep(
    changeTreatment(show, from, (chain) => chain.filter((candidate) => candidate.id !== stepId)),
    to,
    step,
  )
}

/** Puts steps into a chain and switches them on. Each replaces the first step of its kind in place; a new kind goes where the recommended order has it. */
export function putSteps(show: Show, home: TreatmentHome, steps: readonly Step[]): Show {
  return steps.reduce((current, step) => {
    const known = treatmentAt(current, home).find((candidate) => candidate.kind === step.kind)
    if (known === undefined) return addStep(current, home, step)
    return changeTreatment(current, home, (chain) => chain.map((candidate) => (candidate.id === known.id ? { ...step, id: known.id } : candidate)))
  }, show)
}

/** Replaces a whole chain by another under new ids. */
export function applyChain(show: Show, home: TreatmentHome, steps: readonly Step[], makeId: () => string): Show {
  return changeTreatment(show, home, () => steps.map((step) => ({ ...step, id: makeId() })))
}

/** Kinds of a list that repeat `kind`, for naming: "Picture 2". */
export function countOfKind(inputs: readonly Input[], kind: Input['kind']): number {
  return inputs.filter((one) => one.kind === kind).length
}

/** Whether a chain holds a step of this kind. */
export function hasStep(steps: readonly Step[], kind: StepKind): boolean {
  return steps.some((step) => step.kind === kind)
}

function moveItem<T extends { readonly id: string }>(items: readonly T[], id: string, index: number): readonly T[] {
  const from = items.findIndex((item) => item.id === id)
  const item = items[from]
  if (item === undefined) return items
  return items.toSpliced(from, 1).toSpliced(index, 0, item)
}

/** Ids of the inputs that some visible layer shows. */
export function visibleInputs(show: Show): Set<string> {
  const seenIn = (layers: readonly Layer[]): string[] =>
    layers.flatMap((layer) => {
      if (!layer.visible) return []
      const children = childrenOf(layer)
      return children === null ? (inputIdOf(layer) ?? []) : seenIn(children)
    })
  return new Set(show.scenes.flatMap(({ layers }) => seenIn(layers)))
}

/** Keeps a background at hand, at the end of the list, or no longer. */
export function toggleFavourite(show: Show, favourite: Favourite): Show {
  const others = show.favourites.filter((other) => !isSameFavourite(other, favourite))
  const isKnown = others.length < show.favourites.length
  return { ...show, favourites: isKnown ? others : [...others, favourite].slice(-LIMITS.favourites) }
}

/** Whether two favourites are the same background. */
export function isSameFavourite(one: Favourite, other: Favourite): boolean {
  return one.type === 'drawn' ? other.type === 'drawn' && one.name === other.name : other.type === 'input' && one.inputId === other.inputId
}

/** Changes parts of the microphone. */
export function updateMicrophone(show: Show, part: Partial<Microphone>): Show {
  return { ...show, microphone: { ...show.microphone, ...part } }
}
