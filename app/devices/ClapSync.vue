<script setup lang="ts">
// "Clap five times": finds how far the voice is ahead of the picture, and sets the delay.
import { isCamera } from '../../core/inputs/camera.ts'
import { Hand } from 'lucide-vue-next'
import { computed, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { updateMicrophone } from '../../core/show/edits.ts'
import { RANGES, withinRange } from '../../core/schema/limits.ts'
import BaseButton from '../base/BaseButton.vue'
import { useShowStore } from '../show/show.store.ts'
import { CLAPS_WANTED, useClapSync } from '../sound/use-clap-sync.ts'
import { useVoiceStore } from '../sound/voice.store.ts'

const { t } = useI18n()
const showStore = useShowStore()
const voice = useVoiceStore()
const camera = computed(() => showStore.show?.inputs.find(isCamera) ?? null)
const { state, start, cancel } = useClapSync(() => camera.value?.id ?? null)
/** Sound that comes after the picture cannot be brought forward. */
const LATE_MS = 20
/** Claps that differ by more leave a doubt: the time of one picture. */
const SURE_MS = 34

const words = computed(() => {
  const now = state.value
  switch (now.kind) {
    case 'idle':
      return t('clap.hint')
    case 'listening':
      return t('clap.heard', { heard: Math.min(now.heard, CLAPS_WANTED), wanted: CLAPS_WANTED })
    case 'failed':
      return now.heard < CLAPS_WANTED ? t('clap.tooFew', { heard: now.heard }) : t('clap.unseen', { agreed: now.agreed })
    case 'done': {
      const offset = Math.round(now.offset.offsetMs)
      const spread = Math.round(now.offset.spreadMs)
      // Nobody is to change a microphone for what single claps differ by.
      if (offset < -LATE_MS) return t(-offset > spread ? 'clap.late' : 'clap.lateUnsure', { ms: -offset, spread })
      return t(spread > SURE_MS ? 'clap.unsure' : 'clap.set', { ms: Math.max(0, offset), spread, claps: now.offset.claps })
    }
    default:
      return now satisfies never
  }
})

watch(state, (now) => {
  if (now.kind !== 'done') return
  const delayMs = withinRange(RANGES.delayMs, Math.round(now.offset.offsetMs))
  showStore.edit(t('edits.microphone'), (show) => updateMicrophone(show, { delayMs }))
})
</script>

<template>
  <div class="mt-1 flex items-start gap-2" data-testid="clap">
    <BaseButton v-if="state.kind === 'listening'" class="py-0.5!" @click="cancel">{{ t('clap.cancel') }}</BaseButton>
    <BaseButton v-else class="py-0.5!" :icon="Hand" :disabled="voice.state !== 'live' || camera === null" @click="start">{{ t('clap.start') }}</BaseButton>
    <p role="status" class="min-w-0 flex-1 leading-snug text-soft">{{ words }}</p>
  </div>
</template>
