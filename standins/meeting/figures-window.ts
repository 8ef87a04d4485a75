import type { Figures } from './frame-figures.ts'

/** What a meeting page recorded, in wall-clock ms. */
export interface MeetingRecord {
  readonly frames: readonly { readonly number: number; readonly atMs: number }[]
  /** When each block of sound came, and how many frames it holds. */
  readonly blocks: readonly { readonly atMs: number; readonly frames: number }[]
  /** All of them in turn: 16-bit codes of both sides mixed. */
  readonly samples: readonly number[]
}

declare global {
  interface Window {
    /** The meeting's figures since the last call of `reset`, for measurements from outside. */
    meetingFigures?: {
      readonly read: () => Figures | undefined
      readonly reset: () => void
      readonly numbers: () => readonly number[]
      /** The loudest sample of the last second, in dB under full scale. */
      readonly soundDb: () => number
      /** Records what comes for `ms`. */
      readonly record: (ms: number) => Promise<MeetingRecord>
    }
  }
}
