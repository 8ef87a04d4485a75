<script setup lang="ts">
// Graphics of the presenter's own: an empty one to draw in, one from a file, and those that were saved in any show.
import { ImagePlus, Pencil, Undo2, X } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { newInputLayer } from '../../core/layers/input.ts'
import { namedEasings } from '../../core/motion/easing.ts'
import { newScene } from '../../core/show/create.ts'
import { graphicIn } from '../../core/show/kept-graphic.ts'
import type { ColourInput, Scene, Show } from '../../core/show/show.ts'
import type { SavedGraphic } from '../show/api.ts'
import BaseButton from '../base/BaseButton.vue'
import IconButton from '../base/IconButton.vue'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import ShowCover from '../shows/ShowCover.vue'
import { useGraphics } from './use-graphics.ts'
import { usePictures } from './use-pictures.ts'
import { useSavedGraphics } from './use-saved-graphics.ts'

const emit = defineEmits<{ added: [] }>()
const { t } = useI18n()
const showStore = useShowStore()
const { add } = useGraphics()
const { fromFile } = usePictures()
const { saved, unreadable, isLoaded, deleted, load, remove, undoRemove, add: addSaved } = useSavedGraphics()
void load()

/** How wide a saved graphic is drawn. */
const COVER_PX = 400
const WALL: ColourInput = { id: 'wall', kind: 'colour', name: '', colour: '#77847c', treatment: [] }

/** Each in the colours of this show, and over something, since a graphic is seldom as large as the picture. */
const tiles = computed(() =>
  saved.value.map((one) => {
    const graphic = graphicIn(one.graphic)
    const scene: Scene = { ...graphic, graphic: null, layers: [newInputLayer(WALL, one.graphic.canvas, () => 'wall'), ...graphic.layers] }
    const { style, presenter } = showStore.show!
    const said = { ...presenter, name: presenter.name || t('graphics.says.name'), title: presenter.title || t('graphics.says.role') }
    const show: Show = { ...one.graphic, style, presenter: said, inputs: [WALL, ...one.graphic.inputs], scenes: [scene] }
    return { one, show, scene }
  }),
)

function addEmpty(): void {
  if (add({ graphic: { ...newScene(t('graphics.empty'), makeId), graphic: { key: null } }, contents: [] }, null)) emit('added')
}

/** A picture made elsewhere, over the whole canvas. */
async function addFile(): Promise<void> {
  const picture = await fromFile()
  if (picture === null) return
  const fade = { kind: 'fade', durationMs: 300, delayMs: 0, easing: namedEasings.easeOut, side: 'left' } as const
  const layer = { ...newInputLayer(picture, showStore.show!.canvas, makeId), entrance: fade, exit: fade }
  if (add({ graphic: { ...newScene(picture.name, makeId), graphic: { key: null }, layers: [layer] }, contents: [] }, null)) emit('added')
}

function choose(one: SavedGraphic): void {
  if (addSaved(one)) emit('added')
}
const TILE = 'min-w-0 rounded-xl border border-line bg-raised p-1.5 text-start hover:border-soft'
</script>

<template>
  <button type="button" :class="TILE" @click="addEmpty">
    <span class="grid aspect-video place-items-center rounded-lg bg-sunk text-soft"><Pencil :size="22" aria-hidden="true" /></span>
    <span class="mt-1 block px-1 font-semibold">{{ t('graphics.empty') }}</span>
    <span class="block px-1 text-[12px] leading-snug text-soft">{{ t('graphics.emptyHint') }}</span>
  </button>
  <button type="button" :class="TILE" @click="addFile">
    <span class="grid aspect-video place-items-center rounded-lg bg-sunk text-soft"><ImagePlus :size="22" aria-hidden="true" /></span>
    <span class="mt-1 block px-1 font-semibold">{{ t('graphics.wholePicture') }}</span>
    <span class="block px-1 text-[12px] leading-snug text-soft">{{ t('graphics.wholePictureHint') }}</span>
  </button>
  <div v-for="{ one, show, scene } in tiles" :key="one.id" class="flex min-w-0 flex-col" :data-saved="one.name">
    <button type="button" :class="TILE" :aria-label="one.name" @click="choose(one)">
      <ShowCover class="rounded-lg" :show="show" :scene="scene" :width-px="COVER_PX" />
    </button>
    <span class="mt-1 flex items-center gap-1 ps-2.5">
      <bdi class="min-w-0 flex-1 truncate font-semibold" :title="one.name">{{ one.name }}</bdi>
      <IconButton :icon="X" size="small" :label="t('graphics.deleteSaved', { name: one.name })" @click="remove(one)" />
    </span>
  </div>
  <div v-for="one in unreadable" :key="one.id" class="flex min-w-0 flex-col gap-1 rounded-xl border border-line p-3 text-[12.5px]">
    <bdi class="font-semibold">{{ one.name }}</bdi>
    <p class="text-soft">{{ t('graphics.unreadable', { why: one.reason }) }}</p>
    <IconButton :icon="X" size="small" :label="t('graphics.deleteSaved', { name: one.name })" @click="remove(one)" />
  </div>
  <p v-if="deleted" class="col-span-full flex flex-wrap items-center gap-x-2" role="status">
    {{ t('graphics.deleted', { name: deleted.name }) }}
    <BaseButton kind="quiet" :icon="Undo2" @click="undoRemove">{{ t('graphics.undoDelete') }}</BaseButton>
  </p>
  <p v-if="isLoaded && saved.length === 0" class="col-span-full text-soft">{{ t('graphics.noneSaved') }}</p>
</template>
