import bricolageUrl from '@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2?url'
import instrumentUrl from '@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2?url'
import splineUrl from '@fontsource/spline-sans-mono/files/spline-sans-mono-latin-400-normal.woff2?url'
import wasmUrl from '../../engine/cpu/kernels/kernels.wasm?url'
import type { EngineFiles } from '../../engine/client/studio-engine.ts'

/** What the engine's worker loads, under the addresses the build gave them. */
export const engineFiles: EngineFiles = {
  makeWorker: () => new Worker(new URL('../../engine/worker/engine.worker.ts', import.meta.url), { type: 'module', name: 'engine' }),
  wasmUrl: new URL(wasmUrl, location.href).href,
  fonts: [
    { family: 'Bricolage Grotesque', url: new URL(bricolageUrl, location.href).href, weights: '200 800' },
    { family: 'Instrument Sans', url: new URL(instrumentUrl, location.href).href, weights: '400 700' },
    { family: 'Spline Sans Mono', url: new URL(splineUrl, location.href).href, weights: '400' },
  ],
  personFiles: { runtimeUrl: new URL('/person', location.href).href, modelUrl: new URL('/person/person.tflite', location.href).href },
  assetUrlPrefix: new URL('/api/assets/', location.href).href,
}
