<script setup lang="ts">
// Backgrounds to choose from: drawn ones in the colours of the show, moving ones, and what the show has already.
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { Film, LoaderCircle, Star, X } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { drawnBackgrounds } from '../../core/backgrounds/drawn.ts'
import { movingBackgrounds, type MovingBackground } from '../../core/inputs/clip.ts'
import { inputBackground } from '../../core/backgrounds/set-background.ts'
import { newScene } from '../../core/show/create.ts'
import type { Favourite } from '../../core/show/show.ts'
import IconButton from '../base/IconButton.vue'
import StyleAside from '../graphics/StyleAside.vue'
import LivePicture from '../live-picture/LivePicture.vue'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { isBackgroundGalleryShown } from './gallery-open.ts'
import MovingSwatch from './MovingSwatch.vue'
import { useBackgrounds } from './use-backgrounds.ts'

const { t } = useI18n()
const showStore = useShowStore()
const { making, own, isFavourite, drafted, apply, applyInput, applyMoving, toggle } = useBackgrounds()
const TILE_WIDTH_PX = 320

const size = computed(() => {
  const { widthPx, heightPx } = showStore.show!.canvas
  return { width: TILE_WIDTH_PX, height: Math.max(1, Math.round((TILE_WIDTH_PX * heightPx) / widthPx)) }
})
const alone = (made: ReturnType<typeof drafted>) => ({
  kind: 'draft' as const,
  scene: { ...newScene('', makeId), layers: [made.layer] },
  contents: made.contents,
})
const groups = computed(() => {
  if (!isBackgroundGalleryShown.value || showStore.show === null) return []
  const { show } = showStore
  const drawn = drawnBackgrounds.map((name) => {
    const made = drafted(name)
    return {
      key: name,
      title: t(`backgrounds.drawn.${name}`),
      favourite: { type: 'drawn', name } as Favourite,
      request: alone(made),
      choose: () => apply(made),
    }
  })
  const inputs = own.value.map((input) => ({
    key: input.id,
    title: input.name,
    favourite: { type: 'input', inputId: input.id } as Favourite,
    request: alone(inputBackground(input, show, makeId)),
    choose: () => applyInput(input),
  }))
  return [
    { key: 'drawn', title: t('backgrounds.drawnTitle'), tiles: drawn },
    { key: 'own', title: t('backgrounds.ownTitle'), tiles: inputs },
  ].filter(({ tiles }) => tiles.length > 0)
})

function choose(run: () => boolean): void {
  if (run()) isBackgroundGalleryShown.value = false
}

async function chooseMoving(name: MovingBackground): Promise<void> {
  if (await applyMoving(name)) isBackgroundGalleryShown.value = false
}
</script>

<template>
  <Dialog :open="isBackgroundGalleryShown" class="relative z-40" @close="isBackgroundGalleryShown = false">
    <div class="fixed inset-0 bg-black/45" aria-hidden="true"></div>
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel
        class="flex max-h-full w-full max-w-[1080px] flex-col overflow-hidden rounded-2xl border border-line bg-paper"
        data-testid="background-gallery"
      >
        <div class="flex shrink-0 items-center gap-4 border-b border-line px-5 py-3">
          <DialogTitle class="flex-1 font-head text-[20px] font-bold">{{ t('backgrounds.choose') }}</DialogTitle>
          <IconButton :icon="X" :label="t('errors.close')" @click="isBackgroundGalleryShown = false" />
        </div>
        <div class="grid min-h-0 flex-1 overflow-y-auto min-[760px]:grid-cols-[minmax(0,1fr)_232px] min-[760px]:overflow-hidden">
          <div class="p-5 min-[760px]:overflow-y-auto">
            <template v-for="group in groups" :key="group.key">
              <h3 class="mb-2 font-semibold">{{ group.title }}</h3>
              <ul class="mb-5 grid grid-cols-[repeat(auto-fill,minmax(168px,1fr))] gap-3">
                <li v-for="tile in group.tiles" :key="tile.key" class="min-w-0 rounded-xl border border-line bg-raised p-1.5 hover:border-soft">
                  <button type="button" class="block w-full rounded-lg" :aria-label="tile.title" @click="choose(tile.choose)">
                    <LivePicture
                      class="pointer-events-none aspect-video overflow-hidden rounded-lg"
                      :request="tile.request"
                      :width-px="size.width"
                      :height-px="size.height"
                      label=""
                    />
                  </button>
                  <div class="mt-1 flex items-center gap-1 ps-1">
                    <span dir="auto" class="min-w-0 flex-1 truncate font-semibold" :title="tile.title">{{ tile.title }}</span>
                    <IconButton
                      :icon="Star"
                      size="small"
                      :label="isFavourite(tile.favourite) ? t('backgrounds.unfavour', { name: tile.title }) : t('backgrounds.favour', { name: tile.title })"
                      :is-on="isFavourite(tile.favourite)"
                      @click="toggle(tile.favourite)"
                    />
                  </div>
                </li>
              </ul>
              <template v-if="group.key === 'drawn'">
                <h3 class="mb-2 flex items-center gap-1.5 font-semibold">
                  <Film :size="15" class="text-soft" aria-hidden="true" />{{ t('backgrounds.movingTitle') }}
                </h3>
                <ul class="mb-5 grid grid-cols-[repeat(auto-fill,minmax(168px,1fr))] gap-3">
                  <li v-for="name in movingBackgrounds" :key="name" class="min-w-0 rounded-xl border border-line bg-raised p-1.5 hover:border-soft">
                    <button type="button" class="block w-full text-start" :disabled="making !== null" @click="chooseMoving(name)">
                      <MovingSwatch :name="name" :colours="showStore.show!.style.colours" class="block aspect-video w-full rounded-lg" />
                      <span class="mt-1 flex items-center gap-1.5 px-1 font-semibold">
                        {{ t(`backgrounds.moving.${name}`) }}
                        <LoaderCircle v-if="making === name" :size="14" class="animate-spin motion-reduce:animate-none" aria-hidden="true" />
                      </span>
                    </button>
                  </li>
                </ul>
              </template>
            </template>
            <p role="status" class="text-soft">{{ making === null ? '' : t('backgrounds.making') }}</p>
          </div>
          <StyleAside :hint="t('backgrounds.styleHint')" />
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
