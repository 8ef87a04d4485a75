// Creates parts of a show. Ids are passed in: core uses no random numbers.
import { newCamera } from '../inputs/camera.ts'
import { childrenOf, withChildren } from '../layers/index.ts'
import { newInputLayer } from '../layers/input.ts'
import type { MakeId } from '../random/make-id.ts'
import { USUAL_STYLE } from './style.ts'
import { USUAL_TRANSITIONS } from './show-transitions.ts'
import type { CameraInput, Input, Layer, Microphone, Scene, Show } from './show.ts'

/** What a scene has beside its name and layers, before anybody has said more. */
export const BARE_SCENE = { locked: false, mark: null, notes: '', graphic: null, transition: null } as const

/** A scene without layers. */
export function newScene(name: string, makeId: MakeId): Scene {
  return { ...BARE_SCENE, id: makeId(), name, layers: [] }
}

/** A microphone without processing, neither the browser's nor ours. */
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

/** A copy of a scene under new ids. Its layers show the same things as before. */
export function copyScene(scene: Scene, name: string, makeId: MakeId): Scene {
  return { ...scene, id: makeId(), name, locked: false, layers: scene.layers.map((layer) => copyLayer(layer, makeId)) }
}

/** A copy of a layer under new ids. It shows the same things as before. */
export function copyLayer(layer: Layer, makeId: MakeId): Layer {
  const own = { id: makeId(), treatment: layer.treatment.map((step) => ({ ...step, id: makeId() })) }
  const copy = { ...layer, ...own }
  const children = childrenOf(layer)
  return children === null
    ? copy
    : withChildren(
        copy,
        children.map((inner) => copyLayer(inner, makeId)),
      )
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
    version: 10,
    name,
    canvas,
    inputs: [camera, wall],
    contents: [],
    scenes: [{ ...scene, layers: [newInputLayer(wall, canvas, makeId), newInputLayer(camera, canvas, makeId)] }],
    presenter: NOBODY,
    style: USUAL_STYLE,
    transitions: USUAL_TRANSITIONS,
    favourites: [],
    microphone: newMicrophone(devices.microphone),
    holdingCard: { title: 'Back in a moment', detail: name },
  }
}
