import { shallowRef } from 'vue'
import type { Head } from '../../core/layout/arrange/head.ts'

/** The head that was found last in each camera's picture, by its input. */
export const foundHeads = shallowRef<ReadonlyMap<string, Head>>(new Map())
