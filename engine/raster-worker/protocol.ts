// What the engine and the worker that draws say to each other.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { FaceFile } from '../../core/text/typefaces.ts'
import type { ToEngine } from '../protocol.ts'
import type { CoverRequest } from '../covers/covers.ts'
import type { StrokesAnswer, StrokesRequest } from '../raster/stroke-painter.ts'
import type { Raster } from '../raster/raster.ts'

export interface RasterFiles {
  readonly fonts: readonly FaceFile[]
  readonly wasmUrl: string
  readonly assetUrlPrefix: string
}

export type ToRaster =
  | ({ readonly type: 'start' } & RasterFiles)
  | { readonly type: 'draw'; readonly requestId: number; readonly raster: Raster }
  | ({ readonly type: 'strokes' } & StrokesRequest)
  | CoverRequest
  | Extract<ToEngine, { type: 'dropCover' }>

export type FromRaster =
  | { readonly type: 'drawn'; readonly requestId: number; readonly picture: RgbaPicture }
  | { readonly type: 'failed'; readonly requestId: number; readonly reason: string }
  | ({ readonly type: 'painted' } & StrokesAnswer)
  /** Null where the scene cannot be drawn. */
  | { readonly type: 'covered'; readonly requestId: number; readonly picture: RgbaPicture | null }
