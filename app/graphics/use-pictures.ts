// Pictures of the show, and one more from a file: for logos, and for colours.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { isPicture } from '../../core/inputs/picture.ts'
import { inputIdOf } from '../../core/layers/index.ts'
import { layersOf } from '../../core/layers/tree.ts'
import { addInput } from '../../core/show/edits.ts'
import type { PictureInput, Show } from '../../core/show/show.ts'
import { api } from '../show/api.ts'
import { errorWords } from '../show/error-words.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'

const PICTURE_KINDS = 'image/png,image/jpeg,image/webp,image/avif,image/svg+xml'

/** The area that a picture is shown in at the least; infinite where no scene shows it. */
function leastArea({ scenes }: Show, { id }: PictureInput): number {
  const areas = scenes.flatMap(layersOf).flatMap((layer) => (inputIdOf(layer) === id ? [layer.placement.width * layer.placement.height] : []))
  return Math.min(Infinity, ...areas)
}

export function usePictures() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const pictures = computed(() => (showStore.show?.inputs ?? []).filter(isPicture))
  /** The picture that is most likely a logo: the one that is shown smallest. Null where the show has none. */
  const likelyLogo = computed(() =>
    pictures.value.reduce<PictureInput | null>(
      (best, picture) => (best === null || leastArea(showStore.show!, picture) < leastArea(showStore.show!, best) ? picture : best),
      null,
    ),
  )

  /** Opens the browser's chooser of files; the picture joins the show. Null when nothing was chosen, or it was refused, which is said. */
  async function fromFile(): Promise<PictureInput | null> {
    const { showId } = showStore
    const file = await chosenFile()
    if (file === null) return null
    try {
      const { hash, isMoving } = await api.addAsset(file)
      if (showStore.showId !== showId) return null
      if (isMoving) {
        toast.error(t('graphics.logoMoves', { name: file.name }))
        return null
      }
      const known = pictures.value.find(({ asset }) => asset === hash)
      if (known !== undefined) return known
      const name = file.name.replace(/\.\w+$/, '').slice(0, 80) || file.name.slice(0, 80)
      const input: PictureInput = { id: makeId(), kind: 'picture', name, asset: hash, treatment: [] }
      return showStore.edit(t('edits.addInput', { name }), (show) => addInput(show, input)) ? input : null
    } catch (error) {
      toast.error(errorWords(error), { duration: 10_000 })
      return null
    }
  }

  return { pictures, likelyLogo, fromFile }
}

function chosenFile(): Promise<File | null> {
  return new Promise((resolve) => {
    const field = document.createElement('input')
    field.type = 'file'
    field.accept = PICTURE_KINDS
    field.onchange = () => resolve(field.files?.[0] ?? null)
    field.oncancel = () => resolve(null)
    field.click()
  })
}
