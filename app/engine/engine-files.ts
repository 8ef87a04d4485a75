import wasmUrl from '../../engine/cpu/kernels/kernels.wasm?url'
import type { EngineFiles } from '../../engine/client/studio-engine.ts'
import { loadFontList } from './font-list.ts'

/** What the engine's worker loads, under the addresses the build gave them. */
export const engineFiles: EngineFiles = {
  makeWorker: () => new Worker(new URL('../../engine/worker/engine.worker.ts', import.meta.url), { type: 'module', name: 'engine' }),
  wasmUrl: new URL(wasmUrl, location.href).href,
  loadFonts: loadFontList,
  personFiles: { runtimeUrl: new URL('/person', location.href).href, modelUrl: new URL('/person/person.tflite', location.href).href },
  assetUrlPrefix: new URL('/api/assets/', location.href).href,
}
