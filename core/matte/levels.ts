import { clamp01 } from '../picture/float-picture.ts'

/** Opacity up to `black` becomes clear, from `white` on opaque; with both the same, what is above is opaque. */
export function levelled(alpha: number, black: number, white: number): number {
  return white <= black ? (alpha > black ? 1 : 0) : clamp01((alpha - black) / (white - black))
}
