// A stand-in presenter does what a presenter would be asked to: clap.

const listeners = new Set<(atMs: number) => void>()

/** Hears when the presenter is asked to clap (wall-clock ms). Returns what ends it. */
export function hearCues(hear: (atMs: number) => void): () => void {
  listeners.add(hear)
  return () => listeners.delete(hear)
}

/** Asks every stand-in to clap from now on; when that was, in wall-clock ms. */
export function cueClaps(): number {
  const atMs = Date.now()
  for (const hear of listeners) hear(atMs)
  return atMs
}
