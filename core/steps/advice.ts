// Quiet notes on chains whose order costs something. Data only; the words are the interface's.
import type { StepCall, StepKind } from './index.ts'

export type AdviceCode =
  | 'lookBeforeKey'
  | 'correctionAfterKey'
  | 'sharpenBeforeKey'
  | 'denoiseAfterKey'
  | 'edgeWithoutKey'
  | 'spillWithoutKey'
  | 'framingAfterCrop'
  | 'detailNeedsOwnColours'

export interface Advice {
  /** Place of the step in the chain. */
  readonly index: number
  readonly code: AdviceCode
}

const KEYS: readonly StepKind[] = ['chromaKey', 'colourKey', 'lumaKey']
const CORRECTIONS: readonly StepKind[] = ['balance', 'tone', 'colour']

/** What suffers from the order of a chain; at most one note a step. Steps that are off don't count. */
export function adviceFor(chain: readonly (StepCall & { readonly on: boolean })[]): readonly Advice[] {
  const notes: Advice[] = []
  const has = (from: number, to: number, kinds: readonly StepKind[]) => chain.slice(from, to).some((step) => step.on && kinds.includes(step.kind))
  chain.forEach((step, index) => {
    if (!step.on) return
    const note = (code: AdviceCode) => notes.push({ index, code })
    const keyBefore = has(0, index, KEYS)
    const keyAfter = has(index + 1, chain.length, KEYS)
    if (step.kind === 'look' && keyAfter) note('lookBeforeKey')
    else if (CORRECTIONS.includes(step.kind) && keyBefore && step.kind !== 'colour') note('correctionAfterKey')
    else if (step.kind === 'sharpen' && keyAfter) note('sharpenBeforeKey')
    else if (step.kind === 'denoise' && keyBefore) note('denoiseAfterKey')
    else if (step.kind === 'framing' && has(0, index, ['crop'])) note('framingAfterCrop')
    else if (step.kind === 'matteEdge' && !keyBefore) note('edgeWithoutKey')
    else if (step.kind === 'spill' && !keyBefore) note('spillWithoutKey')
    else if (
      step.kind === 'matteEdge' &&
      step.params.detail > 0 &&
      chain.slice(0, index).some((key) => key.on && key.kind === 'chromaKey' && key.params.spill > 0)
    ) {
      note('detailNeedsOwnColours')
    }
  })
  return notes
}
