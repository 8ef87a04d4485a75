// When a view on the page is drawn: not again while its picture would be the same.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { newShow } from '../../core/show/create.ts'
import { updateScene } from '../../core/show/edits.ts'
import type { Show } from '../../core/show/show.ts'
import type { Executors } from '../executors.ts'
import { SourceBook } from '../sources/source-book.ts'
import { View } from './view.ts'

let count = 0
const makeId = () => `v${(count += 1)}`
const picture: RgbaPicture = { format: 'rgba', widthPx: 4, heightPx: 2, data: new Uint8ClampedArray(32) }

beforeEach(() => {
  count = 0
  vi.stubGlobal('ImageData', class {})
})
afterEach(() => vi.unstubAllGlobals())

/** A view of the only scene of a show, its inputs pictures that stay. */
function view() {
  const bare = newShow('Show', { scene: 'Scene', camera: 'Camera', wall: 'Wall' }, makeId)
  const show: Show = { ...bare, inputs: bare.inputs.filter(({ kind }) => kind === 'colour') }
  const still = updateScene(show, show.scenes[0]!.id, (scene) => ({ ...scene, layers: scene.layers.slice(0, 1) }))
  const book = new SourceBook(
    () => Promise.reject(new Error('no pictures here')),
    { make: () => picture },
    { onChange: () => made.invalidate(), onAssetFailed: () => undefined },
  )
  const pen = { putImageData: vi.fn(), clearRect: vi.fn() }
  const canvas = { width: 4, height: 2, getContext: () => pen } as unknown as OffscreenCanvas
  const render = vi.fn(() => picture)
  const executors = { treatments: { heap: null }, make: () => ({ name: 'cpu', render, dispose: () => undefined }), treatmentVersion: 0 }
  const made: View = new View(canvas, { kind: 'scene', sceneId: show.scenes[0]!.id, isSmall: false }, executors as unknown as Executors, book)
  book.follow(still)
  return {
    made,
    show: still,
    pen,
    render,
    executors,
    drawnAfter: (one: Show, nowMs: number) => (made.draw(one, nowMs, false), pen.putImageData.mock.calls.length),
  }
}

describe('View', () => {
  it('is drawn once while nothing changes, and again after an edit, or when something else treats its pictures', () => {
    const { show, executors, drawnAfter } = view()
    expect([0, 33, 66].map((nowMs) => drawnAfter(show, nowMs))).toEqual([1, 1, 1])
    const edited = updateScene(show, show.scenes[0]!.id, (scene) => ({ ...scene, layers: [{ ...scene.layers[0]!, opacity: 0.5 }] }))
    expect([100, 133].map((nowMs) => drawnAfter(edited, nowMs))).toEqual([2, 2])
    expect(drawnAfter({ ...edited, name: 'Another name' }, 166)).toBe(2)
    executors.treatmentVersion += 1
    expect([200, 233].map((nowMs) => drawnAfter(edited, nowMs))).toEqual([3, 3])
  })

  it('is drawn again after it failed, and after the picture on air was shown in its place', () => {
    const { made, show, render, drawnAfter } = view()
    render.mockImplementationOnce(() => {
      throw new Error('out of memory')
    })
    expect(() => drawnAfter(show, 0)).toThrow('out of memory')
    expect([33, 66].map((nowMs) => drawnAfter(show, nowMs))).toEqual([1, 1])
    made.showAir(picture)
    expect([100, 133].map((nowMs) => drawnAfter(show, nowMs))).toEqual([3, 3])
  })

  it('is cleared when its scene is gone, and drawn when it is back', () => {
    const { show, pen, drawnAfter } = view()
    expect(drawnAfter(show, 0)).toBe(1)
    expect(drawnAfter({ ...show, scenes: [] }, 33)).toBe(1)
    expect(pen.clearRect).toHaveBeenCalledTimes(1)
    expect(drawnAfter(show, 66)).toBe(2)
  })
})
