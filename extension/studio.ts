// In the studio's own page: relays between it and the extension. Loaded with the page, or into a page that was open already.
import { FROM_EXTENSION, TO_EXTENSION, type FromStudioPage, type ToStudioPage } from './messages.ts'

/** Whether the relay of an earlier loading still has its extension; one that was taken away or renewed has not. */
const holder = window as typeof window & { greenRoomRelay?: () => boolean }

if (holder.greenRoomRelay?.() !== true) {
  const { runtime } = chrome
  const isAlive = () => runtime?.id !== undefined
  holder.greenRoomRelay = isAlive
  window.addEventListener('message', ({ source, origin, data }: MessageEvent<{ type?: unknown; message?: unknown }>) => {
    if (source !== window || origin !== location.origin || data?.type !== TO_EXTENSION || !isAlive()) return
    runtime.sendMessage(data.message as FromStudioPage).catch(() => undefined)
  })
  runtime.onMessage.addListener((message: ToStudioPage, sender) => {
    if (sender.id === runtime.id) post(message)
    return false
  })
  // The page answers with `here`.
  post({ from: 'worker', type: 'there', version: runtime.getManifest().version, isNew: true })
}

function post(message: ToStudioPage): void {
  window.postMessage({ type: FROM_EXTENSION, message }, location.origin)
}
