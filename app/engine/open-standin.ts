import mixWasmUrl from '../../standins/camera/kernels/mix.wasm?url'
import type { CameraInput } from '../../core/show/show.ts'

import { hearCues } from './standin-cues.ts'

const SEED = 7

/** Starts a stand-in camera on a thread of its own; frames come through the port until `stop`. */
export function openStandin(input: CameraInput): { port: MessagePort; stop: () => void } {
  const worker = new Worker(new URL('../../standins/camera/camera.worker.ts', import.meta.url), { type: 'module', name: 'stand-in camera' })
  const { port1, port2 } = new MessageChannel()
  const { widthPx, heightPx, frameRate } = input
  const standin = input.device.type === 'standin' ? input.device.standin : 'cloth'
  worker.postMessage({ port: port1, mixWasmUrl: new URL(mixWasmUrl, location.href).href, widthPx, heightPx, frameRate, seed: SEED, standin }, [port1])
  const forget = hearCues((atMs) => worker.postMessage({ type: 'clap', atMs }))
  return {
    port: port2,
    stop: () => {
      forget()
      worker.terminate()
    },
  }
}
