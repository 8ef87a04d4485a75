<script setup lang="ts">
// Where a presenter begins: camera, microphone and the way into a meeting, each with its state in words.
import { isCamera } from '../../core/inputs/camera.ts'
import { Camera, Sparkles } from 'lucide-vue-next'
import { computed, onBeforeUnmount, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import BaseButton from '../base/BaseButton.vue'
import { useAirStore } from '../air/air.store.ts'
import { useInputsStore } from '../inputs/inputs.store.ts'
import { useOpenShow } from '../show/use-open-show.ts'
import { useShowStore } from '../show/show.store.ts'
import CameraPanel from './CameraPanel.vue'
import MeetingPanel from './MeetingPanel.vue'
import MicrophonePanel from './MicrophonePanel.vue'
import OutputsPanel from '../outputs/OutputsPanel.vue'
import TheySeePanel from './TheySeePanel.vue'
import { useRealDevices } from './use-real-devices.ts'

const props = defineProps<{ showId: string }>()
const { t } = useI18n()
const showStore = useShowStore()
const air = useAirStore()
const inputs = useInputsStore()
useOpenShow(() => props.showId)
const { asked, canAsk, usesStandin, use } = useRealDevices()
const cameras = computed(() => (showStore.show?.inputs ?? []).filter(isCamera))
watch(
  () => cameras.value.map(({ id }) => id).join(' '),
  () => inputs.lookAt(cameras.value.map(({ id }) => id)),
  { immediate: true },
)
onBeforeUnmount(() => inputs.lookAt([]))
const lead = computed(() => {
  if (asked.value === 'asking') return t('devices.asking')
  if (asked.value === 'refused') return t('devices.refused')
  if (asked.value === 'none') return t('devices.noneFound')
  if (usesStandin.value) return canAsk.value ? t('devices.standinsNow') : t('devices.standinsOnly')
  return air.isFeedOn ? t('devices.ownOnAir') : t('devices.ownNow')
})
</script>

<template>
  <main v-if="showStore.show" tabindex="-1" class="devices">
    <div class="lead">
      <h1 class="font-head text-[22px] font-bold tracking-tight">{{ t('devices.title') }}</h1>
      <p class="max-w-[62ch] text-[14px] text-soft" role="status">{{ lead }}</p>
      <BaseButton v-if="canAsk" kind="primary" :icon="Sparkles" :disabled="asked === 'asking'" @click="use">{{ t('devices.useOwn') }}</BaseButton>
    </div>
    <section class="panel" :aria-label="t('devices.cameras')">
      <h2 class="head"><span class="number" aria-hidden="true">1</span>{{ t('devices.cameras') }}</h2>
      <CameraPanel v-for="camera in cameras" :key="camera.id" :input="camera" />
      <p v-if="cameras.length === 0" class="flex items-center gap-2 text-soft"><Camera :size="16" aria-hidden="true" />{{ t('devices.noCamera') }}</p>
    </section>
    <section class="panel" :aria-label="t('devices.voice')">
      <h2 class="head"><span class="number" aria-hidden="true">2</span>{{ t('devices.voice') }}</h2>
      <MicrophonePanel :microphone="showStore.show.microphone" />
    </section>
    <section class="panel below-notices" :aria-label="t('devices.meeting')">
      <h2 class="head"><span class="number" aria-hidden="true">3</span>{{ t('devices.meeting') }}</h2>
      <MeetingPanel />
    </section>
    <section class="wide" :aria-label="t('theySee.title')">
      <h2 class="head">{{ t('theySee.title') }}</h2>
      <TheySeePanel />
    </section>
    <section class="panel out" :aria-label="t('outputs.title')">
      <h2 class="head">{{ t('outputs.title') }}</h2>
      <OutputsPanel />
    </section>
  </main>
  <main v-else tabindex="-1"></main>
</template>

<style scoped>
.devices {
  display: grid;
  min-height: 0;
  overflow-y: auto;
  align-content: start;
  grid-template: 'lead lead lead' auto 'a b c' auto 'see see out' auto / minmax(0, 1.05fr) minmax(0, 1fr) minmax(0, 1.05fr);
  gap: 16px 0;
  padding: 18px 20px 24px;
}
.lead {
  grid-area: lead;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
}
.lead p {
  flex: 1 1 320px;
}
.panel {
  min-width: 0;
  padding: 0 20px;
  border-inline-start: 1px solid var(--line);
}
.panel:first-of-type {
  padding-inline-start: 0;
  border-inline-start: 0;
}
.panel:nth-of-type(3),
.out {
  padding-inline-end: 0;
}
.wide {
  grid-area: see;
  min-width: 0;
  padding-inline-end: 20px;
}
.out {
  grid-area: out;
}
.wide,
.out {
  padding-top: 14px;
  border-top: 1px solid var(--line);
}
.head {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-bottom: 10px;
  font: 700 16px var(--font-head);
}
/* Cards that must be acted on stand over this column, and over the empty end of the line above it. */
.below-notices {
  margin-block-start: max(0px, calc(var(--notice-height, 0px) - 56px));
}
.number {
  display: grid;
  place-items: center;
  width: 22px;
  height: 22px;
  border-radius: 22px;
  border: 1.5px solid var(--brass);
  color: var(--brass);
  font: 600 12px var(--font-num);
}
@media (max-width: 819px), (max-height: 519px) {
  .devices {
    grid-template: none;
    grid-template-columns: minmax(0, 1fr);
    overflow: visible;
    gap: 22px;
  }
  .lead,
  .wide,
  .out {
    grid-area: auto;
  }
  .panel {
    border-inline-start: 0;
    padding: 0;
  }
}
</style>
