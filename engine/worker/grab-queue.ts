// Grabs that were asked for before there was a picture: a camera that starts or wakes is waited for, but not for long.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { ToEngine } from '../protocol.ts'

export type GrabRequest = Extract<ToEngine, { type: 'grab' }>

/** How long a picture is waited for, in ms: a little longer than a camera needs to start. */
const PATIENCE_MS = 4000

export class GrabQueue {
  readonly #grab: (request: GrabRequest) => RgbaPicture | null
  readonly #answer: (request: GrabRequest, picture: RgbaPicture | null) => void
  #waiting: { readonly request: GrabRequest; readonly untilMs: number }[] = []

  /** `grab` gives null while there is no picture; `answer` is called once for each request, with null when none came in time. */
  constructor(grab: (request: GrabRequest) => RgbaPicture | null, answer: (request: GrabRequest, picture: RgbaPicture | null) => void) {
    this.#grab = grab
    this.#answer = answer
  }

  /** Answers at once if there is a picture. */
  ask(request: GrabRequest, nowMs: number): void {
    this.#waiting.push({ request, untilMs: nowMs + PATIENCE_MS })
    this.serve(nowMs)
  }

  /** Answers what can be answered by now, and what has waited long enough. */
  serve(nowMs: number): void {
    for (let left = this.#waiting.length; left > 0; left -= 1) {
      const one = this.#waiting.shift()!
      const picture = this.#grabOrTell(one.request)
      if (picture === null && nowMs < one.untilMs) this.#waiting.push(one)
      else this.#answer(one.request, picture)
    }
  }

  /** Nobody waits for an answer that a throw has eaten; the throw goes on to whoever reports it. */
  #grabOrTell(request: GrabRequest): RgbaPicture | null {
    try {
      return this.#grab(request)
    } catch (error) {
      this.#answer(request, null)
      throw error
    }
  }
}
