/** The shape of a catalogue, for other languages: the same keys as the English one, each with a text of its own. */
export type Words<T> = { readonly [K in keyof T]: T[K] extends string ? string : Words<T[K]> }
