// The files that a show needs beside its document: pictures, clips, looks and plates, each by the SHA-256 of its bytes.
import { inputKindOf } from '../inputs/index.ts'
import { layersOf } from '../layers/tree.ts'
import { stepOf } from '../steps/index.ts'
import type { ParamSpecs } from '../steps/step.ts'
import type { Show, Step } from './show.ts'

const HASH = /^[0-9a-f]{64}$/

/** Hashes of every file that a show names, each once. A look of ours and an empty reference name no file. */
export function filesOf(show: Show): readonly string[] {
  const files = new Set(show.inputs.flatMap((input) => inputKindOf(input).files(input)))
  const treatments = [...show.inputs, ...show.scenes.flatMap(layersOf)].map(({ treatment }) => treatment)
  for (const hash of treatments.flat().flatMap(filesOfStep)) files.add(hash)
  return [...files]
}

function filesOfStep({ kind, params }: Step): readonly string[] {
  const values = params as Readonly<Record<string, unknown>>
  return Object.entries(stepOf(kind).params as ParamSpecs).flatMap(([name, spec]) => {
    const value = values[name]
    return spec.type === 'reference' && spec.to !== 'input' && typeof value === 'string' && HASH.test(value) ? [value] : []
  })
}
