import mixWasmUrl from '../../standins/camera/kernels/mix.wasm?url'
import type { CameraInput } from '../../core/show/show.ts'
import { runStandin, type StandinSource } from './standin-threads.ts'

const SEED = 7

/** Starts a stand-in camera on a thread of its own; frames come through the port until `stop`. */
export function openStandin(input: CameraInput): StandinSource {
  const worker = new Worker(new URL('../../standins/camera/camera.worker.ts', import.meta.url), { type: 'module', name: 'stand-in camera' })
  const { widthPx, heightPx, frameRate } = input
  const standin = input.device.type === 'standin' ? input.device.standin : 'cloth'
  return runStandin(worker, { mixWasmUrl: new URL(mixWasmUrl, location.href).href, widthPx, heightPx, frameRate, seed: SEED, standin })
}
