import { describe, expect, it } from 'vitest'
import { graphicWordsForTests } from '../../tests/support/graphic-words.ts'
import { testShow } from '../../tests/support/shows.ts'
import { inputIdOf, contentIdOf } from '../layers/index.ts'
import { newSceneLayer } from '../layers/scene.ts'
import { layersOf } from '../layers/tree.ts'
import { makeGraphic } from '../graphics/make-graphic.ts'
import { planFrame } from '../stage/plan-frame.ts'
import { newStep } from '../steps/treatment.ts'
import { addContents } from './contents.ts'
import { newShow } from './create.ts'
import { addLayer, addScene, graphicsOf, updateInput } from './edits.ts'
import { addKeptGraphic, canBeKept, copyGraphic, graphicIn, keepGraphic, readKeptGraphic } from './kept-graphic.ts'
import { readShow, VersionError } from './migrate.ts'
import type { Show, Step } from './show.ts'

let count = 0
const makeId = () => `k${(count += 1)}`
const base = testShow()
const picture = base.inputs.find(({ kind }) => kind === 'picture')!
const made = makeGraphic({ kind: 'portrait', family: 'card' }, graphicWordsForTests, base.canvas, makeId, picture)
const show = addContents(addScene({ ...base, presenter: { name: 'Iva Kovač', title: 'Beekeeper', countdownTo: '19:30' } }, made.graphic), made.contents)
const kept = keepGraphic(show, made.graphic.id, 'Strip of mine')
const other = () => newShow('Another', { scene: 'One', camera: 'Camera', wall: 'Wall' }, makeId)

describe('a graphic that is kept', () => {
  it('is a show that holds it alone, and nothing of who presented or which devices were used', () => {
    expect(readKeptGraphic(structuredClone(kept), 'Strip of mine')).toEqual(kept)
    expect(graphicIn(kept).layers).toEqual(made.graphic.layers)
    expect(kept.inputs).toEqual([picture])
    expect(kept.contents.map(({ id }) => id).sort()).toEqual(made.contents.map(({ id }) => id).sort())
    const text = JSON.stringify(kept)
    for (const word of ['Iva', 'Beekeeper', '19:30', base.name]) expect(text).not.toContain(word)
    expect(kept.microphone.device.type).toBe('none')
  })

  it('takes along what stands in for a room behind its picture', () => {
    const room = newStep('room', makeId)
    const wall = base.inputs.find(({ kind }) => kind === 'colour')!
    const treated = updateInput(show, picture.id, (input) => ({ ...input, treatment: [{ ...room, params: { ...room.params, input: wall.id } } as Step] }))
    const taken = keepGraphic(treated, made.graphic.id, 'x')
    expect(taken.inputs.map(({ id }) => id).sort()).toEqual([picture.id, wall.id].sort())
    // In a show where both ids belong to something else, the step still names the wall.
    const into = other()
    const crowded = { ...into, inputs: [...into.inputs, { ...wall, colour: '#010203' }, { ...wall, id: picture.id, colour: '#040506' }] } as Show
    const { show: next } = addKeptGraphic(crowded, taken, makeId)
    expect(readShow(structuredClone(next))).toEqual(next)
    const added = next.inputs.find((input) => input.kind === 'picture')!
    const named = (added.treatment[0]!.params as { input: string }).input
    expect(next.inputs.find(({ id }) => id === named)).toMatchObject({ kind: 'colour', colour: (wall as { colour: string }).colour })
  })

  it('comes into another show as a copy that shares nothing with the one before', () => {
    const into = other()
    const first = addKeptGraphic(into, kept, makeId)
    const second = addKeptGraphic(first.show, kept, makeId)
    expect(readShow(structuredClone(second.show))).toEqual(second.show)
    const [one, two] = graphicsOf(second.show)
    expect([one!.id, two!.id]).toEqual([first.graphicId, second.graphicId])
    // One picture, twice shown; words of their own.
    expect(second.show.inputs.filter(({ kind }) => kind === 'picture')).toHaveLength(1)
    const contentsOf = (graphic: typeof one) =>
      layersOf(graphic!)
        .map(contentIdOf)
        .filter((id) => id !== null)
    expect(new Set([...contentsOf(one), ...contentsOf(two)]).size).toBe(contentsOf(one).length * 2)
    expect(new Set([...layersOf(one!), ...layersOf(two!)].map(({ id }) => id)).size).toBe(layersOf(one!).length * 2)
  })

  it('looks the same in a show with the same colours', () => {
    const into = { ...other(), style: base.style, canvas: base.canvas, presenter: show.presenter }
    const { show: next, graphicId } = addKeptGraphic(into, kept, makeId)
    const shapeOf = (from: Show, id: string) => {
      const plan = planFrame(from, { scene: from.scenes.find((scene) => scene.id === id)! }, 0, new Map())
      return [plan.nodes.map((node) => node.kind), plan.texts.map(({ content }) => content)]
    }
    expect(shapeOf(next, graphicId)).toEqual(shapeOf(show, made.graphic.id))
  })

  it('follows the canvas of the show it comes into', () => {
    const tall = { ...other(), canvas: { widthPx: 360, heightPx: 640, frameRate: 25 } }
    const { show: next, graphicId } = addKeptGraphic(tall, kept, makeId)
    expect(next.canvas).toEqual(tall.canvas)
    for (const { placement } of next.scenes.find(({ id }) => id === graphicId)!.layers) {
      expect(placement.x).toBeGreaterThanOrEqual(0)
      expect(placement.x + placement.width).toBeLessThanOrEqual(360)
    }
  })

  it('cannot be one that shows another scene, or what is no graphic', () => {
    const linked = addLayer(show, made.graphic.id, newSceneLayer(show.scenes[0]!, show.canvas, makeId))
    expect(canBeKept(linked.scenes.find(({ id }) => id === made.graphic.id)!)).toBe(false)
    expect(() => keepGraphic(linked, made.graphic.id, 'x')).toThrow('shows another scene')
    expect(() => keepGraphic(show, show.scenes[0]!.id, 'x')).toThrow(RangeError)
    expect(() => keepGraphic(show, 'nobody', 'x')).toThrow(RangeError)
  })

  it('is read only when it is one graphic, of this version or an earlier one', () => {
    expect(() => readKeptGraphic(structuredClone(show), 'x')).toThrow('one graphic')
    expect(() => readKeptGraphic({ ...structuredClone(kept), version: 99 }, 'x')).toThrow(VersionError)
    const clip = { id: 'c', kind: 'clip', name: 'Loop', asset: 'a'.repeat(64), fromMs: 0, toMs: null, rate: 1, loops: true, treatment: [] }
    const old = { ...structuredClone(kept), version: 8, inputs: [...kept.inputs, clip] }
    expect(readKeptGraphic(old, 'x').inputs.at(-1)).toMatchObject({ id: 'c', moving: null })
  })
})

describe('a copy of a graphic', () => {
  it('has words of its own, no key, and lies after the others', () => {
    const { show: next, graphicId } = copyGraphic(show, made.graphic.id, 'Strip 2', makeId)
    expect(readShow(structuredClone(next))).toEqual(next)
    const copy = next.scenes.at(-1)!
    expect(copy).toMatchObject({ id: graphicId, name: 'Strip 2', graphic: { key: null }, locked: false })
    const ids = (scene: typeof copy) => layersOf(scene).flatMap((layer) => contentIdOf(layer) ?? [])
    expect(ids(copy).filter((id) => ids(made.graphic).includes(id))).toEqual([])
    expect(layersOf(copy).map(inputIdOf)).toEqual(layersOf(made.graphic).map(inputIdOf))
    expect(copyGraphic(show, 'nobody', 'x', makeId).show).toBe(show)
  })
})
