// In the studio's own page: relays between it and the extension. Loaded with the page, or into a page that was open already.
import { FROM_EXTENSION, TO_EXTENSION, type FromStudioPage, type ToStudioPage } from './messages.ts'

const holder = window as typeof window & { greenRoomRelay?: true }

if (holder.greenRoomRelay === undefined) {
  holder.greenRoomRelay = true
  window.addEventListener('message', ({ source, origin, data }: MessageEvent<{ type?: unknown; message?: unknown }>) => {
    if (source !== window || origin !== location.origin || data?.type !== TO_EXTENSION) return
    // An extension that was taken away in the meantime has nobody to tell.
    chrome.runtime?.sendMessage?.(data.message as FromStudioPage).catch(() => undefined)
  })
  chrome.runtime.onMessage.addListener((message: ToStudioPage, sender) => {
    if (sender.id === chrome.runtime.id) window.postMessage({ type: FROM_EXTENSION, message }, location.origin)
    return false
  })
  // The page answers with `here`.
  window.postMessage(
    { type: FROM_EXTENSION, message: { from: 'worker', type: 'there', version: chrome.runtime.getManifest().version } satisfies ToStudioPage },
    location.origin,
  )
}
