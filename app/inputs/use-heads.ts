// Where the heads of the show's cameras are, looked for when a layout asks.
import { headOfFace } from '../../core/layout/arrange/head.ts'
import { FaceFinder } from '../../engine/client/face-finder.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { foundHeads } from './found-heads.ts'

const finder = new FaceFinder({
  makeWorker: () => new Worker(new URL('../../engine/person/face.worker.ts', import.meta.url), { type: 'module', name: 'faces' }),
  runtimeUrl: new URL('/person', location.href).href,
  modelUrl: new URL('/person/face.tflite', location.href).href,
})

export function useHeads() {
  const engine = useEngineStore()

  /** Looks once in each of some cameras; one without a picture, or without a face in it, keeps what was known of it. */
  async function lookIn(inputIds: readonly string[]): Promise<void> {
    await Promise.all(
      inputIds.map(async (inputId) => {
        const picture = await engine.calls().pictures.grab(inputId, null, null)
        const [face] = picture === null ? [] : ((await finder.find(picture)) ?? [])
        if (face !== undefined) foundHeads.value = new Map([...foundHeads.value, [inputId, headOfFace(face)]])
      }),
    )
  }

  return { heads: foundHeads, lookIn }
}
