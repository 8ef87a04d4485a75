<script setup lang="ts">
// How a layer comes when its scene does, and goes with it.
import { Play } from 'lucide-vue-next'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { isText } from '../../core/layers/text.ts'
import { appearanceKinds, sides, type Appearance, type AppearanceKind } from '../../core/motion/appearance.ts'
import { namedEasings } from '../../core/motion/easing.ts'
import { updateLayer } from '../../core/show/edits.ts'
import type { Layer } from '../../core/show/show.ts'
import IconButton from '../base/IconButton.vue'
import SelectMenu from '../base/SelectMenu.vue'
import SelectRow from '../base/rows/SelectRow.vue'
import SliderRow from '../base/SliderRow.vue'
import { useShowStore } from '../show/show.store.ts'
import InspectorSection from './InspectorSection.vue'
import { holdOnStage, longestMs, playOnStage } from './stage/stage-cue.ts'
import { paceOf, usePaces } from './use-paces.ts'

const props = defineProps<{ layer: Layer }>()
const { t } = useI18n()
const showStore = useShowStore()
const { optionsFor, easingOf } = usePaces()
const NEW: Appearance = { kind: 'fade', durationMs: 500, delayMs: 0, easing: namedEasings.easeOut, side: 'left' }
/** How far the sliders go, in seconds; a file may hold more. */
const MOST_SECONDS = 5

type Way = 'entrance' | 'exit'
const cueOf = { entrance: 'enter', exit: 'leave' } as const
const ways = computed(() =>
  (['entrance', 'exit'] as const).map((way) => ({
    way,
    now: props.layer[way],
    seconds: showStore.scene === null ? 0 : longestMs(showStore.scene, cueOf[way]) / 1000,
  })),
)
/** The moment that the stage holds, of one way; null while it rests or plays. */
const held = ref<{ readonly way: Way; readonly seconds: number } | null>(null)
watch(
  () => props.layer.id,
  () => rest(),
)

const kinds = computed(() =>
  (['none', ...appearanceKinds] as const)
    .filter((kind) => kind !== 'typed' || isText(props.layer))
    .map((value) => ({ value, label: t(`inspector.motions.${value}`) })),
)
const sideOptions = computed(() => sides.map((value) => ({ value, label: t(`inspector.motionSides.${value}`) })))
const hasSide = ({ kind }: Appearance) => kind === 'slide' || kind === 'wipe'

function set(way: Way, next: Appearance | null, key: string | null = null): void {
  const { sceneId } = showStore
  if (sceneId === null) return
  const isMade = showStore.edit(
    t('edits.motion', { name: props.layer.name }),
    (show) => updateLayer(show, sceneId, props.layer.id, (layer) => ({ ...layer, [way]: next })),
    key === null ? null : `${way}-${key}-${props.layer.id}`,
  )
  if (isMade && next !== null) play(way)
}

function play(way: Way): void {
  held.value = null
  if (showStore.scene !== null) playOnStage(showStore.scene, cueOf[way])
}

function hold(way: Way, seconds: number): void {
  held.value = { way, seconds }
  if (showStore.scene !== null) holdOnStage(showStore.scene, cueOf[way], seconds * 1000)
}

function rest(): void {
  if (held.value === null || showStore.scene === null) return
  holdOnStage(showStore.scene, cueOf[held.value.way], null)
  held.value = null
}

function setKind(way: Way, kind: AppearanceKind | 'none'): void {
  set(way, kind === 'none' ? null : { ...(props.layer[way] ?? NEW), kind })
}
</script>

<template>
  <InspectorSection name="motion" :title="t('inspector.motion')">
    <div v-for="{ way, now, seconds } in ways" :key="way" class="mb-2 grid gap-1">
      <div class="flex items-center gap-1">
        <span class="min-w-0 flex-1">{{ t(`inspector.${way}`) }}</span>
        <IconButton
          :icon="Play"
          size="small"
          :label="way === 'entrance' ? t('inspector.playEntrance') : t('inspector.playExit')"
          :disabled="seconds === 0"
          @click="play(way)"
        />
        <SelectMenu
          class="w-32"
          :model-value="now?.kind ?? 'none'"
          :label="t(`inspector.${way}`)"
          :options="kinds"
          @update:model-value="setKind(way, $event)"
        />
      </div>
      <template v-if="now">
        <SelectRow
          v-if="hasSide(now)"
          :model-value="now.side"
          :label="t('inspector.motionSide')"
          :options="sideOptions"
          @update:model-value="set(way, { ...now, side: $event })"
        />
        <SliderRow
          :model-value="now.durationMs / 1000"
          :label="t('inspector.motionTime')"
          :min="0"
          :max="MOST_SECONDS"
          :step="0.05"
          :usual="NEW.durationMs / 1000"
          unit="s"
          @update:model-value="set(way, { ...now, durationMs: Math.round($event * 1000) }, 'time')"
        />
        <SliderRow
          :model-value="now.delayMs / 1000"
          :label="t('inspector.motionDelay')"
          :min="0"
          :max="MOST_SECONDS"
          :step="0.05"
          :usual="0"
          unit="s"
          @update:model-value="set(way, { ...now, delayMs: Math.round($event * 1000) }, 'delay')"
        />
        <SelectRow
          :model-value="paceOf(now.easing)"
          :label="t('inspector.motionPace')"
          :options="optionsFor(now.easing)"
          @update:model-value="set(way, { ...now, easing: easingOf($event, now.easing) })"
        />
      </template>
      <SliderRow
        v-if="seconds > 0"
        :model-value="held?.way === way ? held.seconds : way === 'entrance' ? seconds : 0"
        :label="way === 'entrance' ? t('inspector.firstSeconds') : t('inspector.lastSeconds')"
        :min="0"
        :max="seconds"
        :step="0.05"
        unit="s"
        @update:model-value="hold(way, $event)"
        @focusout="rest"
        @pointerup="rest"
      />
    </div>
  </InspectorSection>
</template>
