import { describe, expect, it } from 'vitest'
import { graphicWordsForTests } from '../../tests/support/graphic-words.ts'
import { testShow } from '../../tests/support/shows.ts'
import { isText } from '../layers/text.ts'
import { newInputLayer } from '../layers/input.ts'
import type { Layer } from '../layers/layer.ts'
import { mended } from '../layout/unseen.ts'
import { addContents } from '../show/contents.ts'
import { addLayer, addScene, updateLayer } from '../show/edits.ts'
import { readShow } from '../show/migrate.ts'
import type { Scene, Show } from '../show/show.ts'
import { setVisible } from '../show/visibility.ts'
import { graphicFamilies, type GraphicFamily } from './families.ts'
import { makeGraphic } from './make-graphic.ts'
import { photoOf, setPhoto } from './photo.ts'

const canvases = [
  { widthPx: 1280, heightPx: 720 },
  { widthPx: 720, heightPx: 1280 },
  { widthPx: 333, heightPx: 333 },
]

function strip(family: GraphicFamily, canvas = canvases[0]!, hasPhoto = true): { readonly show: Show; readonly graphic: Scene; readonly photo: Layer } {
  let count = 0
  const makeId = () => `p${(count += 1)}`
  const base = testShow()
  const picture = hasPhoto ? base.inputs.find(({ kind }) => kind === 'picture')! : null
  const { graphic, contents } = makeGraphic({ kind: 'portrait', family }, graphicWordsForTests, canvas, makeId, picture)
  const show = addContents(addScene({ ...base, canvas: { ...base.canvas, ...canvas } }, graphic), contents)
  return { show, graphic, photo: photoOf(graphic)! }
}
const layersNow = (show: Show, { id }: Scene) => show.scenes.find((scene) => scene.id === id)!.layers
const right = ({ placement: { x, width } }: Layer) => x + width

describe.each(graphicFamilies)('a name strip with a photo, %s', (family) => {
  it.each(canvases)('has its words beside the photo, and closes the gap without it: %o', (canvas) => {
    const { show, graphic, photo } = strip(family, canvas)
    expect(readShow(structuredClone(show))).toEqual(show)
    const words = graphic.layers.find(isText)!
    expect(words.placement.x).toBeGreaterThan(right(photo))
    const without = setVisible(show, graphic.id, [photo.id], false)
    expect(readShow(structuredClone(without))).toEqual(without)
    const after = layersNow(without, graphic)
    expect(after.find(({ id }) => id === photo.id)!.visible).toBe(false)
    // The words stand where the photo stood, and end as far from the end of their plate as before.
    const moved = after.find(isText)!
    expect(moved.placement.x).toBe(photo.placement.x)
    expect(moved.placement.width).toBe(words.placement.width)
    for (const plate of graphic.layers.filter(({ part }) => part === 'roundPhoto')) {
      const now = after.find(({ id }) => id === plate.id)!
      expect(right(now) - right(moved)).toBe(right(plate) - right(words))
      expect(now.placement.x).toBe(plate.placement.x)
    }
    expect(layersNow(setVisible(without, graphic.id, [photo.id], true), graphic)).toEqual(graphic.layers)
    // The depth strip's own way to show it opens the gap as well.
    const shown = mended(without, graphic.id, { layerId: photo.id, reason: 'hidden', by: null }, { infos: new Map(), heads: new Map() })!
    expect(layersNow(shown, graphic)).toEqual(graphic.layers)
  })
})

describe('the photo of a graphic', () => {
  it('is a plate until there is a picture, and then that picture in its place', () => {
    const { show, graphic, photo } = strip('card', canvases[0], false)
    expect(photo.kind).toBe('shape')
    const picture = show.inputs.find(({ kind }) => kind === 'picture')!
    const next = setPhoto(show, graphic.id, photo.id, picture)
    expect(readShow(structuredClone(next))).toEqual(next)
    const { photo: withPicture } = strip('card')
    expect(photoOf({ layers: layersNow(next, graphic) })).toEqual({ ...withPicture, id: photo.id })
    // What the plate was is not left behind.
    expect(next.contents.length).toBe(show.contents.length - 1)
    const camera = show.inputs.find(({ kind }) => kind === 'camera')!
    expect(photoOf({ layers: layersNow(setPhoto(next, graphic.id, photo.id, camera), graphic) })).toMatchObject({ inputId: camera.id, part: 'photo' })
  })

  it('leaves alone what the presenter has put beside it, what is hidden already, and other scenes', () => {
    const { show, graphic, photo } = strip('ruled')
    const picture = show.inputs.find(({ kind }) => kind === 'picture')!
    const own = newInputLayer(picture, show.canvas, () => 'own')
    const withOwn = addLayer(show, graphic.id, own)
    const without = setVisible(withOwn, graphic.id, [photo.id], false)
    expect(layersNow(without, graphic).find(({ id }) => id === 'own')).toEqual(own)
    expect(setVisible(without, graphic.id, [photo.id], false)).toEqual(without)
    expect(without.scenes.filter(({ id }) => id !== graphic.id)).toEqual(withOwn.scenes.filter(({ id }) => id !== graphic.id))
    // A layer that is no photo is hidden, and nothing moves.
    const plain = setVisible(withOwn, graphic.id, ['own'], false)
    expect(layersNow(plain, graphic)).toEqual(
      layersNow(
        updateLayer(withOwn, graphic.id, 'own', (layer) => ({ ...layer, visible: false })),
        graphic,
      ),
    )
  })
})
