import { balance } from './balance/index.ts'
import { chromaKey } from './chroma-key/index.ts'
import { colour } from './colour/index.ts'
import { colourKey } from './colour-key/index.ts'
import { crop } from './crop/index.ts'
import { denoise } from './denoise/index.ts'
import { framing } from './framing/index.ts'
import { look } from './look/index.ts'
import { lumaKey } from './luma-key/index.ts'
import { matteEdge } from './matte-edge/index.ts'
import { room } from './room/index.ts'
import { sharpen } from './sharpen/index.ts'
import { spill } from './spill/index.ts'
import type { ParamsOf } from './step.ts'
import { tone } from './tone/index.ts'

/** Every step, in the order a treatment is taught. */
export const steps = [framing, crop, denoise, balance, tone, colour, chromaKey, colourKey, lumaKey, matteEdge, spill, room, look, sharpen] as const

export type AnyStep = (typeof steps)[number]
export type StepKind = AnyStep['kind']
/** Parameter values of one kind of step. */
export type StepParams<K extends StepKind> = ParamsOf<Extract<AnyStep, { kind: K }>['params']>

/** What to do with a picture: a kind of step and its values. */
export type StepCall = { [K in StepKind]: { readonly kind: K; readonly params: StepParams<K> } }[StepKind]

/** The definition of a kind. */
export function stepOf<K extends StepKind>(kind: K): Extract<AnyStep, { kind: K }> {
  const found = steps.find((step) => step.kind === kind)
  if (found === undefined) throw new RangeError(`no step is called "${kind}"`)
  return found as unknown as Extract<AnyStep, { kind: K }>
}
