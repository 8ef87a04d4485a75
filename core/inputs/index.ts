// Every kind of input. Who needs a difference between kinds asks a definition; nobody else compares `kind`.
import { z } from 'zod'
import { camera } from './camera.ts'
import { clip } from './clip.ts'
import { colour } from './colour.ts'
import { deck } from './deck.ts'
import type { Input, InputDefinition, InputKind, InputOf } from './input.ts'
import { picture } from './picture.ts'
import { screen } from './screen.ts'

export const inputKinds: { readonly [K in InputKind]: InputDefinition<K> } = { camera, screen, deck, picture, clip, colour }

/** What the kind of an input says about it. */
export function inputKindOf<K extends InputKind>(input: InputOf<K> & { readonly kind: K }): InputDefinition<K> {
  return inputKinds[input.kind]
}

/** The stored form of any input. */
export const inputSchema = z.discriminatedUnion('kind', Object.values(inputKinds).map(({ schema }) => schema) as never) as unknown as z.ZodType<Input>
