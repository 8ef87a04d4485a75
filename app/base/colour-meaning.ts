// What a colour that is named stands for: whoever has names provides it, and fields below show it.
import { inject, provide, type InjectionKey } from 'vue'

type Meaning = (colour: string) => string
const KEY: InjectionKey<Meaning> = Symbol('colour meaning')

/** Gives names of colours a meaning, "#rrggbb", for every field below. */
export const provideColourMeaning = (meaning: Meaning): void => provide(KEY, meaning)

/** The colour that a code or a name stands for; a code stands for itself. */
export const useColourMeaning = (): Meaning => inject(KEY, (colour) => colour)
