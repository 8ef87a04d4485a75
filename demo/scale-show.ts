// The demo's second show: the society reads its hive scale together. A screen, a loop, and the layouts as the studio makes them.
import { PLAIN_FRAME } from '../core/box/frame.ts'
import { newTextLayer } from '../core/layers/text.ts'
import { newScreen } from '../core/inputs/screen.ts'
import { newInputLayer } from '../core/layers/input.ts'
import { newCamera } from '../core/inputs/camera.ts'
import { arrangeScene } from '../core/layout/arrange/arrange-scene.ts'
import type { LayoutName } from '../core/layout/arrange/layouts.ts'
import { updateLayer } from '../core/show/edits.ts'
import { newMicrophone, newScene, NOBODY } from '../core/show/create.ts'
import { USUAL_STYLE } from '../core/show/style.ts'
import { USUAL_TRANSITIONS } from '../core/show/show-transitions.ts'
import { inputSourceId } from '../core/inputs/source-ids.ts'
import { SCREEN_HEIGHT_PX, SCREEN_WIDTH_PX } from '../standins/screen/drawn-screen.ts'
import type { ClipInput, Content, Layer, Scene, Show } from '../core/show/show.ts'
import { demoTreatment, type DemoAssets } from './show.ts'

export const SCALE_SHOW_ID = 'demo-hive-scale'

/** Hashes of its files in the store. */
export interface ScaleAssets extends Pick<DemoAssets, 'wall'> {
  readonly pollen: string
}

const CANVAS = { widthPx: 1280, heightPx: 720, frameRate: 30 } as const

/** Builds the show. Ids count up, so it is the same each time. */
export function scaleShow(assets: ScaleAssets): Show {
  let count = 0
  const makeId = () => `s${(count += 1)}`
  const camera = { ...newCamera('Desk camera', { type: 'standin', standin: 'cloth' } as const, CANVAS, makeId), treatment: demoTreatment(makeId) }
  const wall = { id: makeId(), kind: 'picture', name: 'Apiary wall', asset: assets.wall, treatment: [] } as const
  const screen = newScreen('Hive scale', { type: 'standin' }, makeId)
  const pollen: ClipInput = {
    id: makeId(),
    kind: 'clip',
    name: 'Drifting pollen',
    asset: assets.pollen,
    fromMs: 0,
    toMs: null,
    rate: 1,
    loops: true,
    moving: null,
    treatment: [],
  }
  const ground = (layer: Layer): Layer => ({ ...layer, placement: { ...layer.placement, fit: 'fill' } })
  const at = (layer: Layer, part: Partial<Layer['placement']>, frame: Partial<Layer['frame']> = {}): Layer => ({
    ...layer,
    placement: { ...layer.placement, ...part },
    frame: { ...PLAIN_FRAME, ...frame },
  })
  const square = { x: 784, y: 152, width: 416, height: 416, fit: 'fill' } as const
  const border = { widthPx: 13, colour: '#f3ead6', opacity: 0.7, side: 'inside' } as const
  const contents: Content[] = []
  const words = newTextLayer('Welcome words', '', CANVAS, makeId)
  for (const content of words.contents) {
    const blocks = [
      { text: 'We begin\nin a moment', weight: 700, sizePx: 68, colour: '#fff6e2' },
      { text: 'The hive scale, week by week', weight: 400, sizePx: 30, colour: '#f0d9a8' },
    ]
    contents.push(content.kind === 'text' ? { ...content, text: { ...content.text, plate: null, blocks } } : content)
  }
  const begin: Scene = {
    ...newScene('We begin soon', makeId),
    layers: [
      ground(newInputLayer(pollen, CANVAS, makeId)),
      at(words.layer, { x: 88, y: 230, width: 620, height: 260 }),
      { ...at(newInputLayer(wall, CANVAS, makeId), square, { cornerRadiusPx: 44 }), name: 'Window behind me' },
      at(newInputLayer(camera, CANVAS, makeId), square, { cornerRadiusPx: 44, border }),
    ],
  }
  const layouts: readonly (readonly [name: string, layout: LayoutName])[] = [
    ['Beside the scale', 'third'],
    ['Over my shoulder', 'shoulder'],
    ['Inside the log', 'inside'],
  ]
  const scenes = layouts.map(([name]): Scene => {
    const layers = [ground(newInputLayer(wall, CANVAS, makeId)), newInputLayer(camera, CANVAS, makeId), newInputLayer(screen, CANVAS, makeId)]
    return { ...newScene(name, makeId), layers }
  })
  const bare: Show = {
    format: 'green-room-show',
    version: 10,
    name: 'The hive scale, week by week',
    canvas: CANVAS,
    inputs: [camera, wall, screen, pollen],
    contents,
    scenes: [begin, ...scenes],
    presenter: NOBODY,
    style: USUAL_STYLE,
    transitions: USUAL_TRANSITIONS,
    favourites: [],
    microphone: newMicrophone({ type: 'standin' }),
    holdingCard: { title: 'Back in a moment', detail: 'The hive scale, week by week' },
  }
  const infos = new Map([
    [inputSourceId(camera.id), { widthPx: CANVAS.widthPx, heightPx: CANVAS.heightPx, isOpaque: true }],
    [inputSourceId(screen.id), { widthPx: SCREEN_WIDTH_PX, heightPx: SCREEN_HEIGHT_PX, isOpaque: true }],
  ])
  const arranged = layouts.reduce((show, [, name], index) => {
    const { id, layers } = scenes[index]!
    const cast = { presenters: [layers[1]!.id], page: layers[2]!.id }
    return arrangeScene(show, id, { name, side: 'left' }, cast, { infos, heads: new Map() }, { divider: 'Divider', ink: 'Ink of Hive scale' }, makeId)
  }, bare)
  // Where the page is empty there is room for a face.
  const inside = scenes[2]!
  return updateLayer(arranged, inside.id, inside.layers[1]!.id, (layer) => at(layer, { x: -150, y: 216, width: 896, height: 504 }))
}
