import type { Figures } from './frame-figures.ts'

declare global {
  interface Window {
    /** The meeting's figures since the last call of `reset`, for measurements from outside. */
    meetingFigures?: { readonly read: () => Figures | undefined; readonly reset: () => void; readonly numbers: () => readonly number[]; readonly soundDb: () => number }
  }
}
