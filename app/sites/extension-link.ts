// The studio page's line to the browser extension, when there is one.
import { FROM_EXTENSION, TO_EXTENSION, type FromStudioPage, type ToStudioPage } from '../../extension/messages.ts'
import type { SiteLink } from '../../webcam/host/site-gate.ts'

export interface ExtensionLinkEvents {
  /** The extension is there. `isNew`: it was just loaded, with the page or into it, and does not know this studio yet. */
  readonly onThere: (version: string, isNew: boolean) => void
  readonly onMessage: (documentId: string, origin: string, message: unknown) => void
  /** A page that can no longer be reached. */
  readonly onGone: (documentId: string) => void
}

export function openExtensionLink(events: ExtensionLinkEvents): SiteLink {
  const post = (message: FromStudioPage) => window.postMessage({ type: TO_EXTENSION, message }, location.origin)

  window.addEventListener('message', ({ source, origin, data }: MessageEvent<{ type?: unknown; message?: ToStudioPage }>) => {
    if (source !== window || origin !== location.origin || data?.type !== FROM_EXTENSION || data.message === undefined) return
    const { message } = data
    if (message.from === 'site') events.onMessage(message.documentId, message.origin, message.message)
    else if (message.type === 'gone') events.onGone(message.documentId)
    else events.onThere(message.version, message.isNew)
  })
  return {
    send: (documentId, message) => post({ to: 'site', documentId, message }),
    announce: (isFeedOn) => post({ to: 'worker', type: 'here', isFeedOn }),
  }
}
