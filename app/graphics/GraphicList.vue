<script setup lang="ts">
// The graphics of the show, each with a switch that lays it over whatever is on air.
import { Lock, Plus } from 'lucide-vue-next'
import { useI18n } from 'vue-i18n'
import { useAirStore } from '../air/air.store.ts'
import IconButton from '../base/IconButton.vue'
import ToggleSwitch from '../base/ToggleSwitch.vue'
import { keyWords } from '../commands/keys.ts'
import { useShowStore } from '../show/show.store.ts'
import { isGalleryShown } from './gallery-open.ts'
import { useGraphics } from './use-graphics.ts'

const { t } = useI18n()
const showStore = useShowStore()
const air = useAirStore()
const { graphics } = useGraphics()

function choose(id: string): void {
  showStore.selectScene(id)
  showStore.selectLayer(null)
}
</script>

<template>
  <section class="flex max-h-[38%] shrink-0 flex-col border-t border-line" :aria-label="t('graphics.title')">
    <div class="flex shrink-0 items-center justify-between pt-0.5 pe-1 ps-2">
      <h2 class="font-head text-[15px] font-bold">{{ t('graphics.title') }}</h2>
      <IconButton :icon="Plus" size="small" :label="t('graphics.add')" @click="isGalleryShown = true" />
    </div>
    <ul v-if="graphics.length > 0" class="min-h-0 flex-1 overflow-y-auto px-1 pb-1">
      <li
        v-for="graphic in graphics"
        :key="graphic.id"
        class="flex items-center gap-0.5 rounded-md border"
        :class="graphic.id === showStore.sceneId ? 'border-brass bg-wash' : 'border-transparent hover:bg-sunk'"
        :data-graphic="graphic.name"
      >
        <button
          type="button"
          class="min-h-7 min-w-0 flex-1 py-0.5 ps-1 text-start"
          :aria-current="graphic.id === showStore.sceneId ? 'true' : undefined"
          :title="graphic.name"
          @click="choose(graphic.id)"
        >
          <span dir="auto" class="line-clamp-2 text-[12.5px] leading-4 font-medium break-words hyphens-auto">
            <Lock v-if="graphic.locked" :size="10" class="me-0.5 inline" :aria-label="t('layer.locked')" />{{ graphic.name }}
            <kbd v-if="graphic.graphic?.key" class="ms-0.5 font-num text-[11px] text-soft">{{ keyWords(graphic.graphic.key) }}</kbd>
          </span>
        </button>
        <ToggleSwitch
          :model-value="air.graphics.shownIds.has(graphic.id)"
          :label="t('graphics.show', { name: graphic.name })"
          @update:model-value="air.graphics.setShown(graphic.id, $event)"
        />
      </li>
    </ul>
    <p v-else class="px-2 pb-2 text-[12px] leading-snug text-soft">{{ t('graphics.none') }}</p>
  </section>
</template>
