// Documents described for other programs, in JSON Schema (draft 2020-12).
import { z } from 'zod'
import { CURRENT_VERSION } from './migrations.ts'
import { chainSchema, showSchema } from './schema.ts'

/** The schema of a show as a text. */
export const showJsonSchema = (): string => described(showSchema, `Green Room show, version ${CURRENT_VERSION}`)

/** The schema of a chain of steps as a text. */
export const chainJsonSchema = (): string => described(chainSchema, 'Green Room chain of steps, version 2')

function described(schema: z.ZodType, title: string): string {
  return `${JSON.stringify({ title, ...z.toJSONSchema(schema, { unrepresentable: 'any', target: 'draft-2020-12' }) }, null, 2)}\n`
}
