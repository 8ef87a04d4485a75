// Whether this computer keeps up with the rate that a camera was asked for, judged over some seconds.

/** Less than this share of the pictures that were asked for is too few. */
const LEAST_SHARE = 0.85
/** Looks in a row that must agree: figures come twice a second. */
const SURE_AFTER = 8
/** At this rate every computer that runs the studio keeps up, or nothing lower would help. */
export const CALM_RATE = 30

export interface RateLook {
  readonly wantedFps: number
  readonly arrivingFps: number
  /** What a picture of everything takes to make. */
  readonly frameMs: number
}

export class RateWatch {
  #late = 0

  /** Takes the newest figures; true once the computer has fallen behind for several seconds, by camera or by making. */
  note({ wantedFps, arrivingFps, frameMs }: RateLook): boolean {
    const isBehind = wantedFps > CALM_RATE && arrivingFps > 0 && (arrivingFps < wantedFps * LEAST_SHARE || frameMs > 1000 / wantedFps)
    this.#late = isBehind ? this.#late + 1 : 0
    return this.#late >= SURE_AFTER
  }
}
