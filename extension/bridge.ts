// In the extension's own world of a meeting page: receives the feed and hands its tracks to the page.
import { FeedDoor } from '../webcam/driver/device-door.ts'
import type { DeviceIds } from '../webcam/driver/device-door.ts'
import type { FromSite, ToMeeting } from '../webcam/signal.ts'
import type { Transport } from '../webcam/transport/transport.ts'
import { answerQuestions, TELL, type Told } from './crossing.ts'
import type { FromBridge, ToBridge } from './messages.ts'

const MARK_KEY = 'green-room-mark'

if ('MediaStreamTrackGenerator' in window && navigator.mediaDevices !== undefined) {
  const transport: Transport<FromSite, ToMeeting> = {
    send: (message) => void send({ to: 'studio', message }),
    onMessage: null,
    onState: null,
    close: () => undefined,
  }
  const feed = new FeedDoor(transport, { onUse: (isUsed) => transport.send({ type: isUsed ? 'open' : 'close' }) })
  chrome.runtime.onMessage.addListener((heard: ToBridge, sender) => {
    if (sender.id !== chrome.runtime.id) return false
    // A studio that was opened, or began anew, learns what this page holds.
    const { message } = heard
    if (message.type === 'studio' && message.isNew === true && feed.isUsed) transport.send({ type: 'open' })
    transport.onMessage?.(message)
    return false
  })

  /** Asked for once a page uses its devices: a page that never does is left alone, with no mark in its data. */
  let asked: Promise<void> | null = null
  const makeKnown = async () => {
    const ids = await send({ to: 'ids', mark: siteMark() })
    if (ids !== undefined) tell({ ids: ids as DeviceIds })
  }

  answerQuestions((question, element) => {
    switch (question.type) {
      case 'hello':
        asked ??= makeKnown()
        return true
      case 'source':
        return feed.source
      case 'camera':
        element.srcObject = new MediaStream([feed.openCamera(question.wish)])
        return true
      case 'microphone':
        element.srcObject = new MediaStream([feed.openMicrophone()])
        return true
      case 'change': {
        const track = (element.srcObject as MediaStream | null)?.getTracks()[0]
        if (track !== undefined) feed.change(track, question.wish)
        return true
      }
      default:
        question satisfies never
        return null
    }
  })
  // A page that is kept for coming back to opens its devices anew.
  window.addEventListener('pagehide', () => feed.close())
}

/** Cleared with the site's data, so that our ids are renewed with it, as a device's are: no site can know a visitor by them for longer. */
function siteMark(): string {
  const fresh = crypto.randomUUID()
  try {
    const mark = localStorage.getItem(MARK_KEY) ?? fresh
    localStorage.setItem(MARK_KEY, mark)
    return mark
  } catch {
    // A page that may not store anything gets new ids at every visit.
    return fresh
  }
}

function tell(what: Told): void {
  const element = document.createElement('video')
  element.dataset['told'] = JSON.stringify(what)
  document.dispatchEvent(new MouseEvent(TELL, { relatedTarget: element }))
}

/** The worker's answer; undefined once the extension was taken away or renewed: the page keeps the card until it is loaded again. */
async function send(message: FromBridge): Promise<unknown> {
  try {
    return await chrome.runtime.sendMessage(message)
  } catch {
    return undefined
  }
}
