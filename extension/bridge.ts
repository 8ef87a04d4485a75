// In the extension's own world of a meeting page: receives the feed and hands its tracks to the page.
import { FeedDoor } from '../webcam/driver/device-door.ts'
import type { DeviceIds } from '../webcam/driver/device-door.ts'
import type { FromSite, ToMeeting } from '../webcam/signal.ts'
import type { Transport } from '../webcam/transport/transport.ts'
import { answerQuestions, TELL, type Told } from './crossing.ts'
import type { FromBridge, ToBridge } from './messages.ts'

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

  let told: Told | null = null
  void send({ to: 'ids' }).then((ids) => {
    if (ids === undefined) return
    told = { ids: ids as DeviceIds }
    tell(told)
  })

  answerQuestions((question, element) => {
    switch (question.type) {
      case 'hello':
        return told
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
