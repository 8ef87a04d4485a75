<script setup lang="ts">
// Everywhere this input is used, or only in one place.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import ChoiceBar from '../base/ChoiceBar.vue'
import SelectMenu from '../base/SelectMenu.vue'
import { useBenchStore } from './bench.store.ts'
import type { Place } from './use-places.ts'

const props = defineProps<{ places: readonly Place[] }>()
const { t } = useI18n()
const bench = useBenchStore()
const scope = computed<'everywhere' | 'here'>(() => (bench.layer === null ? 'everywhere' : 'here'))
const choices = computed(() => [
  { value: 'everywhere' as const, label: t('bench.everywhere') },
  { value: 'here' as const, label: t('bench.hereOnly') },
])

function choose(next: 'everywhere' | 'here'): void {
  const place = props.places[0]
  bench.layer = next === 'everywhere' || place === undefined ? null : { sceneId: place.sceneId, layerId: place.layerId }
}

function chooseLayer(layerId: string): void {
  const place = props.places.find((candidate) => candidate.layerId === layerId)
  if (place !== undefined) bench.layer = { sceneId: place.sceneId, layerId: place.layerId }
}
</script>

<template>
  <div class="mb-2.5">
    <div class="flex items-center gap-2">
      <ChoiceBar :model-value="scope" :label="t('bench.scope')" :choices="choices" :disabled="places.length === 0" @update:model-value="choose" />
      <SelectMenu
        v-if="bench.layer"
        class="flex-1"
        :model-value="bench.layer.layerId"
        :label="t('bench.where')"
        :options="places.map((place) => ({ value: place.layerId, label: place.name }))"
        @update:model-value="chooseLayer"
      />
    </div>
    <p class="mt-1 text-[12px] text-soft">{{ bench.layer ? t('bench.hereHint') : t('bench.everywhereHint') }}</p>
  </div>
</template>
