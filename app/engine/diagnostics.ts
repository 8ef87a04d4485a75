import type { EngineStats, Scopes } from '../../engine/protocol.ts'

declare global {
  interface Window {
    /** Figures of the running engine, for measurements from outside. */
    greenRoom?: { readonly stats: () => EngineStats | null; readonly hasPicture: () => boolean; readonly scopes: () => Scopes | null }
  }
}

/** Lets measurements read what the engine reports. */
export function exposeFigures(stats: () => EngineStats | null, hasPicture: () => boolean, scopes: () => Scopes | null): void {
  window.greenRoom = { stats, hasPicture, scopes }
}
