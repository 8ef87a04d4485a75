/// <reference lib="webworker" />
// Makes a copy of a film that is 720 lines high: large ones take more of the machine than they show.
import { ALL_FORMATS, BlobSource, BufferTarget, Conversion, Input, Mp4OutputFormat, Output } from 'mediabunny'

declare const self: DedicatedWorkerGlobalScope

export const COPY_HEIGHT_PX = 720

export type FromSmallerCopy =
  | { readonly type: 'progress'; readonly share: number }
  | { readonly type: 'done'; readonly bytes: ArrayBuffer }
  | { readonly type: 'failed'; readonly reason: string }

self.onmessage = ({ data }: MessageEvent<{ readonly url: string }>) => {
  copy(data.url).catch((error: unknown) => post({ type: 'failed', reason: error instanceof Error ? error.message : String(error) }))
}

async function copy(url: string): Promise<void> {
  const response = await fetch(url)
  if (!response.ok) throw new Error(`the file could not be read (${response.status})`)
  const target = new BufferTarget()
  const conversion = await Conversion.init({
    input: new Input({ source: new BlobSource(await response.blob()), formats: ALL_FORMATS }),
    output: new Output({ format: new Mp4OutputFormat(), target }),
    video: { height: COPY_HEIGHT_PX, codec: 'avc' },
  })
  if (!conversion.isValid) throw new Error('this browser cannot code it anew')
  conversion.onProgress = (share) => post({ type: 'progress', share })
  await conversion.execute()
  if (target.buffer === null) throw new Error('nothing came of it')
  post({ type: 'done', bytes: target.buffer }, [target.buffer])
}

function post(message: FromSmallerCopy, transfer: Transferable[] = []): void {
  self.postMessage(message, transfer)
}
