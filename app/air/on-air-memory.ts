// Remembers what this tab has on air, so that a reload can resume it. Forgotten when the tab closes.

const KEY = 'green-room:on-air'

export interface OnAir {
  readonly showId: string
  readonly sceneId: string
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
    return typeof value?.showId === 'string' && typeof value.sceneId === 'string' ? { showId: value.showId, sceneId: value.sceneId } : null
  } catch {
    return null
  }
}
