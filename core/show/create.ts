// New parts of a show. Ids come from outside, since core has no chance of its own.
import { defaultParams } from '../steps/step.ts'
import { stepOf, type StepKind } from '../steps/index.ts'
import { OUTLINE_BOX, usualOutlines, type OutlineName } from '../outline/usual-outlines.ts'
import type { MakeId } from './make-id.ts'
import { USUAL_LETTERS } from '../text/text-content.ts'
import type {
  CameraInput,
  Frame,
  GroupLayer,
  Input,
  InputLayer,
  Layer,
  Microphone,
  NewLayer,
  Scene,
  SceneLayer,
  ScreenInput,
  ScreenSource,
  ShapeLayer,
  Show,
  Step,
  TextLayer,
} from './show.ts'

export type { MakeId }

/** A step with default values, on. */
export function newStep(kind: StepKind, makeId: MakeId): Step {
  return { id: makeId(), kind, on: true, params: defaultParams(stepOf(kind).params) } as Step
}

/** What a scene has beside its name and layers, before anybody has said more. */
export const BARE_SCENE = { locked: false, mark: null, notes: '' } as const

/** A scene without layers. */
export function newScene(name: string, makeId: MakeId): Scene {
  return { ...BARE_SCENE, id: makeId(), name, layers: [] }
}

/** A camera input with the first steps of a clean-up, the key off until a backdrop is picked. */
export function newCamera(name: string, device: CameraInput['device'], canvas: Show['canvas'], makeId: MakeId): CameraInput {
  return {
    id: makeId(),
    kind: 'camera',
    name,
    device,
    widthPx: canvas.widthPx,
    heightPx: canvas.heightPx,
    frameRate: canvas.frameRate,
    treatment: [newStep('crop', makeId), newStep('balance', makeId), newStep('tone', makeId), { ...newStep('chromaKey', makeId), on: false }],
  }
}

/** How many pictures a second a new screen gives at most. */
export const SCREEN_RATE = 30

/** A screen input, seen whole. */
export function newScreen(name: string, source: ScreenSource, makeId: MakeId): ScreenInput {
  return { id: makeId(), kind: 'screen', name, source, frameRate: SCREEN_RATE, treatment: [newStep('crop', makeId)] }
}

/** A microphone that is worked on by nobody: neither by the browser nor by us. */
export function newMicrophone(device: Microphone['device']): Microphone {
  return { device, echoCancellation: false, noiseSuppression: false, autoGainControl: false, gainDb: 0, sides: 'both', delayMs: 0 }
}

/** The devices that a new show begins with. */
export interface FirstDevices {
  readonly camera: CameraInput['device']
  readonly microphone: Microphone['device']
}

/** What a show begins with where there is no real device. */
export const standinDevices: FirstDevices = { camera: { type: 'standin', standin: 'cloth' }, microphone: { type: 'standin' } }

/** A sharp box with nothing round it. */
export const PLAIN_FRAME: Frame = { form: 'box', cornerRadiusPx: 0, border: null, shadow: null }

/** A layer that shows an input over the whole canvas, fitted. */
export function newInputLayer(input: Input, canvas: Show['canvas'], makeId: MakeId): InputLayer {
  return {
    id: makeId(),
    kind: 'input',
    inputId: input.id,
    name: input.name,
    visible: true,
    locked: false,
    opacity: 1,
    part: null,
    crop: null,
    blend: 'normal',
    placement: {
      x: 0,
      y: 0,
      width: canvas.widthPx,
      height: canvas.heightPx,
      angleDeg: 0,
      fit: input.kind === 'picture' || input.kind === 'screen' ? 'fit' : 'fill',
    },
    frame: PLAIN_FRAME,
    entrance: null,
    exit: null,
    treatment: [],
  }
}

/** A title on a plate in the lower left, inside the title-safe area. */
export function newTextLayer(name: string, text: string, canvas: Show['canvas'], makeId: MakeId): NewLayer<TextLayer> {
  const unit = canvas.heightPx / 720
  const id = makeId()
  const layer: TextLayer = {
    id,
    kind: 'text',
    contentId: id,
    name,
    visible: true,
    locked: false,
    opacity: 1,
    part: null,
    crop: null,
    blend: 'normal',
    placement: {
      x: Math.round(canvas.widthPx * 0.05),
      y: Math.round(canvas.heightPx * 0.78),
      width: Math.round(560 * unit),
      height: Math.round(100 * unit),
      angleDeg: 0,
      fit: 'fit',
    },
    frame: { ...PLAIN_FRAME, cornerRadiusPx: Math.round(4 * unit) },
    entrance: null,
    exit: null,
    treatment: [],
  }
  const content = {
    ...USUAL_LETTERS,
    family: 'Bricolage Grotesque' as const,
    align: 'start' as const,
    blocks: [{ text, weight: 700, sizePx: Math.round(40 * unit), colour: '#ffffff' }],
    plate: { colour: '#1e5b47', opacity: 0.96, paddingPx: Math.round(24 * unit), accent: '#e0b04b' },
  }
  return { layer, contents: [{ id, kind: 'text', text: content }] }
}

function newLayerBase(name: string, placement: Layer['placement'], makeId: MakeId) {
  return {
    id: makeId(),
    name,
    visible: true,
    locked: false,
    opacity: 1,
    part: null,
    crop: null,
    blend: 'normal' as const,
    placement,
    frame: PLAIN_FRAME,
    entrance: null,
    exit: null,
    treatment: [],
  }
}

/** A coloured form in the middle of the canvas. */
export function newShapeLayer(name: string, form: Frame['form'], canvas: Show['canvas'], makeId: MakeId): NewLayer<ShapeLayer> {
  const side = Math.round(canvas.heightPx / 3)
  const width = form === 'box' ? side * 2 : side
  const placement = {
    x: Math.round((canvas.widthPx - width) / 2),
    y: Math.round((canvas.heightPx - side) / 2),
    width,
    height: side,
    angleDeg: 0,
    fit: 'stretch' as const,
  }
  const base = newLayerBase(name, placement, makeId)
  return {
    layer: { ...base, kind: 'shape', contentId: base.id, frame: { ...PLAIN_FRAME, form } },
    contents: [{ id: base.id, kind: 'shape', fill: { kind: 'plain', colour: '#1e5b47', opacity: 1 }, outline: null }],
  }
}

/** A drawn form in the middle of the canvas. */
export function newOutlineLayer(name: string, form: OutlineName, canvas: Show['canvas'], makeId: MakeId): NewLayer<ShapeLayer> {
  const { layer, contents } = newShapeLayer(name, 'softSquare', canvas, makeId)
  const outline = { path: usualOutlines[form], width: OUTLINE_BOX, height: OUTLINE_BOX, stroke: null }
  return { layer: { ...layer, frame: PLAIN_FRAME }, contents: contents.map((content) => (content.kind === 'shape' ? { ...content, outline } : content)) }
}

/** A line across the middle: a thin box with round ends. */
export function newLineLayer(name: string, canvas: Show['canvas'], makeId: MakeId): NewLayer<ShapeLayer> {
  const { layer, contents } = newShapeLayer(name, 'box', canvas, makeId)
  const thick = Math.max(1, Math.round(canvas.heightPx / 120))
  const placement = { ...layer.placement, y: Math.round((canvas.heightPx - thick) / 2), height: thick }
  return { layer: { ...layer, placement, frame: { ...layer.frame, cornerRadiusPx: thick / 2 } }, contents }
}

/** Layers together, where they are. */
export function newGroupLayer(name: string, layers: readonly Layer[], canvas: Show['canvas'], makeId: MakeId): GroupLayer {
  const placement = { x: 0, y: 0, width: canvas.widthPx, height: canvas.heightPx, angleDeg: 0, fit: 'stretch' as const }
  return { ...newLayerBase(name, placement, makeId), kind: 'group', layers }
}

/** Another scene as a picture, over the whole canvas. */
export function newSceneLayer(scene: Scene, canvas: Show['canvas'], makeId: MakeId): SceneLayer {
  const placement = { x: 0, y: 0, width: canvas.widthPx, height: canvas.heightPx, angleDeg: 0, fit: 'fit' as const }
  return { ...newLayerBase(scene.name, placement, makeId), kind: 'scene', sceneId: scene.id }
}

/** A copy of a scene under new ids. Its layers show the same things as before. */
export function copyScene(scene: Scene, name: string, makeId: MakeId): Scene {
  return { ...scene, id: makeId(), name, locked: false, layers: scene.layers.map((layer) => copyLayer(layer, makeId)) }
}

/** A copy of a layer under new ids. It shows the same things as before. */
export function copyLayer(layer: Layer, makeId: MakeId): Layer {
  const own = { id: makeId(), treatment: layer.treatment.map((step) => ({ ...step, id: makeId() })) }
  return layer.kind === 'group' ? { ...layer, ...own, layers: layer.layers.map((inner) => copyLayer(inner, makeId)) } : { ...layer, ...own }
}

/** A presenter that is not named yet. */
export const NOBODY: Show['presenter'] = { name: '', title: '', countdownTo: null }

/** A show with one scene: a camera over a plain wall, and a microphone. */
export function newShow(name: string, words: { scene: string; camera: string; wall: string }, makeId: MakeId, devices = standinDevices): Show {
  const canvas = { widthPx: 1280, heightPx: 720, frameRate: 30 }
  const wall: Input = { id: makeId(), kind: 'colour', name: words.wall, colour: '#8fa396', treatment: [] }
  const camera = newCamera(words.camera, devices.camera, canvas, makeId)
  const scene = newScene(words.scene, makeId)
  return {
    format: 'green-room-show',
    version: 6,
    name,
    canvas,
    inputs: [camera, wall],
    contents: [],
    scenes: [{ ...scene, layers: [newInputLayer(wall, canvas, makeId), newInputLayer(camera, canvas, makeId)] }],
    presenter: NOBODY,
    microphone: newMicrophone(devices.microphone),
    holdingCard: { title: 'Back in a moment', detail: name },
  }
}
