import { describe, expect, it } from 'vitest'
import { sceneNamed, testShow } from '../../tests/support/shows.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { allInfos } from '../../tests/support/shows.ts'
import { updateText } from './contents.ts'
import { updateInput } from './edits.ts'
import { withHeld } from './with-held-show.ts'

const show = testShow()

describe('a show held on air', () => {
  it('shares no text picture with an open copy of itself that says something else', () => {
    const scene = sceneNamed(show, 'Welcome')
    const title = scene.layers.find((layer) => layer.kind === 'text')!
    const edited = updateText(show, title.contentId, (text) => ({ ...text, align: 'end' }))
    const textsOf = (which: typeof show) => planFrame(which, { scene: sceneNamed(which, 'Welcome') }, 0, allInfos(which)).texts.map(({ sourceId }) => sourceId)
    expect(textsOf(edited).some((id) => textsOf(show).includes(id))).toBe(false)
    expect(textsOf(show)).toHaveLength(1)
  })

  it('needs the inputs and scenes of both; a shared input stays as the audience has it', () => {
    const camera = show.inputs[0]!
    const other = { ...updateInput(show, camera.id, (input) => ({ ...input, name: 'Changed' })), scenes: show.scenes.slice(0, 1) }
    const both = withHeld({ ...other, inputs: [...other.inputs, { ...camera, id: 'only-here' }] }, show)
    expect(both.inputs.map((input) => input.id)).toEqual([...show.inputs.map((input) => input.id), 'only-here'])
    expect(both.inputs[0]!.name).toBe(camera.name)
    expect(both.scenes).toHaveLength(1 + show.scenes.length)
    expect(withHeld(other, null)).toBe(other)
  })
})
