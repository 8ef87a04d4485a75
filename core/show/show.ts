// The show as types. `schema.ts` holds the zod form; the two are held together by a type test there.
import type { FitMode } from '../layout/fit.ts'
import type { StepKind, StepParams } from '../steps/index.ts'
import type { TextContent } from '../text/text-content.ts'

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

export interface ColourInput extends InputBase {
  readonly kind: 'colour'
  readonly colour: string
}

export type Input = CameraInput | PictureInput | ColourInput
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

interface LayerBase {
  readonly id: string
  readonly name: string
  readonly visible: boolean
  readonly locked: boolean
  readonly placement: Placement
  /** 0..1 */
  readonly opacity: number
  readonly frame: { readonly cornerRadiusPx: number }
  /** Applies here only. */
  readonly treatment: readonly Step[]
}

export interface InputLayer extends LayerBase {
  readonly kind: 'input'
  readonly inputId: string
}

export interface TextLayer extends LayerBase {
  readonly kind: 'text'
  readonly text: TextContent
}

export type Layer = InputLayer | TextLayer

/** One arrangement the audience may see; `layers` run from back to front. */
export interface Scene {
  readonly id: string
  readonly name: string
  readonly layers: readonly Layer[]
}

export interface Show {
  readonly format: 'green-room-show'
  readonly version: 3
  readonly name: string
  readonly canvas: { readonly widthPx: number; readonly heightPx: number; readonly frameRate: number }
  readonly inputs: readonly Input[]
  readonly scenes: readonly Scene[]
  readonly microphone: Microphone
  /** What the audience sees when there is no live picture. */
  readonly holdingCard: { readonly title: string; readonly detail: string }
}
