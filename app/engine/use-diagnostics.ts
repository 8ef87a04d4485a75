import { cueClaps } from '../inputs/standin-threads.ts'
import { foundHeads } from '../inputs/found-heads.ts'
import './diagnostics.ts'
import { useEngineStore } from './engine.store.ts'
import { useFiguresStore } from './figures.store.ts'

/** Lets measurements read what the engine reports. */
export function useDiagnostics(): void {
  const engine = useEngineStore()
  const figures = useFiguresStore()
  window.greenRoom = {
    stats: () => engine.stats,
    hasPicture: () => engine.hasFirstPicture,
    scopes: () => figures.scopes,
    heads: () => [...foundHeads.value],
    executor: () => engine.executor,
    cueClaps,
    simulateLoss: (isLost) => engine.calls().simulateLoss(isLost),
  }
}
