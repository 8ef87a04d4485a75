<script setup lang="ts">
// A scene without layers: what can be put into it, and how it could be laid out.
import { Camera, Image, LayoutPanelLeft, MonitorUp } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { LayoutName } from '../../../core/layout/arrange/layouts.ts'
import BaseButton from '../../base/BaseButton.vue'
import LayoutTile from '../layouts/LayoutTile.vue'
import { useLayouts } from '../layouts/use-layouts.ts'
import { useAddLayer } from '../use-add-layer.ts'

const { t } = useI18n()
const { drafts, take, open } = useLayouts()
const { addCamera, chooseFiles, placeScreen } = useAddLayer()
/** Those that most scenes have; all are behind the button. */
const OFFERED: readonly LayoutName[] = ['third', 'shoulder', 'cornerBottom', 'frames']
const TILE_PX = 120
const offered = computed(() => drafts.value.filter(({ name }) => OFFERED.includes(name)))

/** The presenter comes with the layout; what they show is chosen beside it. */
function choose(name: LayoutName): void {
  take(name)
  open()
}
</script>

<template>
  <div class="grid max-h-full max-w-full justify-items-center gap-3 overflow-auto p-4 text-center">
    <p class="font-head text-[16px] font-semibold">{{ t('build.emptyScene') }}</p>
    <div class="flex flex-wrap justify-center gap-2 text-ink">
      <BaseButton :icon="Camera" @click="addCamera">{{ t('build.addCamera') }}</BaseButton>
      <BaseButton :icon="MonitorUp" @click="placeScreen('shared')">{{ t('screens.name') }}</BaseButton>
      <BaseButton :icon="Image" @click="chooseFiles()">{{ t('build.addPicture') }}</BaseButton>
    </div>
    <p class="opacity-75">{{ t('build.emptySceneHint') }}</p>
    <ul class="flex flex-wrap justify-center gap-2" :aria-label="t('build.emptySceneHint')">
      <li v-for="draft in offered" :key="draft.name" :style="{ width: `${TILE_PX + 10}px` }">
        <button type="button" class="block w-full rounded-lg border border-white/20 p-1 hover:border-[#e0b04b]" @click="choose(draft.name)">
          <LayoutTile :draft="draft" :width-px="TILE_PX" />
          <span class="mt-1 block text-[12px] leading-snug">{{ t(`layouts.names.${draft.name}`) }}</span>
        </button>
      </li>
    </ul>
    <BaseButton class="text-ink" :icon="LayoutPanelLeft" @click="open">{{ t('build.beginWithLayout') }}</BaseButton>
  </div>
</template>
