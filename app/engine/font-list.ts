// The list of typeface files is long: it loads beside the first view, and only words wait for it.
import type { FaceFile } from '../../core/text/typefaces.ts'

let loading: Promise<readonly FaceFile[]> | null = null

/** Loads the list once. After a failure the next call tries again. */
export function loadFontList(): Promise<readonly FaceFile[]> {
  loading ??= import('./font-files.ts').then(
    ({ fontFiles }) => fontFiles,
    (error: unknown) => {
      loading = null
      throw error
    },
  )
  return loading
}
