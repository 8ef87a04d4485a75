// The studio's line for frames that go to a device or a file of this computer. One at a time.
import type { Logger } from 'pino'
import type { WebSocket } from 'ws'
import { deviceOutStartSchema, type FromDeviceOut } from '../../webcam/device-out.ts'
import { DeviceWriter } from './device-writer.ts'
import { findWays } from './ways.ts'

export class DeviceOut {
  readonly #dataDir: string
  readonly #log: Logger
  #current: DeviceWriter | null = null

  constructor(dataDir: string, log: Logger) {
    this.#dataDir = dataDir
    this.#log = log
  }

  /** Serves one studio's socket: first where to, then frames. */
  accept(socket: WebSocket): void {
    let writer: DeviceWriter | null = null
    let isStarting = false
    const tell = (message: FromDeviceOut) => {
      if (socket.readyState === socket.OPEN) socket.send(JSON.stringify(message))
    }
    const end = (reason: string | null) => {
      tell({ type: 'ended', reason })
      socket.close()
    }
    socket.on('message', (data, isBinary) => {
      if (isBinary) return writer?.write(data as Buffer)
      if (isStarting) return socket.close(1008, 'started already')
      isStarting = true
      void this.#start(String(data), end).then(
        (started) => {
          writer = started
          // A studio that was gone before the program had started must not leave it running.
          if (socket.readyState !== socket.OPEN) return letGo()
          if (writer !== null) tell({ type: 'started', path: writer.outPath })
        },
        (error: unknown) => {
          this.#log.warn({ err: error }, 'sending to a device failed')
          end('The server could not start it.')
        },
      )
    })
    const letGo = () => {
      writer?.close()
      if (this.#current === writer) this.#current = null
    }
    socket.on('close', letGo)
  }

  close(): void {
    this.#current?.close()
  }

  /** Null when it cannot be: then `end` has been told why. */
  async #start(text: string, end: (reason: string | null) => void): Promise<DeviceWriter | null> {
    const start = deviceOutStartSchema.safeParse(parse(text))
    if (!start.success) return refuse(end, 'The request was not understood.')
    const { target } = start.data
    const ways = await findWays(this.#dataDir)
    if (ways.ffmpeg === null) return refuse(end, 'ffmpeg was not found. Install it, then try again.')
    if (target.type === 'device' && !ways.devices.some((device) => device.path === target.path)) {
      return refuse(end, `There is no loopback device at ${target.path}. Load v4l2loopback, then choose it anew.`)
    }
    if (this.#current !== null) return refuse(end, 'The feed goes to a device already. Stop that first.')
    const writer = new DeviceWriter(start.data, this.#dataDir, {
      onEnd: (reason) => {
        if (this.#current === writer) this.#current = null
        end(reason)
      },
    })
    this.#current = writer
    return writer
  }
}

function refuse(end: (reason: string) => void, reason: string): null {
  end(reason)
  return null
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
