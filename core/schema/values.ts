// What stored forms are made of: names, colours, numbers within their ranges.
import { z } from 'zod'
import { LIMITS } from './limits.ts'

export const id = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, 'must be 1 to 40 letters, digits, - or _')
export const name = z.string().trim().min(1, 'must not be empty').max(LIMITS.nameLength)
export const colour = z.string().regex(/^#[0-9a-fA-F]{6}$/, 'must be a colour written #rrggbb')

/** A number within bounds; the message names the bounds and what came. */
export function numberWithin(min: number, max: number) {
  const error = (issue: { readonly input?: unknown }) => `must be a number between ${min} and ${max}, got ${JSON.stringify(issue.input)}`
  return z.number({ error }).min(min, { error }).max(max, { error })
}

interface Bounds {
  readonly min: number
  readonly max: number
}

export const number = ({ min, max }: Bounds) => numberWithin(min, max)

/** A whole number within bounds. */
export function whole({ min, max }: Bounds) {
  return numberWithin(min, max).refine(Number.isInteger, { error: (issue) => `must be a whole number, got ${JSON.stringify(issue.input)}` })
}
