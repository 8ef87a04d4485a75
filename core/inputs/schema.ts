import { z } from 'zod'
import { treatmentSchema } from '../steps/schema.ts'
import { id, name } from '../schema/values.ts'

/** The stored form of what all inputs have. */
export const inputBase = { id, name, treatment: treatmentSchema }

/** SHA-256 of an uploaded file. */
export const assetSchema = z.string().regex(/^[0-9a-f]{64}$/, 'must be the SHA-256 of an uploaded file')
