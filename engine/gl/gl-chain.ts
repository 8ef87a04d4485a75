// One chain on pictures of one size and coding: fused passes of colour functions, work on the whole picture, and so on.
import type { Plane } from '../../core/picture/float-picture.ts'
import type { Picture } from '../../core/picture/picture.ts'
import type { PreparedChain } from '../../core/steps/chain.ts'
import { ycbcrCoding } from '../../core/colour/ycbcr.ts'
import type { GlDevice, Surface } from './device.ts'
import type { LutBook } from './lut-book.ts'
import { PointPass } from './point-pass.ts'
import { makeGlWork } from './spatial/index.ts'
import type { GlTools, GlWork } from './spatial/gl-work.ts'

export class GlChain {
  readonly #device: GlDevice
  readonly #chain: PreparedChain
  readonly #owned: Surface[] = []
  readonly #passes: PointPass[]
  readonly #works: (GlWork | null)[]
  /** Where each run but the last leaves its straight picture. */
  readonly #between: Surface[]
  /** Premultiplied. */
  readonly #out: Surface

  /** Throws a GraphicsError when the graphics card can't do it. `like` is a picture as they will come. */
  constructor(device: GlDevice, luts: LutBook, chain: PreparedChain, like: Picture) {
    const { widthPx, heightPx } = like
    this.#device = device
    this.#chain = chain
    const tools: GlTools = {
      device,
      widthPx,
      heightPx,
      surface: (format, width = widthPx, height = heightPx) => {
        const surface = device.surface(format, width, height)
        this.#owned.push(surface)
        return surface
      },
    }
    const last = chain.runs.length - 1
    const coding = codingOf(like)
    this.#passes = chain.runs.map(
      (run, i) =>
        new PointPass(
          device,
          luts,
          run.shaders,
          run.keep,
          i === 0 && like.format === 'i420' ? 'planes' : 'straight',
          i === last ? 'premultiplied' : 'straight',
          coding,
        ),
    )
    this.#works = chain.runs.map((run) => (run.then === null ? null : makeGlWork(tools, run.then)))
    this.#between = chain.runs.slice(0, last).map(() => tools.surface('half'))
    this.#out = tools.surface('half')
  }

  /** Treats a picture whose planes (or straight pixels) are on the graphics card; the premultiplied result is valid until the next run. */
  run(sources: readonly Surface[], person: Plane | null): Surface {
    const { runs } = this.#chain
    let current: readonly Surface[] = sources
    let mask = person
    for (let i = 0; i < runs.length - 1; i += 1) {
      const { then } = runs[i]!
      this.#passes[i]!.run(current, this.#between[i]!)
      current = [this.#works[i]!.run(this.#between[i]!, then!.needsPerson ? mask : null)]
      if (mask !== null && then!.moveMask !== undefined) mask = then!.moveMask(mask)
    }
    this.#passes.at(-1)!.run(current, this.#out)
    return this.#out
  }

  dispose(): void {
    for (const surface of this.#owned) this.#device.free(surface)
  }
}

/** Luma scale and offset, chroma scale, Kr, Kb; any numbers for RGBA. */
function codingOf(picture: Picture): readonly number[] {
  if (picture.format === 'rgba') return [1, 0, 1, 0, 0]
  const { lumaScale, lumaOffset, chromaScale, kr, kb } = ycbcrCoding(picture.matrix, picture.range)
  return [lumaScale, lumaOffset, chromaScale, kr, kb]
}
