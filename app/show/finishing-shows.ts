// Shows that were closed with something unsaved: they go on saving until everything has arrived.
import type { ShowSession } from './show-session.ts'

const LOOK_AGAIN_MS = 500

export class FinishingShows {
  readonly #sessions = new Map<string, ShowSession>()

  get all(): readonly ShowSession[] {
    return [...this.#sessions.values()]
  }

  /** Saves what a closed session has left. */
  add(session: ShowSession): void {
    this.#sessions.set(session.showId, session)
    void this.#finish(session)
  }

  /** Hands back the session of a show that is opened again; undefined where nothing of it is left. */
  take(showId: string): ShowSession | undefined {
    const session = this.#sessions.get(showId)
    this.#sessions.delete(showId)
    return session
  }

  async #finish(session: ShowSession): Promise<void> {
    const { showId, saver } = session
    while (saver.unsaved !== null && saver.state.kind !== 'refused') {
      await saver.settle()
      if (saver.unsaved !== null) await new Promise((resolve) => window.setTimeout(resolve, LOOK_AGAIN_MS))
    }
    if (this.#sessions.get(showId) === session) this.#sessions.delete(showId)
  }
}
