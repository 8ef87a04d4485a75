// The demo show: a beekeepers' society gives an evening class on reading a brood frame.
import { PLAIN_FRAME } from '../core/box/frame.ts'
import { newTextLayer } from '../core/layers/text.ts'
import { newStep } from '../core/steps/treatment.ts'
import { newInputLayer } from '../core/layers/input.ts'
import { newCamera } from '../core/inputs/camera.ts'
import type { NewLayer } from '../core/show/show.ts'
import type { Content, Layer, Show, Step, TextLayer } from '../core/show/show.ts'
import type { TextContent } from '../core/text/text-content.ts'
import { newMicrophone, newScene, NOBODY } from '../core/show/create.ts'
import { USUAL_STYLE } from '../core/show/style.ts'
import { USUAL_TRANSITIONS } from '../core/show/show-transitions.ts'
import type { StepKind } from '../core/steps/index.ts'
import type { ParamValue } from '../core/steps/step.ts'

export const DEMO_SHOW_ID = 'demo-brood-frame'

/** Hashes of the demo's pictures in the store. */
export interface DemoAssets {
  readonly wall: string
  readonly mark: string
  readonly meadow: string
}

const CANVAS = { widthPx: 1280, heightPx: 720, frameRate: 30 } as const

/** What the demo's texts say, line by line. */
const CLASS_TITLE: TextContent['blocks'] = [
  { text: 'Reading a brood frame', weight: 700, sizePx: 42, colour: '#ffffff' },
  { text: 'Evening class · part 2 of 4', weight: 400, sizePx: 24, colour: '#d8e5dd' },
]
const TONIGHT: TextContent['blocks'] = [
  { text: 'What a healthy\nframe shows', weight: 700, sizePx: 64, colour: '#1d2a26' },
  { text: ' ', weight: 400, sizePx: 20, colour: '#1d2a26' },
  { text: '1  Capped brood, even and tan', weight: 400, sizePx: 34, colour: '#35463f' },
  { text: '2  A rainbow of pollen above', weight: 400, sizePx: 34, colour: '#35463f' },
  { text: '3  Eggs standing upright', weight: 400, sizePx: 34, colour: '#35463f' },
]
const CLOSING: TextContent['blocks'] = [
  { text: 'Thank you, and good night', weight: 700, sizePx: 64, colour: '#fff6e2' },
  { text: 'Next class: swarms, and how to prevent them', weight: 400, sizePx: 30, colour: '#f0d9a8' },
]

/** Builds the demo show. Ids count up, so the show is the same each time. */
export function demoShow(assets: DemoAssets): Show {
  let count = 0
  const makeId = () => `d${(count += 1)}`
  const camera = { ...newCamera('Desk camera', { type: 'standin', standin: 'cloth' } as const, CANVAS, makeId), treatment: demoTreatment(makeId) }
  const wall = { id: makeId(), kind: 'picture', name: 'Apiary wall', asset: assets.wall, treatment: [] } as const
  const mark = { id: makeId(), kind: 'picture', name: 'Society mark', asset: assets.mark, treatment: [] } as const
  const meadow = { id: makeId(), kind: 'picture', name: 'Evening meadow', asset: assets.meadow, treatment: [] } as const
  const paper = { id: makeId(), kind: 'colour', name: 'Paper', colour: '#f3ead6', treatment: [] } as const

  const onCanvas = (layer: Layer, part: Partial<Layer['placement']>, radius = 0): Layer => ({
    ...layer,
    placement: { ...layer.placement, ...part },
    frame: { ...PLAIN_FRAME, cornerRadiusPx: radius },
  })
  const wallLayer = () => onCanvas(newInputLayer(wall, CANVAS, makeId), { fit: 'fill' })
  const markLayer = () => onCanvas(newInputLayer(mark, CANVAS, makeId), { x: 1128, y: 36, width: 112, height: 112 })

  const contents: Content[] = []
  /** A text layer that says something, its text among the contents. */
  const says = ({ layer, contents: [first] }: NewLayer<TextLayer>, text: Partial<TextContent>, part: Partial<Layer['placement']>, radius = 0): Layer => {
    if (first?.kind === 'text') contents.push({ ...first, text: { ...first.text, ...text } })
    return onCanvas(layer, part, radius)
  }
  const title = newTextLayer('Class title', 'Reading a brood frame', CANVAS, makeId)
  const classTitle = says(title, { blocks: CLASS_TITLE }, { x: 64, y: 556, width: 560, height: 116 }, 4)
  const points = newTextLayer('Tonight', '', CANVAS, makeId)
  const tonight = says(points, { plate: null, blocks: TONIGHT }, { x: 72, y: 150, width: 680, height: 420 })
  const closing = says(
    newTextLayer('Thank you', '', CANVAS, makeId),
    {
      align: 'centre',
      plate: null,
      blocks: CLOSING,
    },
    { x: 140, y: 150, width: 1000, height: 190 },
  )

  return {
    format: 'green-room-show',
    version: 10,
    name: 'Reading a brood frame',
    canvas: CANVAS,
    inputs: [camera, wall, mark, meadow, paper],
    contents,
    scenes: [
      { ...newScene('Welcome', makeId), layers: [wallLayer(), newInputLayer(camera, CANVAS, makeId), classTitle, markLayer()] },
      { ...newScene('Just me', makeId), layers: [wallLayer(), newInputLayer(camera, CANVAS, makeId)] },
      {
        ...newScene('Key points', makeId),
        layers: [
          newInputLayer(paper, CANVAS, makeId),
          tonight,
          onCanvas({ ...newInputLayer(wall, CANVAS, makeId), name: 'Window behind me' }, { x: 784, y: 130, width: 416, height: 460, fit: 'fill' }, 30),
          onCanvas(newInputLayer(camera, CANVAS, makeId), { x: 784, y: 130, width: 416, height: 460, fit: 'fill' }, 30),
        ],
      },
      {
        ...newScene('Closing card', makeId),
        layers: [
          onCanvas(newInputLayer(meadow, CANVAS, makeId), { fit: 'fill' }),
          closing,
          onCanvas(newInputLayer(mark, CANVAS, makeId), { x: 590, y: 36, width: 100, height: 100 }),
        ],
      },
    ],
    presenter: NOBODY,
    style: USUAL_STYLE,
    transitions: USUAL_TRANSITIONS,
    favourites: [],
    microphone: newMicrophone({ type: 'standin' }),
    holdingCard: { title: 'Back in a moment', detail: 'Reading a brood frame' },
  }
}

/** Cloth edges and lamp off, a little brighter, the cloth gone, the edge solved, no green on the wool. */
export function demoTreatment(makeId: () => string): Step[] {
  const step = (kind: StepKind, params: Readonly<Record<string, ParamValue>>, on = true) =>
    ({ ...newStep(kind, makeId), on, params: { ...newStep(kind, makeId).params, ...params } }) as Step
  return [
    step('crop', { left: 13, right: 10 }),
    step('balance', {}),
    step('tone', { exposure: 0.15, contrast: 1.04 }),
    step('chromaKey', { colour: '#2bb552', tolerance: 0.3, softness: 0.6 }),
    step('look', { look: 'morningTea', amount: 0.6 }, false),
    step('sharpen', {}, false),
  ]
}
