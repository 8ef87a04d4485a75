import { formatHex } from '../../colour/hex.ts'
import type { PointStep } from '../step.ts'
import { prepareChromaKey } from './cpu.ts'
import { chromaKeyParams } from './params.ts'

/** Makes a cloth of one colour clear, and takes its reflected light off the presenter. */
export const chromaKey: PointStep<'chromaKey', typeof chromaKeyParams> = {
  kind: 'chromaKey',
  shape: 'point',
  params: chromaKeyParams,
  makesMatte: true,
  prepare: prepareChromaKey,
  pick: (colour) => ({ colour: formatHex(colour) }),
}
