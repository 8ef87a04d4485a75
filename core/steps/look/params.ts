import type { ParamSpecs } from '../step.ts'

/** look: one of our own by name, or an uploaded table by its SHA-256; amount: how much of it is mixed in. */
export const lookParams = {
  look: { type: 'reference', to: 'look', default: 'morningTea' },
  amount: { type: 'number', min: 0, max: 1, step: 0.01, default: 1, unit: 'share' },
} as const satisfies ParamSpecs
