<script setup lang="ts">
// What is done with the scene on the stage as a whole.
import { ChevronDown, Radio, TvMinimal, Eye, EyeOff, ZoomIn } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import ActionMenu, { type MenuAction } from '../../base/ActionMenu.vue'
import BaseButton from '../../base/BaseButton.vue'
import IconButton from '../../base/IconButton.vue'
import { useAirStore } from '../../air/air.store.ts'
import { useCommands } from '../../commands/use-commands.ts'
import { useDecksStore } from '../../decks/decks.store.ts'
import { useShowStore } from '../../show/show.store.ts'
import CanvasMenu from './CanvasMenu.vue'
import { useSafeLines } from './use-safe-lines.ts'
import { useStageView } from './use-stage-view.ts'

const { t } = useI18n()
const showStore = useShowStore()
const air = useAirStore()
const decks = useDecksStore()
const { run } = useCommands()
const { isAsked, toggle } = useSafeLines()
const { nearness, look } = useStageView()

const isOnAir = computed(() => air.onAirId !== null && air.onAirId === showStore.sceneId)
const isFirst = computed(() => showStore.sceneId === showStore.onAirId)
const nearWords = computed(() => (nearness.value === 1 ? t('build.nearAll') : `${Math.round(nearness.value * 100)} %`))
const isShown = computed(() => showStore.sceneId !== null && air.graphics.shownIds.has(showStore.sceneId))
const nearActions = computed<MenuAction[]>(() => [
  { label: t('build.nearAll'), detail: t('build.nearHint'), run: () => look(1) },
  ...[1.5, 2, 4, 8].map((times) => ({ label: `${times * 100} %`, run: () => look(times) })),
])
</script>

<template>
  <BaseButton
    v-if="showStore.scene?.graphic"
    class="h-7 py-0!"
    :icon="isShown ? EyeOff : Eye"
    :title="t('graphics.over')"
    data-testid="show-graphic"
    @click="air.graphics.toggle(showStore.scene.id)"
  >
    {{ isShown ? t('graphics.hideNow') : t('graphics.showNow') }}
  </BaseButton>
  <span v-else-if="isOnAir && air.showsCard" class="min-w-0 truncate px-1 font-medium text-soft" :title="t('build.isBehindCard')">{{
    t('build.isBehindCard')
  }}</span>
  <span v-else-if="isOnAir" class="min-w-0 truncate px-1 font-medium text-tally" :title="t('build.isOnAir')">{{ t('build.isOnAir') }}</span>
  <BaseButton v-else-if="air.isFeedOn && showStore.sceneId" class="h-7 py-0!" :icon="Radio" @click="air.takeOnAir(showStore.sceneId)">
    {{ t('build.putOnAir') }}
  </BaseButton>
  <BaseButton
    v-else-if="!isFirst && showStore.sceneId"
    kind="quiet"
    class="h-7 px-2! py-0!"
    :icon="Radio"
    :title="t('build.firstHint')"
    @click="air.takeOnAir(showStore.sceneId)"
  >
    {{ t('build.makeFirst') }}
  </BaseButton>
  <CanvasMenu :class="decks.current === null ? 'max-[1279px]:hidden' : 'max-[1500px]:hidden'" />
  <ActionMenu :actions="nearActions" :label="t('build.near', { how: nearWords })" align="right">
    <span
      class="inline-flex h-7 items-center gap-1 rounded-md px-1.5 font-num text-[11.5px] whitespace-nowrap text-soft tabular-nums hover:bg-sunk hover:text-ink"
    >
      {{ nearWords }}<ChevronDown :size="12" aria-hidden="true" />
    </span>
  </ActionMenu>
  <IconButton
    v-if="isOnAir"
    :icon="ZoomIn"
    class="size-7!"
    :label="t('air.lookCloser')"
    :is-on="air.focus.now !== null || air.focus.isAiming"
    @click="run('lookCloser')"
  />
  <IconButton :icon="TvMinimal" class="size-7!" :label="t('build.safe')" :is-on="isAsked" @click="toggle" />
</template>
