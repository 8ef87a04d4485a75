/** What is played of a clip, and how; times in µs of the file. `toUs` null: to its end. */
export interface ClipWish {
  readonly fromUs: number
  readonly toUs: number | null
  readonly rate: number
  readonly loops: boolean
}

export type ToClip =
  /** Pictures go through the port. */
  | { readonly type: 'start'; readonly url: string; readonly port: MessagePort; readonly wish: ClipWish; readonly plays: boolean }
  | { readonly type: 'wish'; readonly wish: ClipWish }
  | { readonly type: 'play' }
  | { readonly type: 'pause' }
  | { readonly type: 'restart' }

/** Where a clip is, a few times a second and whenever something changes. */
export interface ClipReport {
  readonly isPlaying: boolean
  readonly isOver: boolean
  readonly mediaUs: number
  readonly durationUs: number
  readonly widthPx: number
  readonly heightPx: number
  /** Pictures that came too late to be shown. */
  readonly skipped: number
  /** From where on the file cannot be decoded, and why; null while nothing of the kind was met. What comes before is played. */
  readonly damage: { readonly fromUs: number; readonly reason: string } | null
}

export type FromClip =
  | { readonly type: 'report'; readonly report: ClipReport }
  /** It cannot be played; why. */
  | { readonly type: 'failed'; readonly reason: string }
