import { expect, it } from 'vitest'
import { newTextLayer } from '../../core/layers/text.ts'
import { newScene, newShow } from '../../core/show/create.ts'
import { addLayer, addScene } from '../../core/show/edits.ts'
import { addContents } from '../../core/show/contents.ts'
import type { Show } from '../../core/show/show.ts'
import { nextSteps, nextStepOf } from './next-step.ts'

let count = 0
const makeId = () => `n${(count += 1)}`
const fresh = newShow('Show', { scene: 'Scene', camera: 'Camera', wall: 'Wall' }, makeId)
const bare: Show = { ...fresh, inputs: fresh.inputs.map((input) => ({ ...input, treatment: [] })) }
const nextOf = (show: Show, at = 0, dismissed: readonly string[] = [], isFeedOn = false) => nextStepOf({ show, scene: show.scenes[at]!, isFeedOn, dismissed })

function withText(show: Show): Show {
  const { layer, contents } = newTextLayer('Title', 'Bees', show.canvas, makeId)
  return addLayer(addContents(show, contents), show.scenes[0]!.id, layer)
}

it('leads from a camera to the feed, one step at a time; an empty scene says on the stage how to begin', () => {
  const empty = addScene(bare, newScene('Empty', makeId))
  expect(nextOf(empty, 1)).toBeNull()
  expect(nextOf(bare)).toEqual({ step: 'cleanUp', inputId: bare.inputs.find(({ kind }) => kind === 'camera')!.id })
  const cleaned: Show = { ...bare, inputs: fresh.inputs.map((input) => ({ ...input, treatment: input.treatment.map((step) => ({ ...step, on: true })) })) }
  const isClean = cleaned.inputs.some(({ treatment }) => treatment.length > 0)
  expect(isClean).toBe(true)
  expect(nextOf(cleaned)?.step).toBe('text')
  expect(nextOf(withText(cleaned))?.step).toBe('scene')
  const two = addScene(withText(cleaned), newScene('Second', makeId))
  expect(nextOf(two)?.step).toBe('feed')
  expect(nextOf(two, 0, [], true)).toBeNull()
})

it('never comes back to what was waved away', () => {
  expect(nextOf(bare, 0, ['cleanUp'])?.step).toBe('text')
  expect(nextOf(bare, 0, nextSteps)).toBeNull()
})
