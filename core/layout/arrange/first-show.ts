// What a new show begins with: scenes for what it is for, each an ordinary scene that can be changed or deleted.
import { newCamera } from '../../inputs/camera.ts'
import { newScreen } from '../../inputs/screen.ts'
import { inputIdOf } from '../../layers/index.ts'
import { newInputLayer } from '../../layers/input.ts'
import { newTextLayer } from '../../layers/text.ts'
import type { MakeId } from '../../random/make-id.ts'
import { addContents } from '../../show/contents.ts'
import { newScene, newShow, standinDevices, type FirstDevices } from '../../show/create.ts'
import { addInput, addLayer, addScene } from '../../show/edits.ts'
import type { CameraInput, Input, Layer, Show } from '../../show/show.ts'
import { arrangeScene } from './arrange-scene.ts'
import type { LayoutName } from './layouts.ts'

/** What a show can be for, in the order it is offered. */
export const purposes = ['talk', 'slides', 'table', 'other'] as const
export type Purpose = (typeof purposes)[number]

/** The scenes that are made, whatever for. */
export const firstScenes = [
  'named',
  'alone',
  'soon',
  'beside',
  'shoulder',
  'corner',
  'tableAndYou',
  'tableAlone',
  'first',
  'welcome',
  'guestAndYou',
  'guestAlone',
  'film',
  'board',
  'questions',
  'thanks',
] as const
export type FirstScene = (typeof firstScenes)[number]

/** The words of a new show, in the presenter's language. */
export interface FirstWords {
  readonly camera: string
  readonly wall: string
  readonly screen: string
  readonly table: string
  readonly text: string
  readonly divider: string
  readonly ink: string
  /** What the text of a scene says at first. */
  readonly yourName: string
  readonly backSoon: string
  readonly thanks: string
  readonly scenes: Readonly<Record<FirstScene, string>>
}

type Part = 'wall' | 'screen' | 'table' | 'camera' | 'yourName' | 'backSoon' | 'thanks'

/** How a scene is made. */
export interface Recipe {
  readonly name: FirstScene
  /** From back to front. */
  readonly parts: readonly Part[]
  /** Where the presenter is, and what is shown; as they come without one. */
  readonly layout?: LayoutName
}

const ALONE: Recipe = { name: 'alone', parts: ['wall', 'camera'] }
const recipes: Readonly<Record<Purpose, readonly Recipe[]>> = {
  talk: [{ name: 'named', parts: ['wall', 'camera', 'yourName'] }, ALONE, { name: 'soon', parts: ['wall', 'backSoon'] }],
  slides: [
    { name: 'beside', parts: ['wall', 'camera', 'screen'], layout: 'third' },
    { name: 'shoulder', parts: ['wall', 'camera', 'screen'], layout: 'shoulder' },
    { name: 'corner', parts: ['wall', 'screen', 'camera'], layout: 'cornerBottom' },
    ALONE,
  ],
  table: [{ name: 'tableAndYou', parts: ['table', 'camera'], layout: 'cornerBottom' }, { name: 'tableAlone', parts: ['table'] }, ALONE],
  other: [{ name: 'first', parts: ['wall', 'camera'] }],
}

/** The devices of a new show; `table` is what stands above the table. */
export interface ShowDevices extends FirstDevices {
  readonly table: CameraInput['device']
}

export const standinShowDevices: ShowDevices = { ...standinDevices, table: { type: 'standin', standin: 'table' } }

/** A new show with scenes for a purpose; the feed starts with the first of them. Inputs that no scene shows are not made. */
export function firstShow(name: string, purpose: Purpose, words: FirstWords, makeId: MakeId, devices = standinShowDevices): Show {
  return showOf(name, recipes[purpose], words, makeId, devices)
}

/** A new show with scenes as they are told. Inputs that no scene shows are not made. */
export function showOf(name: string, told: readonly Recipe[], words: FirstWords, makeId: MakeId, devices = standinShowDevices): Show {
  const bare = newShow(name, { scene: '', camera: words.camera, wall: words.wall }, makeId, devices)
  const needed = new Set(told.flatMap(({ parts }) => parts))
  const [camera, wall] = bare.inputs as [CameraInput, Input]
  const inputs = new Map<Part, Input>([
    ['camera', camera],
    ['wall', wall],
  ])
  if (needed.has('screen')) inputs.set('screen', newScreen(words.screen, { type: 'shared', label: '' }, makeId))
  if (needed.has('table')) inputs.set('table', newCamera(words.table, devices.table, bare.canvas, makeId))
  const used = [...inputs].filter(([part]) => needed.has(part)).map(([, input]) => input)
  const empty = used.reduce(addInput, { ...bare, inputs: [], scenes: [], holdingCard: { title: words.backSoon, detail: name } })
  return told.reduce((show, recipe) => withScene(show, recipe, inputs, words, makeId), empty)
}

function withScene(show: Show, { name, parts, layout }: Recipe, inputs: ReadonlyMap<Part, Input>, words: FirstWords, makeId: MakeId): Show {
  const scene = newScene(words.scenes[name], makeId)
  const filled = parts.reduce((made, part) => withPart(made, scene.id, part, inputs, words, makeId), addScene(show, scene))
  if (layout === undefined) return filled
  const layers = filled.scenes.at(-1)!.layers
  const layerOf = (part: Part) => layers.find((layer) => inputIdOf(layer) === inputs.get(part)?.id)?.id
  const cast = { presenters: [layerOf('camera')].filter((id) => id !== undefined), page: layerOf('screen') ?? layerOf('table') ?? null }
  const facts = { infos: new Map(), heads: new Map() }
  return arrangeScene(filled, scene.id, { name: layout, side: 'right' }, cast, facts, { divider: words.divider, ink: words.ink }, makeId)
}

function withPart(show: Show, sceneId: string, part: Part, inputs: ReadonlyMap<Part, Input>, words: FirstWords, makeId: MakeId): Show {
  const input = inputs.get(part)
  if (input !== undefined) return addLayer(show, sceneId, newInputLayer(input, show.canvas, makeId))
  const isCard = part === 'backSoon' || part === 'thanks'
  const said = part === 'backSoon' ? words.backSoon : part === 'thanks' ? words.thanks : words.yourName
  const { layer, contents } = newTextLayer(words.text, said, show.canvas, makeId)
  return addLayer(addContents(show, contents), sceneId, isCard ? centred(layer, show) : layer)
}

function centred<L extends Layer>(layer: L, { canvas }: Pick<Show, 'canvas'>): L {
  const { width, height } = layer.placement
  return { ...layer, placement: { ...layer.placement, x: Math.round((canvas.widthPx - width) / 2), y: Math.round((canvas.heightPx - height) / 2) } }
}
