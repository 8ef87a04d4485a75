<script setup lang="ts">
// The colours and typefaces of the show: every graphic follows them.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { styleColours, styleFaces } from '../../core/style/style-names.ts'
import { textFamilies } from '../../core/text/text-content.ts'
import ColourField from '../base/ColourField.vue'
import SelectMenu from '../base/SelectMenu.vue'
import { useShowStore } from '../show/show.store.ts'
import PaletteFields from './PaletteFields.vue'
import { useGraphics } from './use-graphics.ts'

const { t } = useI18n()
const showStore = useShowStore()
const { style } = useGraphics()
const now = computed(() => showStore.show!.style)
const families = textFamilies.map((family) => ({ value: family, label: family }))
</script>

<template>
  <div class="grid gap-2">
    <PaletteFields />
    <div v-for="name in styleColours" :key="name" class="flex items-center justify-between gap-2">
      <span class="min-w-0">{{ t(`graphics.colours.${name}`) }}</span>
      <ColourField :model-value="now.colours[name]" :label="t(`graphics.colours.${name}`)" @update:model-value="style({ colours: { [name]: $event } })" />
    </div>
    <div v-for="name in styleFaces" :key="name" class="min-w-0">
      <p class="mb-1">{{ t(`graphics.faces.${name}`) }}</p>
      <SelectMenu
        :model-value="now.faces[name]"
        :label="t(`graphics.faces.${name}`)"
        :options="families"
        @update:model-value="style({ faces: { [name]: $event } })"
      />
    </div>
  </div>
</template>
