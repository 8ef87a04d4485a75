// Brings studios and meetings together, and tells tabs which of them edits a show.
import type { IncomingMessage, Server } from 'node:http'
import type { Duplex } from 'node:stream'
import { WebSocketServer, type WebSocket } from 'ws'
import { z } from 'zod'
import { fromMeetingSchema, fromStudioSchema, type FromMeeting, type ToMeeting, type ToStudio } from '../../webcam/signal.ts'
import { isLocalHost, type Origins } from '../guard.ts'

const MAX_MESSAGE_BYTES = 256 * 1024

/** What an editing tab may say besides feed signalling. */
const fromEditorSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('edit'), showId: z.string().max(60), takeOver: z.boolean() }),
  z.object({ type: z.literal('leave') }),
])

/** What a tab hears: whether it edits the show it asked for. */
export interface ToEditor {
  readonly type: 'editor'
  readonly showId: string
  readonly isEditor: boolean
}

interface Studio {
  readonly socket: WebSocket
  isFeedOn: boolean
  showId: string | null
}

interface Meeting {
  readonly socket: WebSocket
  readonly origin: string
  readonly sessions: Set<string>
}

export class SignalHub {
  readonly #sockets = new WebSocketServer({ noServer: true, maxPayload: MAX_MESSAGE_BYTES })
  readonly #studios = new Set<Studio>()
  readonly #meetings = new Set<Meeting>()
  /** Which tab edits which show. */
  readonly #editors = new Map<string, Studio>()
  readonly #origins: Origins

  constructor(origins: Origins) {
    this.#origins = origins
  }

  /** Takes over upgrade requests to /signal of a server. */
  attach(server: Server): void {
    server.on('upgrade', (request, socket, head) => this.#upgrade(request, socket, head))
  }

  close(): void {
    for (const socket of this.#sockets.clients) socket.terminate()
    this.#sockets.close()
  }

  #upgrade(request: IncomingMessage, socket: Duplex, head: Buffer): void {
    const url = new URL(request.url ?? '/', 'http://localhost')
    const role = url.searchParams.get('role')
    const origin = request.headers.origin ?? ''
    const allowed = role === 'studio' ? this.#origins.studio() : role === 'meeting' ? this.#origins.meeting() : []
    if (url.pathname !== '/signal' || !isLocalHost(request) || !allowed.includes(origin)) {
      socket.end('HTTP/1.1 403 Forbidden\r\nContent-Length: 0\r\nConnection: close\r\n\r\n')
      return
    }
    this.#sockets.handleUpgrade(request, socket, head, (webSocket) => {
      if (role === 'studio') this.#addStudio(webSocket)
      else this.#addMeeting(webSocket, origin)
    })
  }

  #addStudio(socket: WebSocket): void {
    const studio: Studio = { socket, isFeedOn: false, showId: null }
    this.#studios.add(studio)
    socket.on('message', (data) => {
      const message: unknown = parse(String(data))
      const signal = fromStudioSchema.safeParse(message)
      if (signal.success) return this.#fromStudio(studio, signal.data)
      const editor = fromEditorSchema.safeParse(message)
      if (editor.success) return this.#fromEditor(studio, editor.data)
      socket.close(1008, 'message not understood')
    })
    socket.on('close', () => {
      this.#studios.delete(studio)
      this.#leaveShow(studio)
      this.#tellMeetings()
    })
    this.#tellMeetings()
  }

  #fromStudio(studio: Studio, message: z.infer<typeof fromStudioSchema>): void {
    if (message.type === 'feed') {
      // The feed is the last tab's that started it.
      if (message.isOn) for (const other of this.#studios) other.isFeedOn = false
      studio.isFeedOn = message.isOn
      this.#tellMeetings()
      return
    }
    for (const meeting of this.#meetings) if (meeting.sessions.has(message.session)) send(meeting.socket, message)
  }

  #fromEditor(studio: Studio, message: z.infer<typeof fromEditorSchema>): void {
    if (message.type === 'leave') return this.#leaveShow(studio)
    const { showId } = message
    if (studio.showId !== showId) this.#leaveShow(studio)
    studio.showId = showId
    const current = this.#editors.get(showId)
    if (current === undefined || current === studio || message.takeOver) {
      this.#editors.set(showId, studio)
      if (current !== undefined && current !== studio) tellEditor(current, showId, false)
      tellEditor(studio, showId, true)
    } else {
      tellEditor(studio, showId, false)
    }
  }

  /** Frees a show; a tab that waits for it becomes its editor. */
  #leaveShow(studio: Studio): void {
    const { showId } = studio
    studio.showId = null
    if (showId === null || this.#editors.get(showId) !== studio) return
    this.#editors.delete(showId)
    for (const other of this.#studios) {
      if (other.showId !== showId) continue
      this.#editors.set(showId, other)
      tellEditor(other, showId, true)
      return
    }
  }

  #addMeeting(socket: WebSocket, origin: string): void {
    const meeting: Meeting = { socket, origin, sessions: new Set() }
    this.#meetings.add(meeting)
    socket.on('message', (data) => {
      const message = fromMeetingSchema.safeParse(parse(String(data)))
      if (!message.success) return socket.close(1008, 'message not understood')
      meeting.sessions.add(message.data.session)
      this.#toStudio(meeting, message.data)
      if (message.data.type === 'bye') meeting.sessions.delete(message.data.session)
    })
    socket.on('close', () => {
      this.#meetings.delete(meeting)
      for (const session of meeting.sessions) this.#toStudio(meeting, { type: 'bye', session })
    })
    send(socket, this.#studioState())
  }

  #toStudio(meeting: Meeting, message: FromMeeting): void {
    for (const studio of this.#studios) {
      if (studio.isFeedOn) send(studio.socket, { type: 'meeting', origin: meeting.origin, message } satisfies ToStudio)
    }
  }

  #tellMeetings(): void {
    for (const meeting of this.#meetings) send(meeting.socket, this.#studioState())
  }

  #studioState(): ToMeeting {
    const studios = [...this.#studios]
    return { type: 'studio', isOpen: studios.length > 0, isFeedOn: studios.some((studio) => studio.isFeedOn) }
  }
}

function tellEditor(studio: Studio, showId: string, isEditor: boolean): void {
  send(studio.socket, { type: 'editor', showId, isEditor } satisfies ToEditor)
}

function send(socket: WebSocket, message: unknown): void {
  if (socket.readyState === socket.OPEN) socket.send(JSON.stringify(message))
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
