import type { Plane } from '../../../core/picture/float-picture.ts'
import type { SpatialWork } from '../../../core/steps/step.ts'
import type { GlDevice, Surface, SurfaceFormat } from '../device.ts'

/** What work on the graphics card may use beside its own surfaces. */
export interface GlTools {
  readonly device: GlDevice
  readonly widthPx: number
  readonly heightPx: number
  /** A surface that is freed with the work; as large as the picture unless a size is given. */
  readonly surface: (format: SurfaceFormat, widthPx?: number, heightPx?: number) => Surface
}

/** One piece of spatial work on one stream of pictures, with what it remembers. Straight alpha. */
export interface GlWork {
  /** Returns a surface of its own (or the one given) that holds the result until the next run. */
  run(source: Surface, person: Plane | null): Surface
}

export type MakeGlWork<W extends SpatialWork = SpatialWork> = (tools: GlTools, work: W) => GlWork

/** No numbers. */
export const NO_VALUES = new Float32Array(0)
