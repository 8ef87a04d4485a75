// What the scene on the stage stands in front of, and the backgrounds that are kept at hand.
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { drawBackground, drawnBackgrounds, type DrawnBackground, type NewBackground } from '../../core/backgrounds/drawn.ts'
import { backgroundOf, favouriteBackground, inputBackground, isBackgroundOf, setBackground } from '../../core/backgrounds/set-background.ts'
import { addInput, isSameFavourite, toggleFavourite } from '../../core/show/edits.ts'
import { isPicture } from '../../core/inputs/picture.ts'
import { isClip, newClip, type MovingBackground } from '../../core/inputs/clip.ts'
import type { Favourite, Input, Scene } from '../../core/show/show.ts'
import { errorWords } from '../show/error-words.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { drawnNow } from './use-moving-colours.ts'

export function useBackgrounds() {
  const { t } = useI18n()
  const showStore = useShowStore()
  /** The moving background that is being drawn on the server. */
  const making = ref<MovingBackground | null>(null)
  const titleOf = (name: string) => ((drawnBackgrounds as readonly string[]).includes(name) ? t(`backgrounds.drawn.${name}`) : name)
  const favourites = computed(() => showStore.show?.favourites ?? [])
  const isFavourite = (favourite: Favourite) => favourites.value.some((one) => isSameFavourite(one, favourite))
  const drafted = (name: DrawnBackground): NewBackground => drawBackground(name, titleOf(name), showStore.show!.canvas, makeId)
  /** Pictures and clips of the show that a scene could stand in front of. */
  const own = computed(() => (showStore.show?.inputs ?? []).filter((input) => isPicture(input) || isClip(input)))

  /** Puts the scene on the stage in front of a background; false where it may not be changed. */
  function apply(made: NewBackground, scene: Scene | null = showStore.scene): boolean {
    if (scene === null) return false
    return showStore.edit(t('edits.background', { name: scene.name }), (show) => setBackground(show, scene.id, made))
  }

  function applyInput(input: Input): boolean {
    return showStore.show !== null && apply(inputBackground(input, showStore.show, makeId))
  }

  /** Has a moving background drawn in the colours of the show, and puts the scene in front of it. */
  async function applyMoving(name: MovingBackground): Promise<boolean> {
    const { show, showId, sceneId } = showStore
    if (show === null || sceneId === null || making.value !== null) return false
    making.value = name
    try {
      const { hash } = await drawnNow(name)
      // Another show may be open by now, or the scene be gone.
      if (showStore.showId !== showId || !showStore.show!.scenes.some(({ id }) => id === sceneId)) return false
      const known = showStore.show!.inputs.find((input) => 'asset' in input && input.asset === hash)
      const input = known ?? newClip(t(`backgrounds.moving.${name}`), hash, makeId, name)
      return showStore.edit(t('edits.background', { name: showStore.show!.scenes.find(({ id }) => id === sceneId)!.name }), (now) =>
        setBackground(known === undefined ? addInput(now, input) : now, sceneId, inputBackground(input, now, makeId)),
      )
    } catch (error) {
      toast.error(errorWords(error))
      return false
    } finally {
      making.value = null
    }
  }

  function toggle(favourite: Favourite): void {
    showStore.edit(t('edits.favourites'), (show) => toggleFavourite(show, favourite))
  }

  /** Puts the scene on the stage in front of a favourite. */
  function applyFavourite(favourite: Favourite): boolean {
    const made = showStore.show === null ? null : favouriteBackground(showStore.show, favourite, titleOf, makeId)
    return made !== null && apply(made)
  }

  /** The favourite that the scene on the stage stands in front of; −1 where it is none. */
  const currentIndex = computed(() => {
    const { show, scene } = showStore
    const layer = show === null || scene === null ? null : backgroundOf(show, scene)
    return layer === null ? -1 : favourites.value.findIndex((favourite) => isBackgroundOf(layer, favourite, titleOf))
  })

  function nameOf(favourite: Favourite): string {
    return favourite.type === 'drawn' ? titleOf(favourite.name) : (showStore.show?.inputs.find(({ id }) => id === favourite.inputId)?.name ?? '')
  }

  /** Puts the scene in front of the next favourite, after the last the first. */
  function next(): void {
    const list = favourites.value
    if (list.length > 0) applyFavourite(list[(currentIndex.value + 1) % list.length]!)
  }

  return { making, own, favourites, isFavourite, currentIndex, drafted, titleOf, nameOf, apply, applyInput, applyMoving, applyFavourite, toggle, next }
}
