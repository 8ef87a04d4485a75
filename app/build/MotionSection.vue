<script setup lang="ts">
// How a layer comes when its scene does, and goes with it.
import { Play } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { isText } from '../../core/layers/text.ts'
import { appearanceKinds, sides, type Appearance, type AppearanceKind } from '../../core/motion/appearance.ts'
import { namedEasings } from '../../core/motion/easing.ts'
import { updateLayer } from '../../core/show/edits.ts'
import type { Layer } from '../../core/show/show.ts'
import IconButton from '../base/IconButton.vue'
import SelectRow from '../base/rows/SelectRow.vue'
import SliderRow from '../base/SliderRow.vue'
import { useShowStore } from '../show/show.store.ts'
import InspectorSection from './InspectorSection.vue'
import { playOnStage } from './stage/stage-cue.ts'

const props = defineProps<{ layer: Layer }>()
const { t } = useI18n()
const showStore = useShowStore()
const NEW: Appearance = { kind: 'fade', durationMs: 500, delayMs: 0, easing: namedEasings.easeOut, side: 'left' }
/** How far the sliders go, in seconds; a file may hold more. */
const MOST_SECONDS = 5

type Pace = keyof typeof namedEasings | 'own'
const paceNames = Object.keys(namedEasings) as (keyof typeof namedEasings)[]
const paceOf = ({ easing }: Appearance): Pace => paceNames.find((name) => JSON.stringify(namedEasings[name]) === JSON.stringify(easing)) ?? 'own'

const ways = computed(() => (['entrance', 'exit'] as const).map((way) => ({ way, now: props.layer[way] })))
const kinds = computed(() =>
  (['none', ...appearanceKinds] as const)
    .filter((kind) => kind !== 'typed' || isText(props.layer))
    .map((value) => ({ value, label: t(`inspector.motions.${value}`) })),
)
const sideOptions = computed(() => sides.map((value) => ({ value, label: t(`inspector.motionSides.${value}`) })))
const pacesFor = (now: Appearance) => [
  ...paceNames.map((value) => ({ value: value as Pace, label: t(`inspector.paces.${value}`) })),
  ...(paceOf(now) === 'own' ? [{ value: 'own' as Pace, label: t('inspector.ownPace') }] : []),
]
const hasSide = ({ kind }: Appearance) => kind === 'slide' || kind === 'wipe'

function set(way: 'entrance' | 'exit', next: Appearance | null, key: string | null = null): void {
  const { sceneId } = showStore
  if (sceneId === null) return
  const isMade = showStore.edit(
    t('edits.motion', { name: props.layer.name }),
    (show) => updateLayer(show, sceneId, props.layer.id, (layer) => ({ ...layer, [way]: next })),
    key === null ? null : `${way}-${key}-${props.layer.id}`,
  )
  if (isMade && way === 'entrance' && next !== null) play()
}

function play(): void {
  if (showStore.scene !== null) playOnStage(showStore.scene)
}

function setKind(way: 'entrance' | 'exit', kind: AppearanceKind | 'none'): void {
  set(way, kind === 'none' ? null : { ...(props.layer[way] ?? NEW), kind })
}

function setPace(way: 'entrance' | 'exit', now: Appearance, pace: Pace): void {
  if (pace !== 'own') set(way, { ...now, easing: namedEasings[pace] })
}
</script>

<template>
  <InspectorSection name="motion" :title="t('inspector.motion')">
    <template #aside>
      <IconButton :icon="Play" size="small" :label="t('inspector.playMotion')" :disabled="layer.entrance === null" @click="play" />
    </template>
    <div v-for="{ way, now } in ways" :key="way" class="mb-2 grid gap-1">
      <SelectRow :model-value="now?.kind ?? 'none'" :label="t(`inspector.${way}`)" :options="kinds" @update:model-value="setKind(way, $event)" />
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
        <SelectRow :model-value="paceOf(now)" :label="t('inspector.motionPace')" :options="pacesFor(now)" @update:model-value="setPace(way, now, $event)" />
      </template>
    </div>
  </InspectorSection>
</template>
