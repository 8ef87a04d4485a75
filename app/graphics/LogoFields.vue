<script setup lang="ts">
// A logo: which picture, and which corner.
import { ArrowDownLeft, ArrowDownRight, ArrowUpLeft, ArrowUpRight } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { corners, inCorner, type Corner } from '../../core/graphics/logo.ts'
import type { Layer, PictureInput, Scene } from '../../core/show/show.ts'
import IconButton from '../base/IconButton.vue'
import { useShowStore } from '../show/show.store.ts'
import PictureFields from './PictureFields.vue'
import { useLogo } from './use-logo.ts'

const props = defineProps<{ graphic: Scene; layer: Layer }>()
const { t } = useI18n()
const showStore = useShowStore()
const { show: showPicture, move } = useLogo()
const icons = { topLeft: ArrowUpLeft, topRight: ArrowUpRight, bottomLeft: ArrowDownLeft, bottomRight: ArrowDownRight }

/** The corner that it stands in; null where it was put elsewhere. */
const corner = computed<Corner | null>(() => {
  const { canvas } = showStore.show!
  const { x, y, width, height } = props.layer.placement
  const isAt = (one: Corner) => {
    const box = inCorner(one, canvas)
    const isLeft = one === 'topLeft' || one === 'bottomLeft'
    const isTop = one === 'topLeft' || one === 'topRight'
    return (isLeft ? x === box.x : x + width === box.x + box.width) && (isTop ? y === box.y : y + height === box.y + box.height)
  }
  return corners.find(isAt) ?? null
})
</script>

<template>
  <fieldset :disabled="graphic.locked" class="m-0 mt-3 grid min-w-0 gap-2 border-0 p-0">
    <PictureFields :layer="layer" @choose="showPicture(graphic, layer, $event as PictureInput)" />
    <div class="flex items-center justify-between gap-2" role="radiogroup" :aria-label="t('graphics.corner')">
      <span>{{ t('graphics.corner') }}</span>
      <span class="flex">
        <IconButton
          v-for="one in corners"
          :key="one"
          role="radio"
          :aria-checked="corner === one"
          :icon="icons[one]"
          size="small"
          :label="t(`graphics.corners.${one}`)"
          :is-on="corner === one"
          @click="move(graphic, layer, one)"
        />
      </span>
    </div>
  </fieldset>
</template>
