import { newTextLayer } from '../layers/text.ts'
import { newInputLayer } from '../layers/input.ts'
import { describe, expect, it } from 'vitest'
import { allInfos, sceneNamed, testShow } from '../../tests/support/shows.ts'
import { addContents } from '../show/contents.ts'
import { addInput, addLayer, moveLayer, placeLayer, switchStep, updateLayer } from '../show/edits.ts'
import type { Show } from '../show/show.ts'
import { depthAdvice, depthFix } from './depth-advice.ts'
import { hiddenLayers } from './hidden-layers.ts'

const demo = testShow()
const welcome = sceneNamed(demo, 'Welcome')
const [wall, camera, title, mark] = welcome.layers.map((layer) => layer.id) as [string, string, string, string]
const makeId = (() => {
  let count = 0
  return () => `new-${(count += 1)}`
})()

/** The demo with an opaque picture added in front, and what is said of its first scene. */
function withPoster(show: Show = demo): Show {
  const poster = { id: 'poster', kind: 'picture', name: 'Poster', asset: 'a'.repeat(64), treatment: [] } as const
  return addLayer(addInput(show, poster), welcome.id, { ...newInputLayer(poster, show.canvas, makeId), id: 'poster-layer' })
}
const infosOf = (show: Show) => new Map([...allInfos(show), ['input:poster', { widthPx: 1280, heightPx: 720, isOpaque: true }] as const])
const adviceOf = (show: Show) => {
  const scene = sceneNamed(show, 'Welcome')
  return depthAdvice(show, scene, infosOf(show)).map((advice) => ({ ...advice, fix: depthFix(show, scene, infosOf(show), advice) }))
}

/** The show after the first advice was followed. */
function followed(show: Show): Show {
  const { fix } = adviceOf(show)[0]!
  return moveLayer(show, welcome.id, fix!.layerId, fix!.index)
}
const hiddenShare = (show: Show, layerId: string) =>
  hiddenLayers(show, sceneNamed(show, 'Welcome'), infosOf(show)).find((hidden) => hidden.layerId === layerId)?.hiddenShare ?? 0

describe('advice on depth', () => {
  it('follows what a layer shows: the same layer, of which the head counts once its input is a camera', () => {
    const poster = withPoster()
    // A picture that covers the lower half of another, which becomes a camera.
    const over = placeLayer(poster, welcome.id, 'poster-layer', { x: 0, y: 360, width: 1280, height: 360 })
    const asPicture: Show = {
      ...over,
      inputs: over.inputs.map((input) =>
        input.kind === 'camera' ? { id: input.id, kind: 'picture', name: input.name, asset: 'c'.repeat(64), treatment: input.treatment } : input,
      ),
    }
    // As large as before, so that nothing but the kind tells them apart.
    const infos = infosOf(over)
    const shareOf = (show: Show) => hiddenLayers(show, sceneNamed(show, 'Welcome'), infos).find(({ layerId }) => layerId === camera)!.coreShare
    const before = shareOf(asPicture)
    const after = shareOf(over)
    expect(after).not.toBeCloseTo(before, 2)
    expect(shareOf(structuredClone(over))).toBe(after)
    expect(shareOf(structuredClone(asPicture))).toBe(before)
  })

  it('has nothing to say of the demo', () => {
    for (const scene of demo.scenes) expect(depthAdvice(demo, scene, allInfos(demo))).toEqual([])
  })

  it('speaks first of the camera that a picture covers, not of the wall, and sends the picture behind it', () => {
    const show = withPoster()
    expect(adviceOf(show)[0]).toMatchObject({ kind: 'trouble', layerId: camera, coveredBy: 'poster-layer', hiddenShare: 1 })
    expect(adviceOf(show)[0]!.fix).toEqual({ layerId: 'poster-layer', index: 1, way: 'behind' })
  })

  it('leaves the camera, the title and the picture visible when it is followed', () => {
    const after = followed(withPoster())
    for (const layer of [camera, title, mark, 'poster-layer']) expect(hiddenShare(after, layer)).toBeLessThan(0.1)
    // What is left is a wall behind a picture: a note, not a fault.
    expect(adviceOf(after).map(({ kind, layerId }) => [kind, layerId])).toEqual([['note', wall]])
  })

  it('puts a covered title in front of an opaque camera rather than the camera out of sight', () => {
    const key = demo.inputs[0]!.treatment.find((step) => step.kind === 'chromaKey')!
    const unkeyed = switchStep(demo, { type: 'input', inputId: demo.inputs[0]!.id }, key.id, false)
    const uncropped = { ...unkeyed, inputs: unkeyed.inputs.map((input, i) => (i === 0 ? { ...input, treatment: [] } : input)) }
    const behind = moveLayer(uncropped, welcome.id, camera, 3)
    expect(adviceOf(behind)[0]).toMatchObject({ kind: 'trouble', layerId: title, coveredBy: camera })
    const after = followed(behind)
    expect(hiddenShare(after, title)).toBe(0)
    expect(hiddenShare(after, camera)).toBeLessThan(0.2)
  })

  it('takes a plate over the lower part of the presenter for a title, and one over the face for a fault', () => {
    const { layer, contents } = newTextLayer('Plate', 'Words', demo.canvas, makeId)
    const plate = { ...layer, id: 'plate' }
    const plated = addContents(demo, contents)
    const over = (y: number, height: number) => placeLayer(addLayer(plated, welcome.id, plate), welcome.id, 'plate', { x: 0, y, width: 1280, height })
    expect(adviceOf(over(560, 160)).some(({ layerId }) => layerId === camera)).toBe(false)
    expect(adviceOf(over(0, 700))[0]).toMatchObject({ kind: 'trouble', layerId: camera, coveredBy: 'plate' })
  })

  it('offers no move when none would help: one covers the other either way', () => {
    const one = withPoster({ ...demo, scenes: demo.scenes.map((scene) => (scene.id === welcome.id ? { ...scene, layers: [] } : scene)) })
    const two = addLayer(one, welcome.id, { ...sceneNamed(one, 'Welcome').layers[0]!, id: 'second' })
    expect(adviceOf(two)).toMatchObject([{ kind: 'note', layerId: 'poster-layer', coveredBy: 'second', fix: null }])
  })

  it('does not mind what covers a plain colour, nor what is hidden on purpose', () => {
    const hidden = updateLayer(withPoster(), welcome.id, 'poster-layer', (layer) => ({ ...layer, visible: false }))
    expect(adviceOf(hidden)).toEqual([])
  })
})
