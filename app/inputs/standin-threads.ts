// Stand-in devices, each on a thread of its own. Their presenter does what a presenter would be asked to: clap.

const listeners = new Set<(atMs: number) => void>()

/** What a stand-in gives: a port through which its pictures or its sound come, until `stop`. */
export interface StandinSource {
  readonly port: MessagePort
  readonly stop: () => void
  /** Tells it something while it runs. */
  readonly tell: (message: Readonly<Record<string, unknown>>) => void
}

/** Starts a stand-in by its first message. */
export function runStandin(worker: Worker, start: Readonly<Record<string, unknown>>): StandinSource {
  const { port1, port2 } = new MessageChannel()
  worker.postMessage({ ...start, port: port1 }, [port1])
  const hear = (atMs: number) => worker.postMessage({ type: 'clap', atMs })
  listeners.add(hear)
  return {
    port: port2,
    stop: () => {
      listeners.delete(hear)
      worker.terminate()
    },
    tell: (message) => worker.postMessage(message),
  }
}

/** Asks every stand-in to clap from now on; when that was, in wall-clock ms. */
export function cueClaps(): number {
  const atMs = Date.now()
  for (const hear of listeners) hear(atMs)
  return atMs
}
