import type { PersonFiles } from '../protocol.ts'

/** Size of the pictures that the model takes. */
export const PERSON_WIDTH_PX = 256
export const PERSON_HEIGHT_PX = 144

export type ToPerson =
  | { readonly type: 'start'; readonly files: PersonFiles }
  /** RGBA of the size above. */
  | { readonly type: 'look'; readonly sourceId: string; readonly data: Uint8ClampedArray<ArrayBuffer> }

export type FromPerson =
  | { readonly type: 'mask'; readonly sourceId: string; readonly mask: Float32Array<ArrayBuffer> }
  /** This picture could not be looked at; the next may. */
  | { readonly type: 'lookFailed'; readonly sourceId: string; readonly reason: string }
  /** Nothing can be looked at. */
  | { readonly type: 'failed'; readonly reason: string }
