import type { Lut } from '../../core/lut/lut.ts'
import type { GlDevice, Surface } from './device.ts'

/** Tables are stored in rows of so many points. */
export const TABLE_COLUMNS = 4096
const TABLES_KEPT = 6

/** Look-up tables on the graphics card, oldest first to go. */
export class LutBook {
  readonly #device: GlDevice
  readonly #surfaces = new Map<Lut, Surface>()

  constructor(device: GlDevice) {
    this.#device = device
  }

  /** The points of a table, in rows of `TABLE_COLUMNS`. */
  surface(lut: Lut): Surface {
    const known = this.#surfaces.get(lut)
    if (known !== undefined) return known
    const points = lut.data.length / 3
    const rows = Math.ceil(points / TABLE_COLUMNS)
    const texels = new Float32Array(TABLE_COLUMNS * rows * 4)
    for (let i = 0; i < points; i += 1) for (let channel = 0; channel < 3; channel += 1) texels[i * 4 + channel] = lut.data[i * 3 + channel]!
    const surface = this.#device.surface('float', TABLE_COLUMNS, rows)
    this.#device.upload(surface, texels)
    this.#surfaces.set(lut, surface)
    return surface
  }

  dispose(): void {
    for (const surface of this.#surfaces.values()) this.#device.free(surface)
    this.#surfaces.clear()
  }

  /** Lets go of tables that no chain made since has asked for. Chains in use must be made anew afterwards. */
  trim(): void {
    for (const [lut, surface] of this.#surfaces) {
      if (this.#surfaces.size <= TABLES_KEPT) return
      this.#device.free(surface)
      this.#surfaces.delete(lut)
    }
  }
}
