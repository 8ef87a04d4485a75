import type { EngineStats } from '../../engine/protocol.ts'

declare global {
  interface Window {
    /** Figures of the running engine, for measurements from outside. */
    greenRoom?: { readonly stats: () => EngineStats | null; readonly hasPicture: () => boolean }
  }
}

/** Lets measurements read what the engine reports. */
export function exposeFigures(stats: () => EngineStats | null, hasPicture: () => boolean): void {
  window.greenRoom = { stats, hasPicture }
}
