// The show as types: the whole document in one file, though a long one, to be read from top to bottom. `schema.ts` holds the zod form; the
// compiler holds that to these.
import type { BlendName } from '../blend/index.ts'
import type { Appearance } from '../motion/appearance.ts'
import type { Crop, FitMode } from '../layout/fit.ts'
import type { StepKind, StepParams } from '../steps/index.ts'
import type { TextContent } from '../text/text-content.ts'

export type { Crop }

/** One step of a treatment. */
export type Step = {
  [K in StepKind]: { readonly id: string; readonly kind: K; readonly on: boolean; readonly params: StepParams<K> }
}[StepKind]

/** Simulated cameras that ship with the program. */
export const standinCameras = [
  'cloth',
  'evenCloth',
  'unevenCloth',
  'creasedCloth',
  'noisyCloth',
  'blueCloth',
  'heavySpill',
  'warmLight',
  'dimLight',
  'darkNoisyCloth',
  'whiteWall',
  'untidyRoom',
  'table',
] as const
export type StandinCamera = (typeof standinCameras)[number]

/** Where a camera's pictures come from. */
export type CameraDevice =
  | { readonly type: 'standin'; readonly standin: StandinCamera }
  /** `deviceId` and `label` as the browser gave them; the label finds a device whose id changed. */
  | {
      readonly type: 'device'
      readonly deviceId: string
      readonly label: string
      /** The camera's own settings that are held, by the browser's name for them; others are left to the camera. */
      readonly controls?: Readonly<Record<string, number | string>>
    }

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
  /** How long the voice waits for the picture, beside what is measured on the way. */
  readonly delayMs: number
}

interface InputBase {
  readonly id: string
  readonly name: string
  /** Applies everywhere this input is used. */
  readonly treatment: readonly Step[]
}

export interface CameraInput extends InputBase {
  readonly kind: 'camera'
  readonly device: CameraDevice
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
}

export interface PictureInput extends InputBase {
  readonly kind: 'picture'
  /** SHA-256 of the file, lower-case hex. */
  readonly asset: string
}

/** Where a screen's pictures come from. */
export type ScreenSource =
  | { readonly type: 'standin' }
  /** A window, a tab or a whole screen that the presenter shares anew each time: browsers let no page do so by itself. `label` is the last one's. */
  | { readonly type: 'shared'; readonly label: string }

export interface ScreenInput extends InputBase {
  readonly kind: 'screen'
  readonly source: ScreenSource
  /** How many pictures a second are taken at most; while nothing moves there are none. */
  readonly frameRate: number
}

/** A moving picture from a file. */
export interface ClipInput extends InputBase {
  readonly kind: 'clip'
  /** SHA-256 of the file, lower-case hex. */
  readonly asset: string
  /** The part that is played, in ms of the file; `toMs` null: to its end. */
  readonly fromMs: number
  readonly toMs: number | null
  /** 1: as fast as it was made. */
  readonly rate: number
  /** Whether it begins again at its end, or holds its last picture. */
  readonly loops: boolean
}

export interface ColourInput extends InputBase {
  readonly kind: 'colour'
  readonly colour: string
}

export type Input = CameraInput | ScreenInput | PictureInput | ClipInput | ColourInput
export type InputKind = Input['kind']

/** A box on the canvas, in canvas pixels, turned about its centre (clockwise). */
export interface Placement {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly angleDeg: number
  readonly fit: FitMode
}

export const frameForms = ['box', 'ellipse', 'softSquare'] as const
export type FrameForm = (typeof frameForms)[number]
export const borderSides = ['inside', 'outside'] as const

export interface Border {
  readonly widthPx: number
  readonly colour: string
  /** 0..1 */
  readonly opacity: number
  /** On which side of the frame's edge it runs. */
  readonly side: (typeof borderSides)[number]
}

export interface Shadow {
  /** How far it lies from its layer, in the layer's own directions; right and down are positive. */
  readonly dx: number
  readonly dy: number
  /** As CSS has it: twice the gaussian's deviation. */
  readonly blurPx: number
  readonly colour: string
  /** 0..1 */
  readonly opacity: number
}

/** What a layer is seen through, and what goes round it. */
export interface Frame {
  readonly form: FrameForm
  /** Of a box. */
  readonly cornerRadiusPx: number
  readonly border: Border | null
  readonly shadow: Shadow | null
}

/** What a layout made a layer for: the line between page and presenter, or the words of a page in front of a presenter. */
export const layerParts = ['divider', 'ink'] as const
export type LayerPart = (typeof layerParts)[number]

interface LayerBase {
  readonly id: string
  readonly name: string
  readonly visible: boolean
  readonly locked: boolean
  /** Layouts show it where they need it and hide it where they don't; null: it is none of theirs. */
  readonly part: LayerPart | null
  readonly placement: Placement
  /** What of its picture is shown here; null: all of it. The rest is what `placement.fit` fits into the box. */
  readonly crop: Crop | null
  /** 0..1 */
  readonly opacity: number
  /** How it mixes with what is under it. */
  readonly blend: BlendName
  readonly frame: Frame
  /** How it comes when its scene does, and goes with it; null: at once. */
  readonly entrance: Appearance | null
  readonly exit: Appearance | null
  /** Applies here only. */
  readonly treatment: readonly Step[]
}

export interface InputLayer extends LayerBase {
  readonly kind: 'input'
  readonly inputId: string
}

export interface TextLayer extends LayerBase {
  readonly kind: 'text'
  readonly contentId: string
}

/** A colour at a place of a gradient. */
export interface FillStop {
  /** 0..1 */
  readonly at: number
  readonly colour: string
  readonly opacity: number
}

export type Fill =
  | { readonly kind: 'plain'; readonly colour: string; readonly opacity: number }
  /** Across the box at an angle as CSS has it: 0 runs upwards, 90 to the right. `stops` in order of `at`. */
  | { readonly kind: 'linear'; readonly angleDeg: number; readonly stops: readonly FillStop[] }
  /** From the middle to the farther side. */
  | { readonly kind: 'radial'; readonly stops: readonly FillStop[] }

/** A line along an outline, half of it inside. */
export interface Stroke {
  readonly widthPx: number
  readonly colour: string
  /** 0..1 */
  readonly opacity: number
}

/** A form that is drawn: a polygon, an arrow, whatever path data says. */
export interface Outline {
  /** Path data as SVG 2 §9.3 has it, in a box of `width` × `height`, which is stretched over the layer's. */
  readonly path: string
  readonly width: number
  readonly height: number
  readonly stroke: Stroke | null
}

/** A form of a colour or a gradient. Without an outline of its own its frame gives it its form: a box or an ellipse. */
export interface ShapeLayer extends LayerBase {
  readonly kind: 'shape'
  readonly contentId: string
}

/** What a text or a shape shows. Layers that name the same content show the same thing, whatever becomes of it. */
export type Content =
  | { readonly id: string; readonly kind: 'text'; readonly text: TextContent }
  | { readonly id: string; readonly kind: 'shape'; readonly fill: Fill; readonly outline: Outline | null }

/** Layers on a canvas of their own, of the show's size, that is placed like a picture; as it is at first, they lie where they lay. */
export interface GroupLayer extends LayerBase {
  readonly kind: 'group'
  readonly layers: readonly Layer[]
}

/** Another scene of the show, as a picture. */
export interface SceneLayer extends LayerBase {
  readonly kind: 'scene'
  readonly sceneId: string
}

export type Layer = InputLayer | TextLayer | ShapeLayer | GroupLayer | SceneLayer
export type LayerKind = Layer['kind']

/** A layer, and the contents that it and those in it show, before they are part of a show. */
export interface NewLayer<L extends Layer = Layer> {
  readonly layer: L
  readonly contents: readonly Content[]
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
  readonly layers: readonly Layer[]
}

/** Who presents, and until when a countdown runs. */
export interface Presenter {
  readonly name: string
  readonly title: string
  /** A time of the day, "HH:MM"; null: nothing is counted down to. */
  readonly countdownTo: string | null
}

export interface Show {
  readonly format: 'green-room-show'
  readonly version: 6
  readonly name: string
  readonly canvas: { readonly widthPx: number; readonly heightPx: number; readonly frameRate: number }
  readonly inputs: readonly Input[]
  readonly contents: readonly Content[]
  readonly scenes: readonly Scene[]
  /** What texts say where they name a field: {name}, {title}, {countdown}. */
  readonly presenter: Presenter
  readonly microphone: Microphone
  /** What the audience sees when there is no live picture. */
  readonly holdingCard: { readonly title: string; readonly detail: string }
}
