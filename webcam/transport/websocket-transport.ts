import type { Transport } from './transport.ts'

const FIRST_RETRY_MS = 250
const LAST_RETRY_MS = 3000

/** Signalling through the studio's own server; reconnects by itself until closed. */
export class WebSocketTransport<Out, In> implements Transport<Out, In> {
  onMessage: ((message: In) => void) | null = null
  onState: ((isOpen: boolean) => void) | null = null
  readonly #url: string
  #socket: WebSocket | null = null
  #isClosed = false
  #retryMs = FIRST_RETRY_MS
  #timer: ReturnType<typeof setTimeout> | null = null

  constructor(url: string) {
    this.#url = url
    this.#connect()
  }

  /** Sends now; a message without a connection is dropped, since sessions start anew after one. */
  send(message: Out): void {
    if (this.#socket?.readyState === WebSocket.OPEN) this.#socket.send(JSON.stringify(message))
  }

  close(): void {
    this.#isClosed = true
    if (this.#timer !== null) clearTimeout(this.#timer)
    this.#socket?.close()
  }

  #connect(): void {
    const socket = new WebSocket(this.#url)
    this.#socket = socket
    socket.onopen = () => {
      this.#retryMs = FIRST_RETRY_MS
      this.onState?.(true)
    }
    socket.onmessage = ({ data }) => this.onMessage?.(JSON.parse(String(data)) as In)
    socket.onclose = () => {
      if (this.#socket !== socket) return
      this.#socket = null
      this.onState?.(false)
      if (this.#isClosed) return
      this.#timer = setTimeout(() => this.#connect(), this.#retryMs)
      this.#retryMs = Math.min(LAST_RETRY_MS, this.#retryMs * 2)
    }
  }
}
