// A logo as a graphic: which picture it shows, as narrow as that is, and in which corner.
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { inCorner, makeLogo, tightInCorner, type Corner } from '../../core/graphics/logo.ts'
import { updateLayer } from '../../core/show/edits.ts'
import type { Layer, PictureInput, Placement, Scene } from '../../core/show/show.ts'
import { errorWords } from '../show/error-words.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { readPicture } from './read-picture.ts'

export function useLogo() {
  const { t } = useI18n()
  const showStore = useShowStore()

  /** Where a picture stands in a corner; without its size, the widest that a logo may be. */
  async function boxFor(picture: PictureInput, corner: Corner): Promise<Placement> {
    const { canvas } = showStore.show!
    try {
      const { widthPx, heightPx } = await readPicture(picture.asset)
      return tightInCorner(corner, canvas, widthPx / heightPx)
    } catch (error) {
      toast.error(errorWords(error))
      return inCorner(corner, canvas)
    }
  }

  /** A graphic of a picture in the upper right, before it is part of the show. */
  async function make(picture: PictureInput): Promise<Scene> {
    const graphic = makeLogo(picture, t('graphics.kinds.logo'), 'topRight', showStore.show!.canvas, makeId)
    const placement = await boxFor(picture, 'topRight')
    return { ...graphic, layers: graphic.layers.map((layer) => ({ ...layer, placement })) }
  }

  function change(graphic: Scene, layer: Layer, part: (layer: Layer) => Layer): void {
    showStore.edit(t('edits.logo'), (show) => updateLayer(show, graphic.id, layer.id, part))
  }

  async function show(graphic: Scene, layer: Layer, picture: PictureInput): Promise<void> {
    const placement = await boxFor(picture, 'topRight')
    const { x, y, width, height } = layer.placement
    // Its middle stays where it was, so that a corner stays that corner.
    const { canvas } = showStore.show!
    const corner = `${y + height / 2 < canvas.heightPx / 2 ? 'top' : 'bottom'}${x + width / 2 < canvas.widthPx / 2 ? 'Left' : 'Right'}` as Corner
    const placed = tightInCorner(corner, canvas, placement.width / placement.height)
    change(graphic, layer, (one) => ({ ...one, name: picture.name, inputId: picture.id, placement: placed }) as Layer)
  }

  function move(graphic: Scene, layer: Layer, corner: Corner): void {
    const { width, height } = layer.placement
    change(graphic, layer, (one) => ({ ...one, placement: tightInCorner(corner, showStore.show!.canvas, width / height) }))
  }

  return { make, show, move }
}
