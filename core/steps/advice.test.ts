import { expect, it } from 'vitest'
import { adviceFor } from './advice.ts'
import { steps, stepOf, type StepCall, type StepKind } from './index.ts'
import { defaultParams, type ParamSpecs } from './step.ts'

const chain = (...kinds: StepKind[]) =>
  kinds.map((kind) => ({ kind, on: true, params: defaultParams(stepOf(kind).params as ParamSpecs) }) as unknown as StepCall & { readonly on: boolean })
const codes = (list: ReturnType<typeof chain>) => adviceFor(list).map(({ index, code }) => `${index} ${code}`)

it('has nothing to say about the order that is taught', () => {
  // The key takes its own spill off by default, which only matters once detail is asked for.
  expect(codes(chain(...steps.map((step) => step.kind)))).toEqual([])
})

it.each([
  [chain('look', 'chromaKey'), '0 lookBeforeKey'],
  [chain('chromaKey', 'balance'), '1 correctionAfterKey'],
  [chain('chromaKey', 'tone'), '1 correctionAfterKey'],
  [chain('sharpen', 'lumaKey'), '0 sharpenBeforeKey'],
  [chain('colourKey', 'denoise'), '1 denoiseAfterKey'],
  [chain('crop', 'framing'), '1 framingAfterCrop'],
  [chain('tone', 'matteEdge'), '1 edgeWithoutKey'],
  [chain('tone', 'spill'), '1 spillWithoutKey'],
])('says what suffers from an order %#', (list, note) => {
  expect(codes(list)).toEqual([note])
  expect(codes(list.map((step) => ({ ...step, on: false })))).toEqual([])
})

it('takes a key that is switched off for none', () => {
  const [key, edge, spill] = chain('chromaKey', 'matteEdge', 'spill')
  expect(codes([{ ...key!, on: false }, edge!, spill!])).toEqual(['1 edgeWithoutKey', '2 spillWithoutKey'])
})

it('says that detail wants the camera’s own colours', () => {
  const [key, edge] = chain('chromaKey', 'matteEdge')
  const detailed = { ...edge!, params: { ...edge!.params, detail: 1 } } as typeof edge & {}
  expect(codes([key!, detailed])).toEqual(['1 detailNeedsOwnColours'])
  expect(codes([{ ...key!, params: { ...key!.params, spill: 0 } } as typeof detailed, detailed])).toEqual([])
})
