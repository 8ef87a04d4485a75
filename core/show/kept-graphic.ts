// A graphic that is kept for other shows: stored as a show that holds it alone, so that it is checked, brought up to date and drawn as one.
import { z } from 'zod'
import { contentIdOf, inputIdOf, sceneIdOf } from '../layers/index.ts'
import { layersOf, mapLayers } from '../layers/tree.ts'
import type { MakeId } from '../random/make-id.ts'
import { setCanvas } from './canvas-edits.ts'
import { addContents, withOwnContents } from './contents.ts'
import { copyLayer, newMicrophone, NOBODY } from './create.ts'
import { addInput, addScene } from './edits.ts'
import { readShow } from './migrate.ts'
import { USUAL_TRANSITIONS } from './show-transitions.ts'
import type { Content, Input, Layer, Scene, Show, Step } from './show.ts'

/** A show of an empty scene and one graphic. */
export type KeptGraphic = Show

/** The graphic of a kept one. */
export const graphicIn = ({ scenes }: KeptGraphic): Scene => scenes[1]!

/** Whether a graphic can be kept: one that shows another scene cannot leave its show. */
export const canBeKept = (graphic: Scene): boolean => layersOf(graphic).every((layer) => sceneIdOf(layer) === null)

/**
 * A graphic with all that it shows, and nothing else of its show. Throws a RangeError for one that shows another scene, and for what is no
 * graphic of the show.
 */
export function keepGraphic(show: Show, graphicId: string, name: string): KeptGraphic {
  const graphic = show.scenes.find(({ id }) => id === graphicId)
  if (graphic === undefined || graphic.graphic === null) throw new RangeError(`the show has no graphic "${graphicId}"`)
  if (!canBeKept(graphic)) throw new RangeError(`the graphic "${graphicId}" shows another scene`)
  const layers = layersOf(graphic)
  const contentIds = new Set(layers.map(contentIdOf))
  const inputIds = new Set(layers.map(inputIdOf))
  // What stands in for a room is an input too.
  const treatments = [...layers, ...show.inputs.filter(({ id }) => inputIds.has(id))].flatMap(({ treatment }) => treatment)
  for (const step of treatments) if (step.kind === 'room') inputIds.add(step.params.input)
  const empty: Scene = { id: 'empty', name, locked: false, mark: null, notes: '', graphic: null, transition: null, layers: [] }
  return {
    ...show,
    name,
    inputs: show.inputs.filter(({ id }) => inputIds.has(id)),
    contents: show.contents.filter(({ id }) => contentIds.has(id)),
    scenes: [empty, { ...graphic, id: 'graphic', name, locked: false, notes: '', transition: null }],
    presenter: NOBODY,
    transitions: USUAL_TRANSITIONS,
    favourites: [],
    microphone: newMicrophone({ type: 'none' }),
    holdingCard: { title: name, detail: '' },
  }
}

/** A stored one of any version, under its name. Throws as readShow does, and a ZodError for a show that is more than a graphic. */
export function readKeptGraphic(stored: unknown, name: string): KeptGraphic {
  const show = readShow(stored)
  const isOne = show.scenes.length === 2 && graphicIn(show).graphic !== null && show.scenes[0]!.layers.length === 0
  if (!isOne) {
    const message = 'must be an empty scene and one graphic'
    throw new z.ZodError([{ code: 'custom', path: ['scenes'], message, input: undefined }])
  }
  const [empty, graphic] = show.scenes as [Scene, Scene]
  return { ...show, name, scenes: [empty, { ...graphic, name }] }
}

/** Puts a copy of a kept graphic into a show, at the size of its canvas. Inputs that the show has already are not added again. */
export function addKeptGraphic(show: Show, kept: KeptGraphic, makeId: MakeId): { readonly show: Show; readonly graphicId: string } {
  const sized = setCanvas(kept, { ...show.canvas })
  /** What its inputs are called in the show. */
  const ids = new Map<string, string>()
  for (const input of sized.inputs) {
    const known = show.inputs.find((one) => isSameInput(one, input))
    const isTaken = show.inputs.some(({ id }) => id === input.id)
    ids.set(input.id, known?.id ?? (isTaken ? makeId() : input.id))
  }
  const missing = sized.inputs.filter(({ id }) => !show.inputs.some((one) => one.id === ids.get(id)))
  const withInputs = missing.reduce<Show>((next, input) => addInput(next, { ...renamedIn(input, ids), id: ids.get(input.id)! }), show)
  return addCopy(
    withInputs,
    graphicIn(sized),
    sized.contents,
    (layer) => {
      const inputId = inputIdOf(layer)
      const own = renamedIn(layer, ids)
      return inputId === null ? own : ({ ...own, inputId: ids.get(inputId) ?? inputId } as Layer)
    },
    makeId,
  )
}

/** Puts a copy of a graphic after the others, under a name; its words and shapes are its own. An unknown id changes nothing. */
export function copyGraphic(show: Show, graphicId: string, name: string, makeId: MakeId): { readonly show: Show; readonly graphicId: string } {
  const graphic = show.scenes.find(({ id }) => id === graphicId)
  if (graphic === undefined) return { show, graphicId }
  return addCopy(show, { ...graphic, name, graphic: { key: null }, locked: false }, show.contents, (layer) => layer, makeId)
}

function addCopy(
  show: Show,
  graphic: Scene,
  contents: readonly Content[],
  change: (layer: Layer) => Layer,
  makeId: MakeId,
): { readonly show: Show; readonly graphicId: string } {
  const layers = mapLayers(graphic.layers, change).map((layer) => copyLayer(layer, makeId))
  const made = withOwnContents({ contents }, layers, makeId)
  const copy: Scene = { ...graphic, id: makeId(), layers: made.layers }
  return { show: addContents(addScene(show, copy), made.contents), graphicId: copy.id }
}

function isSameInput({ id: _id, name: _name, ...own }: Input, { id: _otherId, name: _otherName, ...other }: Input): boolean {
  return JSON.stringify(own) === JSON.stringify(other)
}

/** What stands in for a room, by its name in the show. */
function renamedIn<H extends { readonly treatment: readonly Step[] }>(home: H, ids: ReadonlyMap<string, string>): H {
  const renamed = (step: Step): Step =>
    step.kind === 'room' ? { ...step, params: { ...step.params, input: ids.get(step.params.input) ?? step.params.input } } : step
  return { ...home, treatment: home.treatment.map(renamed) }
}
