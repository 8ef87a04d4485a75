// In the extension's own world of a meeting page: receives the feed and hands its tracks to the page. Whether the page may have
// them is judged here, before anything is opened: what asks may be any script of the page.
import { FeedDoor } from '../webcam/driver/device-door.ts'
import { makeVoiceWorker } from '../webcam/driver/make-voice-worker.ts'
import type { DeviceIds } from '../webcam/driver/device-door.ts'
import type { FromSite, ToMeeting } from '../webcam/signal.ts'
import type { Transport } from '../webcam/transport/transport.ts'
import { BridgeLine, type Question } from './crossing.ts'
import type { FromBridge, ToBridge } from './messages.ts'
import { DocumentRights } from './rights.ts'

const MARK_KEY = 'green-room-mark'

if ('MediaStreamTrackGenerator' in window && navigator.mediaDevices !== undefined && self.origin !== 'null') {
  const transport: Transport<FromSite, ToMeeting> = {
    send: (message) => void send({ to: 'studio', message }),
    onMessage: null,
    onState: null,
    close: () => undefined,
  }
  const feed = new FeedDoor(transport, {
    onUse: (isUsed) => transport.send({ type: isUsed ? 'open' : 'close' }),
    makeVoiceWorker,
  })
  const rights = new DocumentRights((kind) => feed.end(kind))
  let ids: DeviceIds | null = null
  let identified: Promise<void> | null = null

  chrome.runtime.onMessage.addListener((heard: ToBridge, sender) => {
    if (sender.id !== chrome.runtime.id) return false
    // A studio that was opened, or began anew, learns what this page holds.
    const { message } = heard
    if (message.type === 'studio' && message.isNew === true && feed.isUsed) transport.send({ type: 'open' })
    transport.onMessage?.(message)
    return false
  })

  const line = new BridgeLine(reply)
  // A page that is kept for coming back to opens its devices anew.
  window.addEventListener('pagehide', () => feed.close())

  function reply(question: Question, element: HTMLVideoElement): unknown {
    switch (question.type) {
      case 'hello':
        void greet()
        return true
      case 'identify':
        void (identified ??= identify())
        return true
      case 'source':
        return rights.isGranted('camera') || feed.isUsed ? feed.source : null
      case 'camera':
        if (rights.mayUse('camera')) element.srcObject = new MediaStream([feed.openCamera(question.wish)])
        return rights.mayUse('camera')
      case 'microphone':
        if (rights.mayUse('microphone')) element.srcObject = new MediaStream([feed.openMicrophone(question.wish)])
        return rights.mayUse('microphone')
      case 'changeCamera':
        return feed.changeCamera(trackIn(element), question.wish)
      case 'changeMicrophone':
        return feed.changeMicrophone(trackIn(element), question.wish)
      default:
        question satisfies never
        return null
    }
  }

  /** A page that used our devices before knows them by their ids; one that never did gets no mark in its data for asking. */
  async function greet(): Promise<void> {
    await rights.learn()
    if (storedMark() !== null && isAnyAllowed()) await (identified ??= identify())
    tell()
  }

  async function identify(): Promise<void> {
    await rights.learn()
    if (isAnyAllowed()) ids = ((await send({ to: 'ids', mark: storedMark() ?? makeMark() })) as DeviceIds | undefined) ?? null
    tell()
  }

  const isAnyAllowed = () => rights.mayUse('camera') || rights.mayUse('microphone')
  const tell = () => line.tell({ isPresent: chrome.runtime?.id !== undefined, ids })
}

const trackIn = (element: HTMLVideoElement) => (element.srcObject as MediaStream | null)?.getTracks()[0] ?? null

/** Cleared with the site's data, so that our ids are renewed with it, as a device's are: no site can know a visitor by them for longer. */
function storedMark(): string | null {
  try {
    return localStorage.getItem(MARK_KEY)
  } catch {
    // A page that may not store anything gets new ids at every visit.
    return null
  }
}

function makeMark(): string {
  const mark = crypto.randomUUID()
  try {
    localStorage.setItem(MARK_KEY, mark)
  } catch {
    // As above: the ids last as long as the page.
  }
  return mark
}

/** The worker's answer; undefined once the extension was taken away or renewed: the page keeps the card until it is loaded again. */
async function send(message: FromBridge): Promise<unknown> {
  try {
    return await chrome.runtime.sendMessage(message)
  } catch {
    return undefined
  }
}
