import { z } from 'zod'
import type { MakeId } from '../random/make-id.ts'
import { RANGES } from '../schema/limits.ts'
import { whole } from '../schema/values.ts'
import { newStep } from '../steps/treatment.ts'
import type { Input, InputBase, InputDefinition } from './input.ts'
import { inputBase } from './schema.ts'
import { inputSourceId } from './source-ids.ts'

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

export interface CameraInput extends InputBase {
  readonly kind: 'camera'
  readonly device: CameraDevice
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
}

const device = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('standin'), standin: z.enum(standinCameras) }),
  z.strictObject({
    type: z.literal('device'),
    deviceId: z.string().max(200),
    label: z.string().max(200),
    controls: z.record(z.string().max(40), z.union([z.number(), z.string().max(40)])).optional(),
  }),
])

const schema = z.strictObject({
  ...inputBase,
  kind: z.literal('camera'),
  device,
  widthPx: whole(RANGES.canvasWidthPx),
  heightPx: whole(RANGES.canvasHeightPx),
  frameRate: whole(RANGES.frameRate),
})

export const camera: InputDefinition<'camera'> = {
  kind: 'camera',
  schema,
  subject: 'person',
  pageRank: null,
  isPageWhenWhole: false,
  canBeMark: false,
  fit: 'fill',
  hasPicture: true,
  sourceId: ({ id }) => inputSourceId(id),
  still: () => null,
  files: () => [],
  ahead: () => [],
  // What cleans a camera's picture makes no sense of a drawn person.
  inCover: (input) => ({ ...input, treatment: [] }),
  placeholder: 'person',
}

export const isCamera = (input: Input): input is CameraInput => input.kind === 'camera'

/** A camera input with the first steps of a clean-up, the key off until a backdrop is picked. */
export function newCamera(
  name: string,
  device: CameraDevice,
  canvas: { readonly widthPx: number; readonly heightPx: number; readonly frameRate: number },
  makeId: MakeId,
): CameraInput {
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
