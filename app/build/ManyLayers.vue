<script setup lang="ts">
// What can be done with several layers at once.
import { Eye, EyeOff, ListOrdered, Lock, LockOpen } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Appearance } from '../../core/motion/appearance.ts'
import { namedEasings } from '../../core/motion/easing.ts'
import { bringInOneByOne, updateLayers } from '../../core/show/layer-set-edits.ts'
import { setVisible } from '../../core/show/visibility.ts'
import type { Layer } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import IconButton from '../base/IconButton.vue'
import SliderRow from '../base/SliderRow.vue'
import { useCommands } from '../commands/use-commands.ts'
import { useShowStore } from '../show/show.store.ts'
import AlignRow from './AlignRow.vue'
import InspectorSection from './InspectorSection.vue'
import LayerNames from './LayerNames.vue'
import { playOnStage } from './stage/stage-cue.ts'

const props = defineProps<{ layers: readonly Layer[] }>()
const { t } = useI18n()
const showStore = useShowStore()
const { commands, run } = useCommands()
const buttons = ['groupLayers', 'duplicateOwn', 'removeLayers'] as const
const ids = computed(() => props.layers.map(({ id }) => id))
const gapSeconds = ref(0.2)
const NEW: Appearance = { kind: 'fade', durationMs: 400, delayMs: 0, easing: namedEasings.easeOut, side: 'left' }

/** From top to bottom, each a little after the one before. */
function bringIn(seconds: number): void {
  const { sceneId } = showStore
  if (sceneId === null) return
  gapSeconds.value = seconds
  const label = t('edits.motion', { name: name.value })
  const isMade = showStore.edit(label, (show) => bringInOneByOne(show, sceneId, ids.value, seconds * 1000, NEW), `one-by-one-${ids.value.join()}`)
  if (isMade && showStore.scene !== null) playOnStage(showStore.scene)
}
const name = computed(() => t('layer.many', props.layers.length))
const isSomeVisible = computed(() => props.layers.some(({ visible }) => visible))
const isSomeLocked = computed(() => props.layers.some(({ locked }) => locked))

function toggleVisible(): void {
  const { sceneId } = showStore
  const visible = !isSomeVisible.value
  if (sceneId !== null) showStore.edit(t('edits.showLayer', { name: name.value }), (show) => setVisible(show, sceneId, ids.value, visible))
}

function setLocked(locked: boolean): void {
  const { sceneId } = showStore
  if (sceneId !== null)
    showStore.edit(t('edits.lockLayer', { name: name.value }), (show) => updateLayers(show, sceneId, ids.value, (layer) => ({ ...layer, locked })))
}
</script>

<template>
  <div class="flex items-center gap-0.5">
    <h2 dir="auto" class="min-w-0 flex-1 truncate font-head text-[15px] font-bold">{{ name }}</h2>
    <IconButton :icon="isSomeVisible ? Eye : EyeOff" size="small" :label="isSomeVisible ? t('layer.hide') : t('layer.show')" @click="toggleVisible" />
    <IconButton
      :icon="isSomeLocked ? Lock : LockOpen"
      size="small"
      :label="isSomeLocked ? t('layer.unlock') : t('layer.lock')"
      :is-on="isSomeLocked"
      @click="setLocked(!isSomeLocked)"
    />
  </div>
  <p class="text-soft">{{ t('layer.manyHint') }}</p>
  <AlignRow class="mt-2" />
  <LayerNames class="my-2 border-y border-line py-1.5" :layers="layers" @choose="(id) => showStore.selectLayer(id)" />
  <div class="flex flex-wrap gap-1.5">
    <BaseButton
      v-for="id in buttons"
      :key="id"
      :icon="commands[id].icon"
      :disabled="commands[id].whyNot !== null"
      :title="commands[id].whyNot ?? undefined"
      @click="run(id)"
    >
      {{ id === 'removeLayers' ? t('layer.removeMany') : t(`commands.does.${id}`) }}
    </BaseButton>
  </div>
  <InspectorSection name="oneByOne" :title="t('inspector.motion')">
    <p class="mb-2 text-[12.5px] leading-snug text-soft">{{ t('inspector.oneByOneHint') }}</p>
    <SliderRow
      :model-value="gapSeconds"
      :label="t('inspector.oneByOneGap')"
      :min="0"
      :max="2"
      :step="0.05"
      :usual="0.2"
      unit="s"
      @update:model-value="bringIn"
    />
    <BaseButton class="mt-1.5" :icon="ListOrdered" @click="bringIn(gapSeconds)">{{ t('inspector.oneByOne') }}</BaseButton>
  </InspectorSection>
</template>
