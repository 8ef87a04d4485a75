<script setup lang="ts">
// Playing a clip, and which part of it, how fast and how often.
import { isFailure } from '../../../../engine/live/live-state.ts'
import { isClip } from '../../../../core/inputs/clip.ts'
import { updateInputOf } from '../../../../core/show/edits.ts'
import { Pause, Play, RotateCcw, TriangleAlert } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { decimals, figure } from '../../../base/decimals.ts'
import { RANGES } from '../../../../core/schema/limits.ts'
import type { ClipInput } from '../../../../core/show/show.ts'
import NumberCell from '../../../base/rows/NumberCell.vue'
import BaseButton from '../../../base/BaseButton.vue'
import IconButton from '../../../base/IconButton.vue'
import ToggleSwitch from '../../../base/ToggleSwitch.vue'
import { useInputsStore } from '../../../inputs/inputs.store.ts'
import { useShowStore } from '../../../show/show.store.ts'
import InspectorSection from '../../../build/InspectorSection.vue'
import { useSmallerCopy } from './use-smaller-copy.ts'

const props = defineProps<{ input: ClipInput }>()
const { t } = useI18n()
const showStore = useShowStore()
const inputs = useInputsStore()
const report = computed(() => inputs.clipReports[props.input.id])
const hasFailed = computed(() => isFailure(inputs.statusOf(props.input.id)))
const isPlaying = computed(() => inputs.statusOf(props.input.id) === 'live')
const seconds = (us: number) => us / 1e6
const lengthS = computed(() => seconds(report.value?.durationUs ?? 0))
const { isHeavy, progress, make, cancel } = useSmallerCopy(() => props.input)
const place = computed(() => {
  const { mediaUs = 0, durationUs = 0 } = report.value ?? {}
  return {
    share: durationUs === 0 ? 0 : mediaUs / durationUs,
    words: t('clips.place', { at: decimals(seconds(mediaUs), 1), of: decimals(seconds(durationUs), 1) }),
  }
})

function set(part: Partial<Pick<ClipInput, 'fromMs' | 'toMs' | 'rate' | 'loops'>>): void {
  showStore.edit(
    t('edits.clip', { name: props.input.name }),
    (show) => updateInputOf(show, props.input.id, isClip, (input) => ({ ...input, ...part })),
    `clip-${props.input.id}-${Object.keys(part).join()}`,
  )
}

/** The end comes after the beginning, by a tenth of a second at least. */
function setFrom(value: number): void {
  const end = props.input.toMs ?? Math.round(lengthS.value * 1000)
  set({ fromMs: Math.max(0, Math.min(Math.round(value * 1000), end - 100)) })
}

function setTo(value: number): void {
  const ms = Math.max(props.input.fromMs + 100, Math.round(value * 1000))
  set({ toMs: ms >= Math.round(lengthS.value * 1000) ? null : ms })
}
</script>

<template>
  <InspectorSection name="clip" :title="t('clips.title')">
    <p v-if="hasFailed" role="alert" class="mb-2 flex gap-2 rounded-md bg-wash px-2.5 py-2 leading-snug">
      <TriangleAlert :size="15" class="mt-0.5 shrink-0 text-brass" aria-hidden="true" />
      <span>{{ t('clips.failed', { reason: inputs.detailOf(input.id) }) }}</span>
    </p>
    <p v-else-if="report?.damage" role="status" class="mb-2 flex gap-2 rounded-md bg-wash px-2.5 py-2 leading-snug">
      <TriangleAlert :size="15" class="mt-0.5 shrink-0 text-brass" aria-hidden="true" />
      <span>{{ t('clips.damaged', { at: decimals(seconds(report.damage.fromUs), 1), reason: report.damage.reason }) }}</span>
    </p>
    <div class="flex items-center gap-1">
      <IconButton
        :icon="isPlaying ? Pause : Play"
        size="small"
        :label="isPlaying ? t('clips.pause') : t('clips.play')"
        @click="isPlaying ? inputs.pauseClip(input.id) : inputs.playClip(input.id)"
      />
      <IconButton :icon="RotateCcw" size="small" :label="t('clips.restart')" @click="inputs.restartClip(input.id)" />
      <div class="mx-1 h-1 min-w-0 flex-1 overflow-hidden rounded bg-line"><div class="h-full bg-green" :style="{ width: `${place.share * 100}%` }"></div></div>
      <span class="font-num text-[11px] whitespace-nowrap text-soft tabular-nums" data-testid="clip-place">{{ place.words }}</span>
    </div>
    <p class="mt-2 flex items-center gap-2">
      <ToggleSwitch :model-value="input.loops" :label="t('clips.loops')" @update:model-value="set({ loops: $event })" />
      <span>{{ t('clips.loops') }}</span>
    </p>
    <div class="mt-2 grid grid-cols-3 gap-1.5">
      <NumberCell
        :model-value="input.fromMs / 1000"
        :label="t('clips.from')"
        :range="{ min: 0, max: Math.max(0.1, lengthS) }"
        :step="0.1"
        unit="s"
        @update:model-value="setFrom"
      />
      <NumberCell
        :model-value="Math.round((input.toMs ?? lengthS * 1000) / 10) / 100"
        :label="t('clips.to')"
        :range="{ min: 0.1, max: Math.max(0.1, Math.round(lengthS * 100) / 100) }"
        :step="0.1"
        unit="s"
        @update:model-value="setTo"
      />
      <NumberCell
        :model-value="input.rate"
        :label="t('clips.rate')"
        :range="RANGES.clipRate"
        :step="0.05"
        unit="×"
        @update:model-value="set({ rate: $event })"
      />
    </div>
    <div v-if="isHeavy || progress !== null" class="mt-2 rounded-md bg-wash px-2.5 py-2 leading-snug">
      <template v-if="progress === null">
        <p>{{ t('clips.heavy', { size: figure(`${report?.widthPx}×${report?.heightPx}`) }) }}</p>
        <BaseButton class="mt-1.5" @click="make">{{ t('clips.makeSmaller') }}</BaseButton>
      </template>
      <div v-else class="flex items-center gap-2" role="status">
        <div
          class="h-1.5 flex-1 overflow-hidden rounded bg-line"
          role="progressbar"
          :aria-label="t('clips.making')"
          :aria-valuenow="Math.round(progress * 100)"
        >
          <div class="h-full bg-green" :style="{ width: `${progress * 100}%` }"></div>
        </div>
        <BaseButton kind="quiet" @click="cancel">{{ t('clips.cancel') }}</BaseButton>
      </div>
    </div>
  </InspectorSection>
</template>
