import { z } from 'zod'
import { issueLines } from '../core/show/schema.ts'

/** What came of reading something stored. */
export type ReadOutcome<T> = { readonly isReadable: true; readonly value: T } | { readonly isReadable: false; readonly reason: string }

/** Reads something stored; what cannot be read comes back with the reason, so that it hides nothing else. */
export function tryRead<T>(read: () => T): ReadOutcome<T> {
  try {
    return { isReadable: true, value: read() }
  } catch (error) {
    if (error instanceof z.ZodError) return { isReadable: false, reason: issueLines(error).slice(0, 3).join('; ') }
    return { isReadable: false, reason: error instanceof Error ? error.message : String(error) }
  }
}
