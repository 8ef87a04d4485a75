import type { CutStep } from '../step.ts'
import { keptByCrop } from './cpu.ts'
import { cropParams } from './params.ts'

/** Cuts edges off the picture: cloth edges, lamp stands. */
export const crop: CutStep<'crop', typeof cropParams> = {
  kind: 'crop',
  shape: 'cut',
  params: cropParams,
  makesMatte: true,
  keep: keptByCrop,
}
