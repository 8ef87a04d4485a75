// How a layer comes and goes: what differs from the layer as it rests, as a pure function of time.
import { clamp01 } from '../picture/float-picture.ts'
import { ease, type Easing } from './easing.ts'

export const appearanceKinds = ['fade', 'slide', 'grow', 'wipe', 'typed'] as const
export type AppearanceKind = (typeof appearanceKinds)[number]
/** Where a layer that slides comes from, and where a wipe begins. */
export const sides = ['left', 'right', 'top', 'bottom'] as const
export type Side = (typeof sides)[number]

export interface Appearance {
  readonly kind: AppearanceKind
  readonly durationMs: number
  /** How long it waits before it begins. */
  readonly delayMs: number
  readonly easing: Easing
  readonly side: Side
}

/** What a moment makes of a layer. */
export interface AppearanceMoment {
  /** 0..1, times the layer's own. */
  readonly opacity: number
  /** How far it lies from its place, in its own widths and heights; right and down are positive. */
  readonly shiftX: number
  readonly shiftY: number
  /** Its size about its middle, of its own. */
  readonly scale: number
  /** Share of it that is uncovered, from its side; 1 shows all. */
  readonly revealed: number
  /** Share of its letters that are there. */
  readonly typed: number
}

/** The layer as it rests. */
export const AT_REST: AppearanceMoment = { opacity: 1, shiftX: 0, shiftY: 0, scale: 1, revealed: 1, typed: 1 }
const AWAY: AppearanceMoment = { ...AT_REST, opacity: 0 }

/** Which way a side lies from the middle. */
export const directions: Readonly<Record<Side, readonly [x: number, y: number]>> = { left: [-1, 0], right: [1, 0], top: [0, -1], bottom: [0, 1] }

/** How long it takes from its cue until the layer rests, or is gone; 0 for null, which is at once. */
export function lastsMs(appearance: Appearance | null): number {
  return appearance === null ? 0 : appearance.delayMs + appearance.durationMs
}

/** A layer that comes, `sinceMs` after its cue. Before its delay is over it is not there. */
export function entranceAt(appearance: Appearance | null, sinceMs: number): AppearanceMoment {
  if (appearance === null || sinceMs >= lastsMs(appearance)) return AT_REST
  if (sinceMs < appearance.delayMs) return AWAY
  return momentAt(appearance, (sinceMs - appearance.delayMs) / appearance.durationMs)
}

/** A layer that goes, `sinceMs` after its cue: the entrance backwards, at the same pace from its own beginning. Afterwards it is not there. */
export function exitAt(appearance: Appearance | null, sinceMs: number): AppearanceMoment {
  if (appearance === null || sinceMs >= lastsMs(appearance)) return AWAY
  if (sinceMs < appearance.delayMs) return AT_REST
  return momentAt(appearance, 1 - (sinceMs - appearance.delayMs) / appearance.durationMs)
}

/** `progress` 0: away, 1: at rest. Easing may swing beyond both; shares never do. */
function momentAt({ kind, easing, side }: Appearance, progress: number): AppearanceMoment {
  const arrived = ease(easing, progress)
  const share = clamp01(arrived)
  switch (kind) {
    case 'fade':
      return { ...AT_REST, opacity: share }
    case 'slide': {
      const [x, y] = directions[side]
      const away = 1 - arrived
      // No minus zero: a layer at its place is at its place.
      return { ...AT_REST, opacity: share, shiftX: x * away + 0, shiftY: y * away + 0 }
    }
    case 'grow':
      return { ...AT_REST, opacity: share, scale: Math.max(0, arrived) }
    case 'wipe':
      return { ...AT_REST, revealed: share }
    case 'typed':
      return { ...AT_REST, typed: share }
    default:
      return kind satisfies never
  }
}
