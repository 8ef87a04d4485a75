// The stored form of a treatment. The list of step kinds is core/steps/index.ts.
import { z } from 'zod'
import { LIMITS } from '../schema/limits.ts'
import { colour, id, numberWithin } from '../schema/values.ts'
import { steps } from './index.ts'
import type { ParamSpec, ParamSpecs } from './step.ts'
import type { Step } from './treatment.ts'

function paramSchema(spec: ParamSpec): z.ZodType {
  switch (spec.type) {
    case 'number':
      return numberWithin(spec.min, spec.max).default(spec.default)
    case 'colour':
      return colour.default(spec.default)
    case 'choice':
      return z
        .enum(spec.options as readonly [string, ...string[]], {
          error: (issue) => `must be one of ${spec.options.join(', ')}, got ${JSON.stringify(issue.input)}`,
        })
        .default(spec.default)
    case 'reference':
      return z
        .string()
        .regex(/^[A-Za-z0-9_-]{0,64}$/, 'must be the name of a look, the SHA-256 of an uploaded file or the id of an input')
        .default(spec.default)
    case 'numbers':
      return z
        .array(numberWithin(-spec.most, spec.most))
        .refine((list) => list.length === 0 || list.length === spec.length, `must hold no number or ${spec.length}`)
        .default([...spec.default])
  }
}

function paramsSchema(specs: ParamSpecs) {
  return z.strictObject(Object.fromEntries(Object.entries(specs).map(([key, spec]) => [key, paramSchema(spec)])))
}

const [firstStep, ...otherSteps] = steps.map((step) => z.strictObject({ id, kind: z.literal(step.kind), on: z.boolean(), params: paramsSchema(step.params) }))
const stepSchema = z.discriminatedUnion('kind', [firstStep!, ...otherSteps]) as unknown as z.ZodType<Step>
export const treatmentSchema = z.array(stepSchema).max(LIMITS.steps)
