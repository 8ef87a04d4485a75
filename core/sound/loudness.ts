// How loud sound is, in dB under full scale (dBFS).

/** Gain as a factor. dB = 20 · log10(ratio). */
export function gainOf(db: number): number {
  return 10 ** (db / 20)
}

/** A ratio in dB; −Infinity for nothing. */
export function dbOf(ratio: number): number {
  return 20 * Math.log10(ratio)
}

/** The largest sample of a block, 0 … 1 (and more when it clips). */
export function peakOf(samples: Float32Array): number {
  let peak = 0
  for (const sample of samples) peak = Math.max(peak, Math.abs(sample))
  return peak
}

/** Root of the mean of the squares of a block, 0 … 1. */
export function rmsOf(samples: Float32Array): number {
  let sum = 0
  for (const sample of samples) sum += sample * sample
  return samples.length === 0 ? 0 : Math.sqrt(sum / samples.length)
}

/** RMS in dBFS by AES17: a sine at full scale reads 0, so 3.01 dB more than the mathematical value. */
export function aes17Db(rms: number): number {
  return dbOf(rms * Math.SQRT2)
}

/** How long the highest mark of a meter stays (common practice, no source). */
const HOLD_MS = 1500
/** How fast a meter falls (common practice, no source). */
const FALL_DB_A_SECOND = 20
/** Nothing is shown below. */
export const METER_FLOOR_DB = -60
/** From here on a sample counts as clipped: the last code of 16 bits. */
const CLIP = 32_767 / 32_768

/** What a meter shows of one side. */
export interface MeterReading {
  readonly db: number
  readonly heldDb: number
  /** Whether full scale was reached since `clear`. */
  readonly hasClipped: boolean
}

/** A peak meter: rises at once, falls slowly, holds its highest mark, remembers clipping. */
export class PeakMeter {
  #db = METER_FLOOR_DB
  #heldDb = METER_FLOOR_DB
  #heldAtMs = -Infinity
  #lastMs = 0
  #hasClipped = false

  /** Takes the largest sample since the last call. */
  note(peak: number, nowMs: number): MeterReading {
    const fallen = this.#db - (Math.max(0, nowMs - this.#lastMs) * FALL_DB_A_SECOND) / 1000
    this.#lastMs = nowMs
    this.#db = Math.max(METER_FLOOR_DB, dbOf(peak), fallen)
    if (this.#db >= this.#heldDb || nowMs - this.#heldAtMs > HOLD_MS) {
      this.#heldDb = this.#db
      this.#heldAtMs = nowMs
    }
    if (peak >= CLIP) this.#hasClipped = true
    return { db: this.#db, heldDb: this.#heldDb, hasClipped: this.#hasClipped }
  }

  /** Forgets that it clipped. */
  clear(): void {
    this.#hasClipped = false
  }
}
