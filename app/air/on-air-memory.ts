// What this tab has on air, for a reload to go on with. It ends with the tab.

const KEY = 'green-room:on-air'

export interface OnAir {
  readonly showId: string
  readonly sceneId: string
}

export function rememberOnAir(onAir: OnAir): void {
  try {
    sessionStorage.setItem(KEY, JSON.stringify(onAir))
  } catch {
    // Without room, a reload stops the feed as it always did.
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
