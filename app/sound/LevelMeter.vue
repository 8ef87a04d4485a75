<script setup lang="ts">
// How loud the voice is: two bars from −60 dBFS to full scale, the highest mark held, a sign when full scale was reached.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { METER_FLOOR_DB, type MeterReading } from '../../core/sound/loudness.ts'
import { useVoiceStore } from './voice.store.ts'

defineProps<{ isLarge?: boolean }>()
const { t } = useI18n()
const voice = useVoiceStore()
/** Marks of the scale: quiet, where a voice should be, where it is too loud (common practice, no source). */
const MARKS = [-48, -36, -24, -18, -12, -6, 0]

const share = (db: number) => Math.max(0, Math.min(1, 1 - db / METER_FLOOR_DB))
const bars = computed(() => (voice.level === null ? [] : [voice.level.left, voice.level.right]))
const loudest = computed(() => Math.max(METER_FLOOR_DB, ...bars.value.map(({ db }) => db)))
const hasClipped = computed(() => bars.value.some((bar) => bar.hasClipped))
const reading = computed(() => (bars.value.length === 0 || loudest.value <= METER_FLOOR_DB ? '–' : loudest.value.toFixed(0).replace('-', '−')))
const styleOf = (bar: MeterReading) => ({ '--level': share(bar.db), '--held': share(bar.heldDb) })
</script>

<template>
  <div dir="ltr" class="meter" :class="[isLarge ? 'large' : 'small', voice.isMuted ? 'muted' : '']">
    <!-- Only the bars are the meter: what is in one is not reached by a screen reader. -->
    <div
      class="bars"
      role="meter"
      :aria-label="t('voice.level')"
      :aria-valuemin="METER_FLOOR_DB"
      aria-valuemax="0"
      :aria-valuenow="Math.round(loudest)"
      :aria-valuetext="t('voice.levelText', { db: reading })"
    >
      <div v-for="(bar, index) in bars" :key="index" class="bar" :style="styleOf(bar)"><i></i><b></b></div>
      <div v-if="bars.length === 0" class="bar" :style="{ '--level': 0, '--held': 0 }"></div>
    </div>
    <div v-if="isLarge" class="scale" aria-hidden="true">
      <span v-for="mark in MARKS" :key="mark" :style="{ left: `${share(mark) * 100}%` }">{{ String(mark).replace('-', '−') }}</span>
    </div>
    <p v-if="isLarge" class="mt-5 flex items-center gap-3">
      <span class="font-num text-[20px] tabular-nums">{{ reading }}<span class="ms-1 text-[12px] text-soft">dBFS</span></span>
      <button v-if="hasClipped" type="button" class="rounded-md bg-wash px-2 py-0.5 font-semibold text-brass" @click="voice.clearClipping()">
        {{ t('voice.clipped') }}
      </button>
      <span v-else class="text-soft">{{ t('voice.aim') }}</span>
    </p>
    <span v-else-if="hasClipped" class="size-2 rounded-[2px] bg-brass" :title="t('voice.clipped')"></span>
  </div>
</template>

<style scoped>
.meter {
  min-width: 0;
}
.small {
  display: flex;
  align-items: center;
  gap: 4px;
}
.small .bars {
  width: 52px;
}
.bars {
  display: grid;
  gap: 2px;
}
.bar {
  position: relative;
  height: 5px;
  border-radius: 2px;
  background: var(--line);
  overflow: hidden;
}
.large .bar {
  height: 14px;
  border-radius: 3px;
}
.bar i {
  position: absolute;
  inset: 0;
  /* Where a voice should be is green; from −6 dBFS on it is too near to full scale. */
  background: linear-gradient(90deg, var(--green) 90%, var(--brass) 90%);
  clip-path: inset(0 calc(100% - var(--level) * 100%) 0 0);
}
.bar b {
  position: absolute;
  top: 0;
  bottom: 0;
  left: calc(var(--held) * 100% - 2px);
  width: 2px;
  background: var(--ink);
}
.muted .bar i {
  background: var(--soft);
}
.scale {
  position: relative;
  height: 0;
  font: 10.5px var(--font-num);
  color: var(--soft);
}
.scale span {
  position: absolute;
  top: 3px;
  transform: translateX(-50%);
}
.scale span:last-child {
  transform: translateX(-100%);
}
</style>
