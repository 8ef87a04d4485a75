// What a colour that is named stands for, and which names there are: whoever has names provides them, and fields below show them.
import { inject, provide, type ComputedRef, type InjectionKey } from 'vue'

type Meaning = (colour: string) => string
const MEANING: InjectionKey<Meaning> = Symbol('colour meaning')

/** A colour that can be chosen by its name, and follows that name. */
export interface NamedColour {
  readonly value: string
  readonly label: string
}
const NAMES: InjectionKey<ComputedRef<readonly NamedColour[]>> = Symbol('named colours')

/** Gives names of colours a meaning, "#rrggbb", for every field below, and offers them where a field can take a name. */
export function provideColourMeaning(meaning: Meaning, names: ComputedRef<readonly NamedColour[]>): void {
  provide(MEANING, meaning)
  provide(NAMES, names)
}

/** The colour that a code or a name stands for; a code stands for itself. */
export const useColourMeaning = (): Meaning => inject(MEANING, (colour) => colour)

/** The names that can be chosen; null where there are none. */
export const useNamedColours = (): ComputedRef<readonly NamedColour[]> | null => inject(NAMES, null)
