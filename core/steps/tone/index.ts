import type { PointStep } from '../step.ts'
import { prepareTone } from './cpu.ts'
import { toneParams } from './params.ts'

/** Brightens and steadies the picture. */
export const tone: PointStep<'tone', typeof toneParams> = {
  kind: 'tone',
  shape: 'point',
  params: toneParams,
  makesMatte: false,
  prepare: prepareTone,
}
