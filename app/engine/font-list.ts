// The list of typeface files is long: it loads beside the first view, and nothing waits for it but words.
import type { FaceFile } from '../../core/text/typefaces.ts'

export const fontList: Promise<readonly FaceFile[]> = import('./font-files.ts').then(({ fontFiles }) => fontFiles)
