// Shows that come from outside: checked once, before they are stored.
import { z } from 'zod'
import { patched, type Patch } from '../../core/patch/patch.ts'
import { readShow } from '../../core/show/migrate.ts'
import type { Show } from '../../core/show/show.ts'
import { HttpError } from '../http-error.ts'

/** A show in its stored form, with everything that may be left out filled in: one that was taken can always be saved again. */
export const MOST_SHOW_BYTES = 4 * 1024 * 1024

/** A show of any version, checked. Throws a ZodError whose paths begin at the body of the request: "show.canvas.widthPx". */
export function checkedShow(raw: unknown): Show {
  try {
    return readShow(raw)
  } catch (error) {
    if (error instanceof z.ZodError) throw new z.ZodError(error.issues.map((issue) => ({ ...issue, path: ['show', ...issue.path] })))
    throw error
  }
}

/** A show with edits put on. Throws a 409 when they do not fit. */
export function patchedOr409(show: Show, patch: Patch): unknown {
  try {
    return patched(show, patch)
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    throw new HttpError(409, 'patch-does-not-fit', `The edits cannot be made of the stored show: ${error.message}. Save the whole show with PUT.`)
  }
}

/** The text that is stored. Throws a 413 for one that is too long. */
export function storedText(show: Show): string {
  const text = JSON.stringify(show)
  const bytes = Buffer.byteLength(text)
  if (bytes <= MOST_SHOW_BYTES) return text
  const mb = (count: number) => (count / 1024 / 1024).toFixed(1)
  throw new HttpError(413, 'too-large', `A show must be at most ${mb(MOST_SHOW_BYTES)} MB as it is stored, this one has ${mb(bytes)}. Split it into two shows.`)
}
