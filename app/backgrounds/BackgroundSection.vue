<script setup lang="ts">
// What the scene stands in front of: favourites, one press each.
import { Wallpaper } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { NewBackground } from '../../core/backgrounds/drawn.ts'
import { favouriteBackground } from '../../core/backgrounds/set-background.ts'
import { newScene } from '../../core/show/create.ts'
import type { Favourite, Scene, Show } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import InspectorSection from '../build/InspectorSection.vue'
import LivePicture from '../live-picture/LivePicture.vue'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { isBackgroundGalleryShown } from './gallery-open.ts'
import { useBackgrounds } from './use-backgrounds.ts'

const { t, locale } = useI18n()
const showStore = useShowStore()
const { currentIndex, nameOf, titleOf, applyFavourite } = useBackgrounds()
const TILE_WIDTH_PX = 128
const size = computed(() => {
  const { widthPx, heightPx } = showStore.show!.canvas
  return { width: TILE_WIDTH_PX, height: Math.max(1, Math.round((TILE_WIDTH_PX * heightPx) / widthPx)) }
})
interface Tile {
  readonly favourite: Favourite
  readonly index: number
  readonly name: string
  readonly made: NewBackground
  readonly scene: Scene
}
/** What tiles are made of; while none of it changes, an edit elsewhere has none of them drawn again. */
type Source = readonly [Show['favourites'], Show['canvas'], Show['inputs'], string]
const drawn = computed<{ readonly source: Source; readonly tiles: readonly Tile[] }>((before) => {
  const show = showStore.show!
  const source: Source = [show.favourites, show.canvas, show.inputs, locale.value]
  if (before !== undefined && source.every((part, i) => part === before.source[i])) return before
  const tiles = show.favourites.flatMap((favourite, index) => {
    const made = favouriteBackground(show, favourite, titleOf, makeId)
    return made === null ? [] : [{ favourite, index, name: nameOf(favourite), made, scene: { ...newScene('', makeId), layers: [made.layer] } }]
  })
  return { source, tiles }
})
const tiles = computed(() => drawn.value.tiles)
</script>

<template>
  <InspectorSection name="background" :title="t('backgrounds.title')">
    <ul v-if="tiles.length > 0" class="mb-2 grid grid-cols-3 gap-1.5" :aria-label="t('backgrounds.favourites')">
      <li v-for="tile in tiles" :key="`${tile.index} ${tile.name}`">
        <button
          type="button"
          class="block w-full overflow-hidden rounded-md border-2"
          :class="tile.index === currentIndex ? 'border-brass' : 'border-transparent hover:border-line'"
          data-favourite
          :aria-label="tile.name"
          :aria-pressed="tile.index === currentIndex"
          :title="tile.name"
          :disabled="showStore.isStopped()"
          @click="applyFavourite(tile.favourite)"
        >
          <LivePicture
            class="pointer-events-none aspect-video"
            :request="{ kind: 'draft', scene: tile.scene, contents: tile.made.contents }"
            :width-px="size.width"
            :height-px="size.height"
            label=""
          />
        </button>
      </li>
    </ul>
    <p v-else class="mb-2 text-[12.5px] leading-snug text-soft">{{ t('backgrounds.none') }}</p>
    <BaseButton :icon="Wallpaper" :disabled="showStore.isStopped()" @click="isBackgroundGalleryShown = true">{{ t('backgrounds.choose') }}</BaseButton>
  </InspectorSection>
</template>
