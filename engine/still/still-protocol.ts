import type { RgbaPicture } from '../../core/picture/picture.ts'

/** A picture as it was decoded, and whether every pixel of it is opaque. */
export interface LoadedStill {
  readonly picture: RgbaPicture
  readonly isOpaque: boolean
}

export interface ToStill {
  readonly requestId: number
  readonly url: string
}

export type FromStill =
  | { readonly requestId: number; readonly still: LoadedStill }
  /** Why the picture cannot be shown. */
  | { readonly requestId: number; readonly reason: string }
