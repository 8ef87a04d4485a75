<script setup lang="ts">
// What is done with the scene on the stage as a whole.
import { Radio, TvMinimal } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import BaseButton from '../base/BaseButton.vue'
import IconButton from '../base/IconButton.vue'
import { useEngineStore } from '../engine/engine.store.ts'
import { useShowStore } from '../show/show.store.ts'
import { useSafeLines } from './use-safe-lines.ts'

const { t } = useI18n()
const showStore = useShowStore()
const engine = useEngineStore()
const { isShown, toggle } = useSafeLines()

const isOnAir = computed(() => engine.onAirId !== null && engine.onAirId === showStore.sceneId)
const isFirst = computed(() => showStore.sceneId === showStore.onAirId)
</script>

<template>
  <span v-if="isOnAir" class="min-w-0 truncate px-1 font-medium text-tally" :title="t('build.isOnAir')">{{ t('build.isOnAir') }}</span>
  <BaseButton v-else-if="engine.isFeedOn && showStore.sceneId" class="h-7 py-0!" :icon="Radio" @click="engine.takeOnAir(showStore.sceneId)">
    {{ t('build.putOnAir') }}
  </BaseButton>
  <BaseButton
    v-else-if="!isFirst && showStore.sceneId"
    kind="quiet"
    class="h-7 px-2! py-0!"
    :icon="Radio"
    :title="t('build.firstHint')"
    @click="engine.takeOnAir(showStore.sceneId)"
  >
    {{ t('build.makeFirst') }}
  </BaseButton>
  <span class="ml-1 font-num text-[11.5px] whitespace-nowrap text-soft tabular-nums max-[1279px]:hidden"
    >{{ showStore.show!.canvas.widthPx }}×{{ showStore.show!.canvas.heightPx }} · {{ showStore.show!.canvas.frameRate }}</span
  >
  <IconButton :icon="TvMinimal" class="size-7!" :label="t('build.safe')" :is-on="isShown" @click="toggle" />
</template>
