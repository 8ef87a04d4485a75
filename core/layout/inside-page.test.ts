// The presenter between a page's paper and its ink.
import { newScreen } from '../inputs/screen.ts'
import { newInputLayer } from '../layers/input.ts'
import { describe, expect, it } from 'vitest'
import { addStep } from '../../tests/support/steps.ts'
import { sceneNamed, testShow } from '../../tests/support/shows.ts'
import { addInput, addLayer, updateLayer } from '../show/edits.ts'
import type { Layer, Show } from '../show/show.ts'
import { inkModeOf, inkModes, inkOf, isWallTakenForWhite, putInsidePage, setInkMode, withWall } from './inside-page.ts'

let count = 0
const makeId = () => `inside${(count += 1)}`
const base = testShow()
const sceneId = sceneNamed(base, 'Just me').id
const camera = base.inputs.find(({ kind }) => kind === 'camera')!
const screen = newScreen('Screen', { type: 'standin' }, makeId)
const presenter = newInputLayer(camera, base.canvas, () => 'me')
const page = newInputLayer(screen, base.canvas, () => 'page')
/** A camera without any steps, and a page in front of it. */
const bare = { ...base, inputs: base.inputs.map((input) => (input.id === camera.id ? { ...input, treatment: [] } : input)) } as Show
const shown: Show = addLayer(addLayer(withLayers(addInput(bare, screen), []), sceneId, presenter), sceneId, page)

function withLayers(show: Show, layers: readonly Layer[]): Show {
  return { ...show, scenes: show.scenes.map((scene) => (scene.id === sceneId ? { ...scene, layers } : scene)) }
}

const sceneOf = (show: Show) => show.scenes.find(({ id }) => id === sceneId)!
const me = (show: Show) => sceneOf(show).layers.find(({ id }) => id === 'me')!
const inside = putInsidePage(shown, sceneId, 'page', 'me', 'all', 'Ink', makeId)

describe('standing inside a page', () => {
  it('is page, presenter, ink, from the back; coming again changes nothing', () => {
    expect(sceneOf(inside).layers.map(({ name, part }) => [name, part])).toEqual([
      ['Screen', null],
      [presenter.name, null],
      ['Ink', 'ink'],
    ])
    expect(inkOf(sceneOf(inside), page)?.blend).toBe('multiply')
    expect(putInsidePage(inside, sceneId, 'page', 'me', 'all', 'Ink', makeId)).toEqual(inside)
    expect(sceneOf(putInsidePage(shown, sceneId, 'me', 'page', 'all', 'Ink', makeId))).toBe(sceneOf(shown))
  })

  it.each(inkModes)('ink in front: %s, and back to all', (mode) => {
    const ink = inkOf(sceneOf(inside), page)!
    const changed = setInkMode(inside, sceneId, ink.id, mode, makeId)
    expect(inkModeOf(inkOf(sceneOf(changed), page)!)).toBe(mode)
    expect(setInkMode(changed, sceneId, ink.id, 'all', makeId)).toEqual(inside)
  })

  it('takes the wall for white where nothing cuts the presenter out, and only there', () => {
    expect(isWallTakenForWhite(inside, me(inside))).toBe(true)
    expect(isWallTakenForWhite(shown, me(shown))).toBe(false)
    expect(withWall(me(inside))).toEqual(me(shown))
    const off = updateLayer(inside, sceneId, 'me', (layer) => ({ ...layer, treatment: layer.treatment.map((step) => ({ ...step, on: false })) }) as Layer)
    expect(isWallTakenForWhite(off, me(off))).toBe(false)
    // Keyed afterwards, everywhere: it is the key that cuts.
    const inOrder = { ...inside, inputs: [inside.inputs.find(({ id }) => id === camera.id)!, ...inside.inputs.filter(({ id }) => id !== camera.id)] }
    const keyed = addStep(inOrder, 'chromaKey', { colour: '#2bb552' })
    expect(isWallTakenForWhite(keyed, me(keyed))).toBe(false)
    // Keyed before: the wall is left alone.
    const before = putInsidePage(addStep({ ...shown, inputs: inOrder.inputs }, 'chromaKey', { colour: '#2bb552' }), sceneId, 'page', 'me', 'all', 'Ink', makeId)
    expect(me(before).treatment).toEqual([])
  })
})
