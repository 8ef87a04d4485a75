// The presenter over the empty studio, in WebAssembly: a stand-in must leave the machine to the engine.
import { i420ByteLength } from '../../core/picture/picture.ts'

interface MixKernels {
  mixLumaRow(rgba: number, luma: number, count: number, noise: number, noiseAt: number, noiseMask: number, weights: number): void
  mixChromaRow(upper: number, lower: number, cb: number, cr: number, count: number, noise: number, noiseAt: number, noiseMask: number, weights: number): void
}

/** A drawn part of a frame: straight RGBA; left, top, width and height are even. */
export interface ForegroundBox {
  readonly data: Uint8ClampedArray
  readonly left: number
  readonly top: number
  readonly width: number
  readonly height: number
}

/** What the camera makes of full red, green and blue codes. */
export type Gains = readonly [number, number, number]

const PAGE_BYTES = 65536
const LUMA = [0.18259, 0.61423, 0.06201]
const BLUE = [-0.10064, -0.33857, 0.43922]
const RED = [0.43922, -0.39894, -0.04027]

export class Mixer {
  readonly #kernels: MixKernels
  readonly #bytes: Uint8Array
  readonly #widthPx: number
  readonly #heightPx: number
  readonly #noiseMask: number
  readonly #noiseAt: number
  readonly #frameAt: number
  readonly #boxAt: number
  readonly #weightsAt: number

  private constructor(kernels: MixKernels, memory: WebAssembly.Memory, widthPx: number, heightPx: number, noise: Int8Array, gains: Gains) {
    this.#kernels = kernels
    this.#bytes = new Uint8Array(memory.buffer)
    this.#widthPx = widthPx
    this.#heightPx = heightPx
    this.#noiseMask = noise.length - 1
    this.#noiseAt = PAGE_BYTES
    this.#frameAt = this.#noiseAt + noise.length
    this.#boxAt = this.#frameAt + Math.ceil(i420ByteLength(widthPx, heightPx) / 16) * 16
    this.#weightsAt = Math.ceil((this.#boxAt + widthPx * heightPx * 4) / 16) * 16
    this.#bytes.set(new Uint8Array(noise.buffer), this.#noiseAt)
    // Y'CbCr weights of BT.709, limited range, for what the camera makes of each channel.
    const weights = [LUMA, BLUE, RED].flatMap((row) => row.map((weight, channel) => weight * gains[channel]!))
    new Float32Array(memory.buffer, this.#weightsAt, 9).set(weights)
  }

  /** `noise` has a power of two of signed codes. */
  static async create(wasm: BufferSource, widthPx: number, heightPx: number, noise: Int8Array, gains: Gains): Promise<Mixer> {
    const byteLength = 2 * PAGE_BYTES + noise.length + i420ByteLength(widthPx, heightPx) + widthPx * heightPx * 4 + 256
    const memory = new WebAssembly.Memory({ initial: Math.ceil(byteLength / PAGE_BYTES) })
    const { instance } = await WebAssembly.instantiate(wasm, { env: { memory } })
    return new Mixer(instance.exports as unknown as MixKernels, memory, widthPx, heightPx, noise, gains)
  }

  /** Writes plate and foreground into `out` (I420). */
  mix(plate: Uint8Array, box: ForegroundBox, noiseStart: number, out: Uint8Array): void {
    const { left, top, width, height } = box
    const widthPx = this.#widthPx
    const chromaWidth = Math.ceil(widthPx / 2)
    const chromaLength = chromaWidth * Math.ceil(this.#heightPx / 2)
    this.#bytes.set(plate, this.#frameAt)
    this.#bytes.set(box.data, this.#boxAt)
    const rowBytes = width * 4
    for (let y = 0; y < height; y += 1) {
      const noiseAt = noiseStart + y * 4099
      this.#kernels.mixLumaRow(
        this.#boxAt + y * rowBytes,
        this.#frameAt + (top + y) * widthPx + left,
        width,
        this.#noiseAt,
        noiseAt,
        this.#noiseMask,
        this.#weightsAt,
      )
    }
    const cbAt = this.#frameAt + widthPx * this.#heightPx
    for (let y = 0; y + 1 < height; y += 2) {
      const at = ((top + y) >> 1) * chromaWidth + (left >> 1)
      this.#kernels.mixChromaRow(
        this.#boxAt + y * rowBytes,
        this.#boxAt + (y + 1) * rowBytes,
        cbAt + at,
        cbAt + chromaLength + at,
        width >> 1,
        this.#noiseAt,
        noiseStart + y * 2039,
        this.#noiseMask,
        this.#weightsAt,
      )
    }
    out.set(this.#bytes.subarray(this.#frameAt, this.#frameAt + out.length))
  }
}
