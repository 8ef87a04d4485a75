// The tab's one line to the server: feed signalling and who edits which show.
import type { FromStudio, ToStudio } from '../../webcam/signal.ts'
import type { Transport } from '../../webcam/transport/transport.ts'
import { WebSocketTransport } from '../../webcam/transport/websocket-transport.ts'

type EditorRequest =
  | { readonly type: 'edit'; readonly showId: string; readonly takeOver: boolean; readonly isAgain: boolean }
  | { readonly type: 'yield'; readonly showId: string }
  | { readonly type: 'leave' }
type EditorAnswer = { readonly type: 'editor'; readonly showId: string; readonly isEditor: boolean }

export interface StudioLinkEvents {
  /** The server can be reached, or no longer can. */
  readonly onOpen: (isOpen: boolean) => void
  /** Whether this tab edits the show it asked for. */
  readonly onEditor: (showId: string, isEditor: boolean) => void
}

export class StudioLink {
  /** Feed signalling, for the webcam host. */
  readonly signalling: Transport<FromStudio, ToStudio>
  readonly #socket: WebSocketTransport<FromStudio | EditorRequest, ToStudio | EditorAnswer>
  #showId: string | null = null
  /** Whether this tab edits, and whether it was told to take over and has not heard yet. */
  #isEditor = false
  #wantsOver = false

  constructor(events: StudioLinkEvents) {
    const url = new URL('/signal?role=studio', location.href)
    url.protocol = url.protocol === 'https:' ? 'wss:' : 'ws:'
    const socket = new WebSocketTransport<FromStudio | EditorRequest, ToStudio | EditorAnswer>(url.href)
    this.#socket = socket
    this.signalling = {
      send: (message) => socket.send(message),
      onMessage: null,
      onState: null,
      close: () => socket.close(),
    }
    socket.onMessage = (message) => {
      if (message.type === 'editor') {
        this.#isEditor = message.isEditor && message.showId === this.#showId
        if (this.#isEditor) this.#wantsOver = false
        events.onEditor(message.showId, message.isEditor)
      } else this.signalling.onMessage?.(message)
    }
    socket.onState = (isOpen) => {
      if (isOpen && this.#showId !== null) socket.send({ type: 'edit', showId: this.#showId, takeOver: this.#wantsOver, isAgain: this.#isEditor })
      this.signalling.onState?.(isOpen)
      events.onOpen(isOpen)
    }
  }

  /** Asks to edit a show. */
  edit(showId: string, takeOver: boolean): void {
    if (showId !== this.#showId) this.#isEditor = false
    this.#showId = showId
    this.#wantsOver = takeOver
    this.#socket.send({ type: 'edit', showId, takeOver, isAgain: false })
  }

  /** Tells that everything is saved and another tab may edit. */
  yield(showId: string): void {
    this.#socket.send({ type: 'yield', showId })
  }

  /** Stops editing. */
  leave(): void {
    this.#showId = null
    this.#isEditor = false
    this.#wantsOver = false
    this.#socket.send({ type: 'leave' })
  }
}
