// The states of whatever is live: cameras, screens, clips and microphones share one contract, and views read one table of it.

/**
 * off: nobody asked for it. asked: the presenter or the browser still has to answer. starting: it is being opened. live: its pictures or its sound come.
 * paused: open or at hand, but at rest. ended: it came to its own end. failed: see `LiveFailure`.
 */
export type LivePhase = 'off' | 'asked' | 'starting' | 'live' | 'paused' | 'ended' | 'failed'

/** Why something live failed. */
export type LiveFailure =
  /** The browser or the presenter said no. */
  | 'refused'
  /** Another program holds it. */
  | 'busy'
  /** It isn't connected. */
  | 'missing'
  /** It was connected and went away. */
  | 'unplugged'
  /** This browser can't do it. */
  | 'unsupported'
  /** It is there, but gives nothing that can be used. */
  | 'broken'

export type LiveState =
  | { readonly phase: Exclude<LivePhase, 'failed'> }
  | { readonly phase: 'failed'; readonly reason: LiveFailure; /** For the log and for details. */ readonly detail: string | null }

/** A state in one word, for tables of words. */
export type LiveStatus = Exclude<LivePhase, 'failed'> | LiveFailure

const FAILURES: ReadonlySet<string> = new Set<LiveFailure>(['refused', 'busy', 'missing', 'unplugged', 'unsupported', 'broken'])

/** Whether something is wrong: it neither works, nor rests, nor is on its way. */
export function isFailure(status: LiveStatus): status is LiveFailure {
  return FAILURES.has(status)
}

export function statusOf(state: LiveState): LiveStatus {
  return state.phase === 'failed' ? state.reason : state.phase
}

/** What an error of getUserMedia or getDisplayMedia means. DOMException names: W3C Media Capture and Streams §10.2. `before`: what was known until now. */
export function failureOf(error: unknown, before: LiveState): LiveFailure {
  const name = error instanceof DOMException || error instanceof Error ? error.name : ''
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'refused'
  if (name === 'NotReadableError' || name === 'AbortError') return 'busy'
  if (name === 'NotFoundError' || name === 'OverconstrainedError') return statusOf(before) === 'unplugged' ? 'unplugged' : 'missing'
  return 'broken'
}
