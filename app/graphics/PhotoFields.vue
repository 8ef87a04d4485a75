<script setup lang="ts">
// The photo of a graphic: shown or left out, and of whom. Without it the rest moves up.
import { useI18n } from 'vue-i18n'
import { setPhoto } from '../../core/graphics/photo.ts'
import type { Input, Layer, Scene } from '../../core/show/show.ts'
import { setVisible } from '../../core/show/visibility.ts'
import ToggleSwitch from '../base/ToggleSwitch.vue'
import { useShowStore } from '../show/show.store.ts'
import PictureFields from './PictureFields.vue'

const props = defineProps<{ graphic: Scene; layer: Layer }>()
const { t } = useI18n()
const showStore = useShowStore()

function show(isShown: boolean): void {
  showStore.edit(t('edits.photo'), (now) => setVisible(now, props.graphic.id, [props.layer.id], isShown))
}

function choose(input: Input): void {
  showStore.edit(t('edits.photo'), (now) => setPhoto(now, props.graphic.id, props.layer.id, input))
}
</script>

<template>
  <fieldset :disabled="graphic.locked" class="m-0 mt-3 grid min-w-0 gap-2 border-0 p-0">
    <div class="flex items-center justify-between gap-2">
      <span>{{ t('graphics.parts.photo') }}</span>
      <ToggleSwitch :model-value="layer.visible" :label="t('graphics.parts.photo')" @update:model-value="show" />
    </div>
    <PictureFields v-if="layer.visible" :layer="layer" with-cameras @choose="choose" />
  </fieldset>
</template>
