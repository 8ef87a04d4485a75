// The show: the whole document, to be read from top to bottom. `schema.ts` holds its stored form. Inputs and layers are described kind by
// kind in core/inputs and core/layers; their types are passed on here, so that who works on a show imports one file.
import type { Input } from '../inputs/input.ts'
import type { Content, Layer } from '../layers/layer.ts'
import type { Transition } from '../transitions/index.ts'
import type { ShowTransitions } from './show-transitions.ts'
import type { ShowStyle } from './style.ts'

export type { Crop, FitMode } from '../box/fit.ts'
export { borderSides, frameForms, type Border, type Frame, type FrameForm, type Shadow } from '../box/frame.ts'
export type { Placement } from '../box/placement.ts'
export { standinCameras, type CameraDevice, type CameraInput, type StandinCamera } from '../inputs/camera.ts'
export type { ClipInput } from '../inputs/clip.ts'
export type { ColourInput } from '../inputs/colour.ts'
export type { DeckInput, DeckPage } from '../inputs/deck.ts'
export type { Input, InputKind } from '../inputs/input.ts'
export type { PictureInput } from '../inputs/picture.ts'
export type { ScreenInput, ScreenSource } from '../inputs/screen.ts'
export type { GroupLayer } from '../layers/group.ts'
export type { InputLayer } from '../layers/input.ts'
export { layerParts, type Content, type Layer, type LayerKind, type LayerPart, type NewLayer } from '../layers/layer.ts'
export type { SceneLayer } from '../layers/scene.ts'
export type { ShapeLayer } from '../layers/shape.ts'
export type { TextLayer } from '../layers/text.ts'
export type { Outline, Stroke } from '../outline/outline.ts'
export type { Fill, FillStop } from '../paint/fill.ts'
export type { Step } from '../steps/treatment.ts'

/** Where the voice comes from. */
export type MicrophoneDevice =
  | { readonly type: 'none' }
  | { readonly type: 'standin' }
  /** `deviceId` and `label` as the browser gave them; the label finds a device whose id changed. */
  | { readonly type: 'device'; readonly deviceId: string; readonly label: string }

/** Which of a microphone's two sides is heard: both where they are, or one or the mean of them on both sides. */
export const voiceSides = ['both', 'left', 'right', 'mean'] as const
export type VoiceSides = (typeof voiceSides)[number]

export interface Microphone {
  readonly device: MicrophoneDevice
  /** The browser's own work on the sound; off unless asked for. */
  readonly echoCancellation: boolean
  readonly noiseSuppression: boolean
  readonly autoGainControl: boolean
  readonly gainDb: number
  readonly sides: VoiceSides
  /** Extra delay of the voice in ms, on top of what is measured along the way. */
  readonly delayMs: number
}

/** Colours that scenes are told apart by. */
export const sceneMarks = ['brass', 'leaf', 'slate', 'clay', 'plum'] as const
export type SceneMark = (typeof sceneMarks)[number]

/** One arrangement the audience may see; `layers` run from back to front. */
export interface Scene {
  readonly id: string
  readonly name: string
  /** Nothing in it moves, changes or goes by accident. */
  readonly locked: boolean
  readonly mark: SceneMark | null
  /** What the presenter wants to remember; the audience never sees it. */
  readonly notes: string
  /** What makes it a graphic, which is laid over other scenes; null for a scene of its own. Graphics come after all scenes. */
  readonly graphic: Graphic | null
  /** How it comes on air, from whichever scene; null: by the show's default. */
  readonly transition: Transition | null
  readonly layers: readonly Layer[]
}

/** A scene that is laid over others. */
export interface Graphic {
  /** Brings it on and takes it off, as "KeyN" or "$mod+F2"; null for none. */
  readonly key: string | null
}

/** Who presents, and until when a countdown runs. */
export interface Presenter {
  readonly name: string
  readonly title: string
  /** A time of the day, "HH:MM"; null: nothing is counted down to. */
  readonly countdownTo: string | null
}

/** A background that is kept at hand. */
export type Favourite = { readonly type: 'drawn'; readonly name: string } | { readonly type: 'input'; readonly inputId: string }

export interface Show {
  readonly format: 'green-room-show'
  readonly version: 10
  readonly name: string
  readonly canvas: { readonly widthPx: number; readonly heightPx: number; readonly frameRate: number }
  readonly inputs: readonly Input[]
  readonly contents: readonly Content[]
  readonly scenes: readonly Scene[]
  /** What texts say where they name a field: {name}, {title}, {countdown}. */
  readonly presenter: Presenter
  /** Colours and typefaces that graphics share. */
  readonly style: ShowStyle
  /** How scenes follow each other. */
  readonly transitions: ShowTransitions
  /** Backgrounds that are one press away: names of drawn ones, and ids of inputs. */
  readonly favourites: readonly Favourite[]
  readonly microphone: Microphone
  /** What the audience sees when there is no live picture. */
  readonly holdingCard: { readonly title: string; readonly detail: string }
}
