/** Asks for the faces in a picture. */
export interface ToFace {
  readonly requestId: number
  readonly runtimeUrl: string
  readonly modelUrl: string
  /** Straight RGBA. */
  readonly data: Uint8ClampedArray<ArrayBuffer>
  readonly widthPx: number
  readonly heightPx: number
}

/** A face from forehead to chin, as shares 0..1 of the picture. */
export interface FoundFace {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

export type FromFace =
  /** The largest first. */
  { readonly requestId: number; readonly faces: readonly FoundFace[] } | { readonly requestId: number; readonly reason: string }
