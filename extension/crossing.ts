// How a page's world and the extension's own world of the same page speak: over a loose element that both hold. An event on it
// hands over another element, whose data and stream are the question and the answer. Neither sees the other's variables. The
// page's own listeners are taken away when it writes itself anew (document.open); those on a loose element stay.
import type { Bounds, PictureBounds, PictureWish, ResizeMode } from '../webcam/driver/constraints.ts'
import type { DeviceIds } from '../webcam/driver/device-door.ts'
import type { SoundWish } from '../webcam/driver/sound-constraints.ts'

const JOIN = 'green-room:join'
const READY = 'green-room:ready'
const ASK = 'green-room:ask'
const TELL = 'green-room:tell'
/** Sets of constraints that one question may bring. */
const MOST_SETS = 20

export type Question =
  /** Asks for what may be known before a device is opened; told, not answered. */
  | { readonly type: 'hello' }
  /** Asks for ids that last; told, not answered. */
  | { readonly type: 'identify' }
  | { readonly type: 'source' }
  | { readonly type: 'camera'; readonly wish: PictureWish }
  | { readonly type: 'microphone'; readonly wish: SoundWish }
  | { readonly type: 'changeCamera'; readonly wish: PictureWish }
  | { readonly type: 'changeMicrophone'; readonly wish: SoundWish }

/** Told to the page's world once it is known. `ids`: null while this page has none. */
export interface Told {
  readonly isPresent: boolean
  readonly ids: DeviceIds | null
}

export interface Crossing {
  readonly element: HTMLVideoElement
  /** What was answered; undefined when nobody did. */
  readonly answer: unknown
}

/** The page's end. */
export class PageLine {
  readonly #line = document.createElement('div')

  /** `onTold` hears whatever the other world tells. */
  constructor(onTold: (told: Told) => void) {
    this.#line.addEventListener(TELL, (event) => {
      const element = (event as MouseEvent).relatedTarget
      if (element instanceof HTMLElement) onTold(JSON.parse(element.dataset['told'] ?? 'null') as Told)
    })
    const join = () => document.dispatchEvent(new MouseEvent(JOIN, { relatedTarget: this.#line }))
    // Which world is there first is the browser's choice.
    document.addEventListener(READY, join, { once: true })
    join()
  }

  /** Asks the other world, which answers before this returns. */
  ask(question: Question, track?: MediaStreamTrack): Crossing {
    const element = document.createElement('video')
    element.dataset['question'] = JSON.stringify(question)
    if (track !== undefined) element.srcObject = new MediaStream([track])
    this.#line.dispatchEvent(new MouseEvent(ASK, { relatedTarget: element }))
    const { answer } = element.dataset
    return { element, answer: answer === undefined ? undefined : JSON.parse(answer) }
  }
}

/** The extension's end. It takes the first line that is offered, before any script of the page has run. */
export class BridgeLine {
  #line: HTMLElement | null = null

  /** `reply` returns what is to be answered, and may leave a track in the element. */
  constructor(reply: (question: Question, element: HTMLVideoElement) => unknown) {
    const join = (event: Event) => {
      const line = (event as MouseEvent).relatedTarget
      if (!(line instanceof HTMLElement)) return
      document.removeEventListener(JOIN, join)
      this.#line = line
      line.addEventListener(ASK, (asked) => {
        const element = (asked as MouseEvent).relatedTarget
        if (!(element instanceof HTMLVideoElement)) return
        const question = readQuestion(element.dataset['question'])
        if (question !== null) element.dataset['answer'] = JSON.stringify(reply(question, element) ?? null)
      })
    }
    document.addEventListener(JOIN, join)
    document.dispatchEvent(new Event(READY))
  }

  tell(told: Told): void {
    const element = document.createElement('div')
    element.dataset['told'] = JSON.stringify(told)
    this.#line?.dispatchEvent(new MouseEvent(TELL, { relatedTarget: element }))
  }
}

/** A page may ask anything; what is no question gets no answer. */
export function readQuestion(text: string | undefined): Question | null {
  try {
    const asked = JSON.parse(text ?? 'null') as { readonly type?: Question['type']; readonly wish?: unknown } | null
    switch (asked?.type) {
      case 'hello':
      case 'identify':
      case 'source':
        return { type: asked.type }
      case 'microphone':
      case 'changeMicrophone':
        return { type: asked.type, wish: readSoundWish(asked.wish) }
      case 'camera':
      case 'changeCamera':
        return { type: asked.type, wish: readPictureWish(asked.wish) }
      default:
        return null
    }
  } catch {
    // No JSON, or nothing of the shape: no question.
    return null
  }
}

const objectOf = (value: unknown): Readonly<Record<string, unknown>> => (typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {})

function readPictureWish(raw: unknown): PictureWish {
  const { required, advanced, prefersCrop } = objectOf(raw)
  const sets = Array.isArray(advanced) ? advanced.slice(0, MOST_SETS) : []
  return { required: readBounds(required), advanced: sets.map(readBounds), prefersCrop: prefersCrop === true }
}

function readBounds(raw: unknown): PictureBounds {
  const { width, height, aspectRatio, frameRate, resizeModes } = objectOf(raw)
  const modes = Array.isArray(resizeModes) ? resizeModes.filter((mode): mode is ResizeMode => mode === 'none' || mode === 'crop-and-scale') : null
  return { width: readRange(width), height: readRange(height), aspectRatio: readRange(aspectRatio), frameRate: readRange(frameRate), resizeModes: modes }
}

function readRange(raw: unknown): Bounds {
  const { min, max, ideal } = objectOf(raw)
  const read = (value: unknown) => (typeof value === 'number' && Number.isFinite(value) ? value : null)
  return { min: read(min), max: read(max), ideal: read(ideal) }
}

function readSoundWish(raw: unknown): SoundWish {
  const { channels, echoCancellation } = objectOf(raw)
  return { channels: channels === 1 ? 1 : 2, echoCancellation: echoCancellation === true }
}
