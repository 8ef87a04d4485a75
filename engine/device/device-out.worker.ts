/// <reference lib="webworker" />
// Encodes the feed for a device or a file of this computer and sends it to the server, on a thread of its own.
import { h264Codec } from './h264-codec.ts'

declare const self: DedicatedWorkerGlobalScope

export interface DeviceOutOrder {
  readonly readable: ReadableStream<VideoFrame>
  readonly socketUrl: string
  /** The first message, as the server wants it. */
  readonly start: { readonly widthPx: number; readonly heightPx: number; readonly frameRate: number }
}

/** What the page hears: the server's messages, and the line's end. */
export type FromDeviceOutWorker =
  { readonly type: 'server'; readonly message: unknown } | { readonly type: 'closed' } | { readonly type: 'failed'; readonly reason: string }

const BITRATE = 12_000_000
/** Frames that wait in the encoder; more would be late. */
const MOST_WAITING = 3
const MOST_BUFFERED_BYTES = 4_000_000

self.onmessage = ({ data }: MessageEvent<DeviceOutOrder>) => {
  run(data).catch((error: unknown) => tell({ type: 'failed', reason: error instanceof Error ? error.message : String(error) }))
}

const tell = (message: FromDeviceOutWorker) => self.postMessage(message)

async function run({ readable, socketUrl, start }: DeviceOutOrder): Promise<void> {
  const socket = new WebSocket(socketUrl)
  socket.binaryType = 'arraybuffer'
  socket.onopen = () => socket.send(JSON.stringify(start))
  socket.onmessage = ({ data }) => tell({ type: 'server', message: JSON.parse(String(data)) })
  const closed = new Promise<void>((resolve) => (socket.onclose = () => resolve()))
  void closed.then(() => tell({ type: 'closed' }))

  let wantsKey = true
  const encoder = new VideoEncoder({
    output: (chunk) => {
      const bytes = new Uint8Array(chunk.byteLength)
      chunk.copyTo(bytes)
      if (socket.readyState === WebSocket.OPEN) socket.send(bytes)
    },
    error: (error) => tell({ type: 'failed', reason: error.message }),
  })
  let size = ''
  let count = 0
  const reader = readable.getReader()
  // Once, not for every frame: a promise that is raced anew each time holds on to every race.
  closed.then(() => reader.cancel()).catch((error: unknown) => tell({ type: 'failed', reason: String(error) }))
  for (;;) {
    const { done, value: frame } = await reader.read()
    if (done || frame === undefined) break
    const { widthPx, heightPx, frameRate } = start
    const isPossible = socket.readyState === WebSocket.OPEN && encoder.encodeQueueSize < MOST_WAITING && socket.bufferedAmount < MOST_BUFFERED_BYTES
    if (isPossible && encoder.state !== 'closed') {
      if (size === '')
        encoder.configure({
          codec: h264Codec(widthPx, heightPx),
          width: widthPx,
          height: heightPx,
          bitrate: BITRATE,
          framerate: frameRate,
          latencyMode: 'realtime',
          avc: { format: 'annexb' },
        })
      size = `${widthPx}×${heightPx}`
      encoder.encode(frame, { keyFrame: wantsKey || count % frameRate === 0 })
      wantsKey = false
      count += 1
    } else wantsKey = true
    frame.close()
  }
  await reader.cancel()
  if (encoder.state !== 'closed') encoder.close()
  socket.close()
}
