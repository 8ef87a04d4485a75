// How a page's world and the extension's own world of the same page speak: an event hands over a loose element, whose data and
// stream are the question and the answer. Both see the same element; neither sees the other's variables.
import type { PictureWish } from '../webcam/driver/constraints.ts'
import type { DeviceIds } from '../webcam/driver/device-door.ts'

export const ASK = 'green-room:ask'
export const TELL = 'green-room:tell'

export type Question =
  | { readonly type: 'hello' }
  | { readonly type: 'source' }
  | { readonly type: 'camera'; readonly wish: PictureWish }
  | { readonly type: 'microphone' }
  | { readonly type: 'change'; readonly wish: PictureWish }

/** Told to the page's world once it is known. */
export interface Told {
  readonly ids: DeviceIds
}

export interface Crossing {
  readonly element: HTMLVideoElement
  /** What was answered; undefined when nobody did. */
  readonly answer: unknown
}

/** Asks the other world, which answers before this returns. */
export function ask(question: Question, track?: MediaStreamTrack): Crossing {
  const element = document.createElement('video')
  element.dataset['question'] = JSON.stringify(question)
  if (track !== undefined) element.srcObject = new MediaStream([track])
  document.dispatchEvent(new MouseEvent(ASK, { relatedTarget: element }))
  const { answer } = element.dataset
  return { element, answer: answer === undefined ? undefined : JSON.parse(answer) }
}

/** Answers the other world's questions. `reply` returns what is to be told back, and may leave a track in the element. */
export function answerQuestions(reply: (question: Question, element: HTMLVideoElement) => unknown): void {
  document.addEventListener(ASK, (event) => {
    const element = (event as MouseEvent).relatedTarget
    if (!(element instanceof HTMLVideoElement)) return
    const question = readQuestion(element.dataset['question'])
    if (question !== null) element.dataset['answer'] = JSON.stringify(reply(question, element) ?? null)
  })
}

/** A page may ask anything; what is no question gets no answer. */
function readQuestion(text: string | undefined): Question | null {
  try {
    const asked = JSON.parse(text ?? 'null') as Partial<Extract<Question, { wish: PictureWish }>> | null
    switch (asked?.type as Question['type'] | undefined) {
      case 'hello':
      case 'source':
      case 'microphone':
        return asked as Question
      case 'camera':
      case 'change':
        return { type: asked!.type!, wish: readWish(asked!.wish ?? {}) }
      default:
        return null
    }
  } catch {
    return null
  }
}

function readWish({ widthPx, heightPx, frameRate, mayCrop }: Partial<PictureWish>): PictureWish {
  const read = (value: unknown) => (typeof value === 'number' && value > 0 && Number.isFinite(value) ? value : null)
  return { widthPx: read(widthPx), heightPx: read(heightPx), frameRate: read(frameRate), mayCrop: mayCrop === true }
}
