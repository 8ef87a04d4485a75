// A camera that needs no device: the presenter before a cloth, a wall or a room, with the faults of real life
// and the true matte. The same seed and time give the same picture.
import { rgbToYcbcr, ycbcrCoding } from '../../core/colour/ycbcr.ts'
import { MARK_COLUMNS, MARK_LIMIT, markCells, markGeometry } from '../../core/marks/frame-mark.ts'
import { i420ByteLength, type I420Picture, type RgbaPicture } from '../../core/picture/picture.ts'
import { hashedRandom, seededRandom } from '../../core/random/seeded.ts'
import type { MakeSheet, Sheet } from '../drawing/canvas.ts'
import type { StandinCamera } from '../../core/show/show.ts'
import { backdrops, type Backdrop, type ColourAt } from './backdrop.ts'
import { Mixer, type ForegroundBox } from './mixer.ts'
import { drawExpression } from './presenter-expression.ts'
import { blinkAt, clapHandsAt, CUE_SECONDS, speechAt, waveAt } from '../presenter-timing.ts'
import { drawPresenter, type Part, type PresenterParts } from './presenter.ts'

export interface DrawnCameraOptions {
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
  readonly seed: number
  /** Which of the stand-ins; the demo's cloth when left out. */
  readonly standin?: StandinCamera
}

const PLATES = 12
const NOISE_LENGTH = 1 << 16
const CODING = ycbcrCoding('bt709', 'limited')

/** Draws the stand-in camera's frames. */
export class DrawnCamera {
  readonly options: Required<DrawnCameraOptions>
  readonly backdrop: Backdrop
  readonly #makeSheet: MakeSheet
  readonly #parts: PresenterParts
  /** Without the cloth's light; made when it is first asked for. */
  #cleanParts: PresenterParts | null = null
  /** When the presenter was asked to clap, on the clock of `draw`; null: not. */
  clapCueMs: number | null = null
  readonly #stage: Sheet
  readonly #clean: Uint8Array
  readonly #noise: Int8Array
  /** The empty studio with a dozen different noises, each made when it is first needed. */
  readonly #plates: (Uint8Array | undefined)[] = []
  readonly #mixer: Mixer
  readonly #scale: number

  private constructor(makeSheet: MakeSheet, options: Required<DrawnCameraOptions>, mixer: Mixer, noise: Int8Array) {
    this.options = options
    this.#mixer = mixer
    const { widthPx, heightPx, seed } = this.options
    this.#scale = widthPx / 1280
    this.#makeSheet = makeSheet
    this.backdrop = backdrops[options.standin]
    this.#parts = drawPresenter(makeSheet, this.#scale, seed, this.backdrop.spill)
    this.#stage = makeSheet(widthPx, heightPx)
    this.#clean = cleanPlate(this.backdrop.colourAt(makeSheet, widthPx, heightPx), this.backdrop.gains, widthPx, heightPx)
    this.#noise = noise
  }

  /** Draws everything that does not move. `mixWasm` holds the bytes of kernels/mix.wasm; sizes must be even. */
  static async create(makeSheet: MakeSheet, mixWasm: BufferSource, options: DrawnCameraOptions): Promise<DrawnCamera> {
    const complete = { standin: 'cloth', ...options } as const
    const { noise: deviation, gains } = backdrops[complete.standin]
    const noise = noiseTable(complete.seed, deviation)
    const mixer = await Mixer.create(mixWasm, complete.widthPx, complete.heightPx, noise, gains)
    return new DrawnCamera(makeSheet, complete, mixer, noise)
  }

  /** The number of the frame that is due at `timeMs`. */
  frameNumberAt(timeMs: number): number {
    return Math.floor((timeMs / 1000) * this.options.frameRate) % MARK_LIMIT
  }

  /** Writes the picture of `timeMs` into `out` (I420, BT.709, limited range). */
  draw(timeMs: number, out: Uint8Array): void {
    const frameNumber = this.frameNumberAt(timeMs)
    const plate = Math.floor(hashedRandom(this.options.seed, frameNumber) * PLATES)
    this.#plates[plate] ??= noisyPlate(this.#clean, this.options.widthPx, this.#noise, this.options.seed + plate)
    this.#mixer.mix(this.#plates[plate], this.#foreground(frameNumber), frameNumber * 7919, out)
    this.#stamp(frameNumber, out)
  }

  /** A new picture of `timeMs`. */
  picture(timeMs: number): I420Picture {
    const { widthPx, heightPx } = this.options
    const data = new Uint8Array(i420ByteLength(widthPx, heightPx))
    this.draw(timeMs, data)
    return { format: 'i420', widthPx, heightPx, matrix: 'bt709', range: 'limited', data }
  }

  /** The true opacity of the presenter at `timeMs`, one byte a pixel. */
  matte(timeMs: number): Uint8Array {
    const { widthPx, heightPx } = this.options
    const matte = new Uint8Array(widthPx * heightPx)
    const { data, left, top, width, height } = this.#foreground(this.frameNumberAt(timeMs))
    for (let y = 0; y < height; y += 1) {
      for (let x = 0; x < width; x += 1) matte[(top + y) * widthPx + left + x] = data[(y * width + x) * 4 + 3]!
    }
    return matte
  }

  /** Who is before the backdrop, alone and as the camera sees it, straight alpha; `isClean` leaves the cloth's light out. */
  foreground(timeMs: number, isClean = false): RgbaPicture {
    const { widthPx, heightPx } = this.options
    const { gains } = this.backdrop
    if (isClean) this.#cleanParts ??= drawPresenter(this.#makeSheet, this.#scale, this.options.seed, null)
    const data = new Uint8Array(widthPx * heightPx * 4)
    const box = this.#foreground(this.frameNumberAt(timeMs), isClean ? this.#cleanParts! : this.#parts)
    for (let y = 0; y < box.height; y += 1) {
      for (let x = 0; x < box.width; x += 1) {
        const from = (y * box.width + x) * 4
        const at = ((box.top + y) * widthPx + box.left + x) * 4
        for (let channel = 0; channel < 3; channel += 1) data[at + channel] = Math.min(255, Math.round(box.data[from + channel]! * gains[channel]!))
        data[at + 3] = box.data[from + 3]!
      }
    }
    return { format: 'rgba', widthPx, heightPx, data }
  }

  /** The backdrop with nobody before it: what a clean plate shows. */
  emptyPicture(): I420Picture {
    const { widthPx, heightPx } = this.options
    return { format: 'i420', widthPx, heightPx, matrix: 'bt709', range: 'limited', data: noisyPlate(this.#clean, widthPx, this.#noise, this.options.seed) }
  }

  #foreground(frameNumber: number, parts = this.#parts): ForegroundBox {
    const seconds = frameNumber / this.options.frameRate
    const { pen, widthPx, heightPx } = this.#stage
    const wave = waveAt(seconds)
    const scale = this.#scale
    pen.setTransform(1, 0, 0, 1, 0, 0)
    pen.clearRect(0, 0, widthPx, heightPx)
    const swayX = 5 * Math.sin(seconds * 0.71) + 2.5 * Math.sin(seconds * 1.37)
    const breath = 2.2 * Math.sin(seconds * 1.6)
    pen.setTransform(scale, 0, 0, scale, 0, 0)
    if (this.backdrop.front === 'hand') return this.#handOnly(seconds, parts)
    pen.save()
    // Whole pixels: an unscaled copy costs a tenth of a resampled one.
    placePart(pen, parts.torso, Math.round(swayX * 0.6 * scale) / scale, Math.round(breath * scale) / scale, 640, 720, 0)
    pen.restore()
    pen.save()
    const nod = 0.018 * Math.sin(seconds * 0.9) + 0.012 * Math.sin(seconds * 2.3)
    placePart(pen, parts.head, swayX, breath + 1.5 * Math.sin(seconds * 2.1), 640, 470, nod)
    drawExpression(pen, blinkAt(seconds), speechAt(seconds))
    pen.restore()
    const cueSeconds = this.clapCueMs === null ? -1 : this.#lapSeconds(this.clapCueMs, seconds)
    const isClapping = cueSeconds >= 0 && cueSeconds <= CUE_SECONDS
    const isWaving = wave.raise > 0 && !isClapping
    if (isClapping) this.#drawClap(cueSeconds, parts)
    if (isWaving) {
      pen.save()
      placePart(pen, parts.hand, 0, 420 * (1 - wave.raise), 980, 760, wave.angle)
      pen.restore()
    }
    const left = Math.floor(270 * scale) & ~1
    const top = Math.floor(60 * scale) & ~1
    const right = isWaving ? 1160 : 1010
    const width = Math.min(widthPx - left, Math.ceil((right - 270) * scale) & ~1)
    const height = (heightPx - top) & ~1
    return { data: pen.getImageData(left, top, width, height).data, left, top, width, height }
  }

  /** Seconds since a moment; `seconds` begin anew with every lap of the frame numbers. */
  #lapSeconds(fromMs: number, seconds: number): number {
    return seconds - ((fromMs / 1000) % (MARK_LIMIT / this.options.frameRate))
  }

  /** Both hands before the chest, nearing each other and parting. */
  #drawClap(cueSeconds: number, parts: PresenterParts): void {
    const { pen } = this.#stage
    const { raise, closeness } = clapHandsAt(cueSeconds)
    const apart = 45 + 150 * (1 - closeness)
    for (const side of [1, -1]) {
      pen.save()
      if (side < 0) {
        pen.translate(1280, 0)
        pen.scale(-1, 1)
      }
      placePart(pen, parts.hand, -340 + apart, 60 + 420 * (1 - raise), 980, 760, -0.12)
      pen.restore()
    }
  }

  /** The hand from above, pointing here and there. */
  #handOnly(seconds: number, parts: PresenterParts): ForegroundBox {
    const { pen, widthPx, heightPx } = this.#stage
    const scale = this.#scale
    const reachX = -60 + 190 * Math.sin(seconds * 0.43) + 60 * Math.sin(seconds * 0.91)
    const reachY = 24 + 26 * Math.sin(seconds * 0.57 + 1)
    placePart(pen, parts.hand, reachX, reachY, 980, 760, -0.12 + 0.1 * Math.sin(seconds * 0.5))
    const left = Math.floor(560 * scale) & ~1
    const top = Math.floor(200 * scale) & ~1
    const width = (widthPx - left) & ~1
    const height = (heightPx - top) & ~1
    return { data: pen.getImageData(left, top, width, height).data, left, top, width, height }
  }

  #stamp(frameNumber: number, out: Uint8Array): void {
    const { widthPx, heightPx } = this.options
    const { cellPx, x: left, y: top } = markGeometry(widthPx, heightPx)
    const chromaWidth = Math.ceil(widthPx / 2)
    const chromaHeight = Math.ceil(heightPx / 2)
    markCells(frameNumber).forEach((cell, i) => {
      const x = left + (i % MARK_COLUMNS) * cellPx
      const y = top + Math.floor(i / MARK_COLUMNS) * cellPx
      for (let row = 0; row < cellPx; row += 1) {
        out.fill(cell === 1 ? 235 : 16, (y + row) * widthPx + x, (y + row) * widthPx + x + cellPx)
      }
      for (let row = 0; row < cellPx / 2; row += 1) {
        const at = widthPx * heightPx + ((y >> 1) + row) * chromaWidth + (x >> 1)
        out.fill(128, at, at + cellPx / 2)
        out.fill(128, at + chromaWidth * chromaHeight, at + chromaWidth * chromaHeight + cellPx / 2)
      }
    })
  }
}

function placePart(pen: Sheet['pen'], part: Part, dx: number, dy: number, pivotX: number, pivotY: number, angle: number): void {
  pen.translate(pivotX + dx, pivotY + dy)
  pen.rotate(angle)
  pen.translate(-pivotX, -pivotY)
  pen.drawImage(part.sheet.source, part.x, part.y, part.width, part.height)
}

function noiseTable(seed: number, deviation: number): Int8Array {
  const random = seededRandom(seed ^ 0x5eed)
  return Int8Array.from({ length: NOISE_LENGTH }, () => {
    const gauss = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    return Math.round(Math.max(-4, Math.min(4, gauss)) * deviation)
  })
}

/** The empty studio with noise. */
function noisyPlate(clean: Uint8Array, widthPx: number, noise: Int8Array, seed: number): Uint8Array {
  const random = seededRandom(seed ^ 0xb1a7e)
  const lumaLength = (clean.length * 2) / 3
  const plate = new Uint8Array(clean.length)
  let at = 0
  for (let i = 0; i < clean.length; i += 1) {
    at = (at + 1) & (NOISE_LENGTH - 1)
    // Rows must not repeat each other, so each jumps to a place of its own.
    if (i % widthPx === 0) at = Math.floor(random() * NOISE_LENGTH)
    const value = clean[i]! + (i < lumaLength ? noise[at]! : noise[at]! >> 1)
    plate[i] = value < 16 ? 16 : value > 240 ? 240 : value
  }
  return plate
}

function cleanPlate(colourAt: ColourAt, gains: Backdrop['gains'], widthPx: number, heightPx: number): Uint8Array {
  const plate = new Uint8Array(i420ByteLength(widthPx, heightPx))
  const rgb = new Float64Array(3)
  const codes = new Float64Array(3)
  const scale = 1280 / widthPx
  const chromaWidth = Math.ceil(widthPx / 2)
  const chromaLength = chromaWidth * Math.ceil(heightPx / 2)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      colourAt((x + 0.5) * scale, (y + 0.5) * scale, rgb)
      for (let channel = 0; channel < 3; channel += 1) rgb[channel] = Math.min(255, rgb[channel]! * gains[channel]!)
      rgbToYcbcr(CODING, rgb[0]! / 255, rgb[1]! / 255, rgb[2]! / 255, codes)
      plate[y * widthPx + x] = Math.round(codes[0]!)
      if ((x & 1) === 1 || (y & 1) === 1) continue
      const at = widthPx * heightPx + (y >> 1) * chromaWidth + (x >> 1)
      plate[at] = Math.round(codes[1]!)
      plate[at + chromaLength] = Math.round(codes[2]!)
    }
  }
  return plate
}
