// What may be edited is what may be saved: the limits are held to the stored form's own.
import { newGroupLayer } from '../layers/group.ts'
import { describe, expect, it } from 'vitest'
import { stepWith } from '../../tests/support/steps.ts'
import { testShow } from '../../tests/support/shows.ts'
import { brokenLimit, type LimitedThing } from './broken-limit.ts'
import { addScene, changeTreatment, updateScene } from './edits.ts'
import { LIMITS } from '../schema/limits.ts'
import { showSchema } from './schema.ts'
import type { Layer, Show } from './show.ts'

const show = testShow()
const [first] = show.scenes
const some = first!.layers[0]!
const many = (count: number): Layer[] => Array.from({ length: count }, (_, i) => ({ ...some, id: `many${i}` }))
const inFirst = (layers: readonly Layer[]) => updateScene(show, first!.id, (scene) => ({ ...scene, layers }))
const group = (layers: readonly Layer[], id: string) => newGroupLayer('Group', layers, show.canvas, () => id)
const deep = (depth: number): Layer => Array.from({ length: depth }).reduce<Layer>((inner, _, i) => group([inner], `deep${i}`), some)
const steps = (count: number) => Array.from({ length: count }, (_, i) => ({ ...stepWith('tone'), id: `step${i}` }))
const scenes = (count: number) =>
  Array.from({ length: count - show.scenes.length }).reduce<Show>((now, _, i) => addScene(now, { ...first!, id: `more${i}`, layers: [] }), show)

const cases: readonly (readonly [string, LimitedThing, (over: number) => Show])[] = [
  ['layers of a scene', 'layers', (over) => inFirst(many(LIMITS.layers + over))],
  ['layers of a group', 'layers', (over) => inFirst([group(many(LIMITS.layers + over), 'group')])],
  ['groups in groups', 'depth', (over) => inFirst([deep(LIMITS.depth + over)])],
  ['steps of an input', 'steps', (over) => changeTreatment(show, { type: 'input', inputId: show.inputs[0]!.id }, () => steps(LIMITS.steps + over))],
  ['steps of a layer', 'steps', (over) => inFirst([{ ...some, treatment: steps(LIMITS.steps + over) } as Layer])],
  ['scenes', 'scenes', (over) => scenes(LIMITS.scenes + over)],
  [
    'inputs',
    'inputs',
    (over) => ({
      ...show,
      inputs: [...show.inputs, ...Array.from({ length: LIMITS.inputs + over - show.inputs.length }, (_, i) => ({ ...show.inputs[1]!, id: `input${i}` }))],
    }),
  ],
]

describe('what an edit may make', () => {
  it.each(cases)('as many %s as the stored form takes, and not one more', (_name, thing, make) => {
    expect(brokenLimit(show, make(0))).toBeNull()
    expect(showSchema.safeParse(make(0)).error).toBeUndefined()
    expect(brokenLimit(show, make(1))).toBe(thing)
    expect(showSchema.safeParse(make(1)).success).toBe(false)
  })

  it('an edit elsewhere is none of its business', () => {
    const over = inFirst(many(LIMITS.layers + 1))
    expect(brokenLimit(over, { ...over, name: 'Another name' })).toBeNull()
    expect(brokenLimit(over, over)).toBeNull()
  })
})
