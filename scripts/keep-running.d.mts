/** Exit code of a program that says it cannot start as things are. */
export const CANNOT_START: 2

export function keepRunning(options: {
  readonly start: () => Promise<{ readonly code: number | null; readonly signal: string | null }>
  readonly isStopping: () => boolean
  readonly say: (text: string) => void
  readonly wait: (delayMs: number) => Promise<void>
  readonly nowMs: () => number
  readonly most?: number
  readonly withinMs?: number
}): Promise<number>
