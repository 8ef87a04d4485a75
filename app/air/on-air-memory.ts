// Remembers what this tab has on air, so that a reload can resume it. Forgotten when the tab closes.

const KEY = 'green-room:on-air'

export interface OnAir {
  readonly showId: string
  readonly sceneId: string
  /** When the feed was started, by the clock of the day, in ms. */
  readonly sinceMs: number
}

export function rememberOnAir(onAir: OnAir): void {
  try {
    sessionStorage.setItem(KEY, JSON.stringify(onAir))
  } catch {
    // Storage is full: a reload will stop the feed.
  }
}

export function forgetOnAir(): void {
  sessionStorage.removeItem(KEY)
}

/** What was on air before this page was loaded; null when nothing was. */
export function recallOnAir(): OnAir | null {
  try {
    const value = JSON.parse(sessionStorage.getItem(KEY) ?? 'null') as Partial<OnAir> | null
    if (typeof value?.showId !== 'string' || typeof value.sceneId !== 'string') return null
    return { showId: value.showId, sceneId: value.sceneId, sinceMs: typeof value.sinceMs === 'number' ? value.sinceMs : Date.now() }
  } catch {
    return null
  }
}
