import { shallowRef } from 'vue'
import type { Frame } from '../../core/show/show.ts'

/** The frame that was copied last, for any layer of any show; it ends with the tab. */
export const copiedFrame = shallowRef<{ readonly frame: Frame; readonly ratio: number } | null>(null)
