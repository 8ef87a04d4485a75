// Brings studios and meetings together, and tells tabs which of them edits a show.
import type { IncomingMessage, Server } from 'node:http'
import type { Duplex } from 'node:stream'
import type { Logger } from 'pino'
import { WebSocketServer, type WebSocket } from 'ws'
import { z } from 'zod'
import { fromMeetingSchema, fromStudioSchema, type FeedFormat, type FromMeeting, type ToMeeting, type ToStudio } from '../../webcam/signal.ts'
import { isLocalHost, type Origins } from '../guard.ts'
import { EditorRoles } from './editor-roles.ts'

const MAX_MESSAGE_BYTES = 256 * 1024
/** A key frame of the largest picture. */
const MAX_FRAME_BYTES = 8 * 1024 * 1024
const MOST_LINES = 8
/** Pages that may be connected at once, of each kind; far more than a presenter opens. A meeting's pages take no studio's place. */
const MOST_STUDIOS = 40
const MOST_MEETINGS = 60
/** Tracks that one meeting page may take at once. */
const MOST_SESSIONS_A_PAGE = 4

/** What an editing tab may say besides feed signalling. */
const showId = z.string().max(60)
const fromEditorSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('edit'), showId, takeOver: z.boolean(), isAgain: z.boolean() }),
  z.object({ type: z.literal('yield'), showId }),
  z.object({ type: z.literal('leave') }),
])

/** What a tab hears: whether it edits the show it asked for. */
export interface ToEditor {
  readonly type: 'editor'
  readonly showId: string
  readonly isEditor: boolean
}

/** Serves a socket of the studio's page. */
export type StudioLine = (socket: WebSocket) => void

interface Studio {
  readonly socket: WebSocket
}

interface Meeting {
  readonly socket: WebSocket
  readonly origin: string
  /** What its sessions' ids begin with on the studio's side. */
  readonly prefix: string
  readonly sessions: Set<string>
}

export class SignalHub {
  readonly #sockets = new WebSocketServer({ noServer: true, maxPayload: MAX_MESSAGE_BYTES })
  readonly #studios = new Set<Studio>()
  readonly #meetings = new Set<Meeting>()
  readonly #editors = new EditorRoles<Studio>({
    tell: (studio, showId, isEditor) => send(studio.socket, { type: 'editor', showId, isEditor } satisfies ToEditor),
    setTimer: (run, delayMs) => setTimeout(run, delayMs).unref(),
    clearTimer: (timer) => clearTimeout(timer as NodeJS.Timeout),
  })
  /** The tab whose feed the meetings get. */
  #feeder: Studio | null = null
  #format: FeedFormat | undefined
  #meetingsSeen = 0
  readonly #origins: Origins
  readonly #log: Logger
  readonly #lines: ReadonlyMap<string, StudioLine>
  readonly #lineSockets = new WebSocketServer({ noServer: true, maxPayload: MAX_FRAME_BYTES })

  /** `lines` are other paths on which a studio's page may open a socket. */
  constructor(origins: Origins, log: Logger, lines: ReadonlyMap<string, StudioLine> = new Map()) {
    this.#lines = lines
    this.#origins = origins
    this.#log = log
  }

  /** Takes over upgrade requests to /signal of a server. */
  attach(server: Server): void {
    server.on('upgrade', (request, socket, head) => {
      // A caller that goes away in the middle is no concern of anybody else.
      socket.on('error', (error) => this.#log.debug({ err: error }, 'an upgrade ended early'))
      try {
        this.#upgrade(request, socket, head)
      } catch (error) {
        this.#log.warn({ err: error }, 'an upgrade was refused')
        refuse(socket, '400 Bad Request')
      }
    })
  }

  close(): void {
    for (const sockets of [this.#sockets, this.#lineSockets]) {
      for (const socket of sockets.clients) socket.terminate()
      sockets.close()
    }
  }

  #upgrade(request: IncomingMessage, socket: Duplex, head: Buffer): void {
    const [path = '', query = ''] = (request.url ?? '').split('?', 2)
    const role = new URLSearchParams(query).get('role')
    const origin = request.headers.origin ?? ''
    const allowed = role === 'studio' ? this.#origins.studio() : role === 'meeting' ? this.#origins.meeting() : []
    const line = role === 'studio' ? this.#lines.get(path) : undefined
    if ((path !== '/signal' && line === undefined) || !isLocalHost(request) || !allowed.includes(origin)) return refuse(socket, '403 Forbidden')
    if (line !== undefined) return this.#openLine(line, request, socket, head)
    const isFull = role === 'studio' ? this.#studios.size >= MOST_STUDIOS : this.#meetings.size >= MOST_MEETINGS
    if (isFull) return refuse(socket, '503 Service Unavailable')
    this.#sockets.handleUpgrade(request, socket, head, (webSocket) => {
      // Bad frame bits, bad UTF-8 and messages over the limit arrive here; the socket closes itself.
      webSocket.on('error', (error) => this.#log.debug({ err: error }, 'a signalling connection failed'))
      if (role === 'studio') this.#addStudio(webSocket)
      else this.#addMeeting(webSocket, origin)
    })
  }

  #openLine(line: StudioLine, request: IncomingMessage, socket: Duplex, head: Buffer): void {
    if (this.#lineSockets.clients.size >= MOST_LINES) return refuse(socket, '503 Service Unavailable')
    this.#lineSockets.handleUpgrade(request, socket, head, (webSocket) => {
      webSocket.on('error', (error) => this.#log.debug({ err: error }, 'a line of the studio failed'))
      line(webSocket)
    })
  }

  #addStudio(socket: WebSocket): void {
    const studio: Studio = { socket }
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
      this.#editors.leave(studio)
      if (this.#feeder === studio) this.#feeder = null
      this.#tellMeetings()
    })
    this.#tellMeetings()
  }

  #fromStudio(studio: Studio, message: z.infer<typeof fromStudioSchema>): void {
    if (message.type === 'feed') {
      this.#setFeed(studio, message)
      return this.#tellMeetings()
    }
    for (const meeting of this.#meetings) {
      if (!message.session.startsWith(meeting.prefix)) continue
      const session = message.session.slice(meeting.prefix.length)
      if (!meeting.sessions.has(session)) continue
      if (message.type === 'bye') meeting.sessions.delete(session)
      send(meeting.socket, { ...message, session })
    }
  }

  /** One tab sends the feed: the last that started it. One that was cut off for a moment does not take it back. */
  #setFeed(studio: Studio, { isOn, isAgain, format }: Extract<z.infer<typeof fromStudioSchema>, { type: 'feed' }>): void {
    if (!isOn) {
      if (this.#feeder === studio) this.#feeder = null
      return
    }
    const current = this.#feeder
    const runs = current !== null && current !== studio && current.socket.readyState === current.socket.OPEN
    if (runs && isAgain) return send(studio.socket, { type: 'feedTaken' } satisfies ToStudio)
    if (runs) send(current.socket, { type: 'feedTaken' } satisfies ToStudio)
    this.#feeder = studio
    this.#format = format
  }

  #fromEditor(studio: Studio, message: z.infer<typeof fromEditorSchema>): void {
    switch (message.type) {
      case 'edit':
        return this.#editors.ask(studio, message.showId, message)
      case 'yield':
        return this.#editors.yield(studio, message.showId)
      case 'leave':
        return this.#editors.leave(studio)
      default:
        message satisfies never
    }
  }

  #addMeeting(socket: WebSocket, origin: string): void {
    this.#meetingsSeen += 1
    const meeting: Meeting = { socket, origin, prefix: `${this.#meetingsSeen}:`, sessions: new Set() }
    this.#meetings.add(meeting)
    socket.on('message', (data) => {
      const parsed = fromMeetingSchema.safeParse(parse(String(data)))
      if (!parsed.success) return socket.close(1008, 'message not understood')
      const message = parsed.data
      if (message.type === 'want' && !this.#openSession(meeting, message.session)) return send(socket, { type: 'bye', session: message.session })
      if (!meeting.sessions.has(message.session)) return
      this.#toStudio(meeting, message)
      if (message.type === 'bye') meeting.sessions.delete(message.session)
    })
    socket.on('close', () => {
      this.#meetings.delete(meeting)
      for (const session of meeting.sessions) this.#toStudio(meeting, { type: 'bye', session })
    })
    send(socket, this.#studioState())
  }

  /** Notes a session; a page has room for a few only. */
  #openSession(meeting: Meeting, session: string): boolean {
    if (meeting.sessions.size >= MOST_SESSIONS_A_PAGE && !meeting.sessions.has(session)) return false
    meeting.sessions.add(session)
    return true
  }

  #toStudio(meeting: Meeting, message: FromMeeting): void {
    if (this.#feeder === null) return
    const addressed = { ...message, session: `${meeting.prefix}${message.session}` }
    send(this.#feeder.socket, { type: 'meeting', origin: meeting.origin, message: addressed } satisfies ToStudio)
  }

  #tellMeetings(): void {
    for (const meeting of this.#meetings) send(meeting.socket, this.#studioState())
  }

  #studioState(): ToMeeting {
    const format = this.#feeder === null ? undefined : this.#format
    return { type: 'studio', isOpen: this.#studios.size > 0, isFeedOn: this.#feeder !== null, ...(format === undefined ? {} : { format }) }
  }
}

function refuse(socket: Duplex, status: string): void {
  socket.end(`HTTP/1.1 ${status}\r\nContent-Length: 0\r\nConnection: close\r\n\r\n`)
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
