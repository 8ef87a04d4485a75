<script setup lang="ts">
// Everywhere this input is used, or only in one place.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import ChoiceBar from '../base/ChoiceBar.vue'
import SelectMenu from '../base/SelectMenu.vue'
import { useBenchStore } from './bench.store.ts'
import type { Place } from './use-places.ts'

const props = defineProps<{
  places: readonly Place[]
  /** The place that "only here" means at first: where the presenter comes from. */
  preferred: Place | null
}>()
const { t } = useI18n()
const bench = useBenchStore()

const scope = computed<'everywhere' | 'here'>(() => (bench.layer === null ? 'everywhere' : 'here'))
const place = computed(() => props.places.find((candidate) => candidate.layerId === bench.layer?.layerId) ?? props.preferred)
const choices = computed(() => [
  { value: 'everywhere' as const, label: t('bench.everywhere') },
  { value: 'here' as const, label: place.value === null ? t('bench.hereNowhere') : t('bench.hereOnly', { place: place.value.name }) },
])

function choose(next: 'everywhere' | 'here'): void {
  bench.layer = next === 'everywhere' || place.value === null ? null : { sceneId: place.value.sceneId, layerId: place.value.layerId }
}

function chooseLayer(layerId: string): void {
  const chosen = props.places.find((candidate) => candidate.layerId === layerId)
  if (chosen !== undefined) bench.layer = { sceneId: chosen.sceneId, layerId: chosen.layerId }
}
</script>

<template>
  <div class="mb-2">
    <ChoiceBar class="flex!" :model-value="scope" :label="t('bench.scope')" :choices="choices" :disabled="places.length === 0" @update:model-value="choose" />
    <SelectMenu
      v-if="bench.layer && places.length > 1"
      class="mt-1.5"
      :model-value="bench.layer.layerId"
      :label="t('bench.where')"
      :options="places.map((one) => ({ value: one.layerId, label: one.name }))"
      @update:model-value="chooseLayer"
    />
    <p class="mt-1 text-[12px] text-soft">{{ bench.layer ? t('bench.hereHint') : t('bench.everywhereHint') }}</p>
  </div>
</template>
