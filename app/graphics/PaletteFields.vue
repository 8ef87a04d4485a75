<script setup lang="ts">
// Palettes ready to use, and one from the colours of a picture.
import { Pipette } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { palettes, paletteFrom, type Palette, type PaletteName } from '../../core/palette/palettes.ts'
import type { PictureInput } from '../../core/show/show.ts'
import { styleColours } from '../../core/style/style-names.ts'
import ActionMenu, { type MenuAction } from '../base/ActionMenu.vue'
import { errorWords } from '../show/error-words.ts'
import { useShowStore } from '../show/show.store.ts'
import { readPicture } from './read-picture.ts'
import { useGraphics } from './use-graphics.ts'
import { usePictures } from './use-pictures.ts'

const { t } = useI18n()
const showStore = useShowStore()
const { setPalette } = useGraphics()
const { pictures, likelyLogo, fromFile } = usePictures()
const names = Object.keys(palettes) as PaletteName[]
const isNow = (palette: Palette) => styleColours.every((name) => palette[name] === showStore.show!.style.colours[name])

async function takeFrom(picture: PictureInput | null): Promise<void> {
  if (picture === null) return
  try {
    const palette = paletteFrom((await readPicture(picture.asset)).data)
    if (palette === null) toast.error(t('graphics.noColours', { name: picture.name }))
    else setPalette(palette)
  } catch (error) {
    toast.error(errorWords(error))
  }
}

/** The likely logo first. */
const sources = computed<MenuAction[]>(() => [
  ...[...pictures.value]
    .sort((one, other) => Number(other === likelyLogo.value) - Number(one === likelyLogo.value))
    .map((picture) => ({ label: picture.name, run: () => void takeFrom(picture) })),
  { label: t('graphics.fromFile'), run: () => void fromFile().then(takeFrom) },
])
</script>

<template>
  <div class="flex flex-wrap gap-1.5" role="group" :aria-label="t('graphics.palettes')">
    <button
      v-for="name in names"
      :key="name"
      type="button"
      class="grid h-7 w-10 grid-cols-3 overflow-hidden rounded-md border-2"
      :class="isNow(palettes[name]) ? 'border-brass' : 'border-line hover:border-soft'"
      :aria-label="t(`graphics.paletteNames.${name}`)"
      :title="t(`graphics.paletteNames.${name}`)"
      :aria-pressed="isNow(palettes[name])"
      @click="setPalette(palettes[name])"
    >
      <span :style="{ background: palettes[name].accent }"></span>
      <span :style="{ background: palettes[name].ground }"></span>
      <span :style="{ background: palettes[name].panel }"></span>
    </button>
  </div>
  <ActionMenu :actions="sources" :label="t('graphics.fromPicture')">
    <Pipette :size="14" class="shrink-0" aria-hidden="true" />{{ t('graphics.fromPicture') }}
  </ActionMenu>
</template>
