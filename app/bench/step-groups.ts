import type { StepKind } from '../../core/steps/index.ts'

/** Steps by what they are for, in working order. */
export const stepGroups = {
  frame: ['framing', 'crop'],
  light: ['denoise', 'balance', 'tone', 'colour'],
  behind: ['chromaKey', 'colourKey', 'lumaKey', 'room'],
  edge: ['matteEdge', 'spill'],
  mood: ['look', 'sharpen'],
} as const satisfies Readonly<Record<string, readonly StepKind[]>>

type Grouped = (typeof stepGroups)[keyof typeof stepGroups][number]
/** Every step is in one of the groups: with one in none this does not compile. */
export const ungroupedSteps: Record<Exclude<StepKind, Grouped>, never> = {}
