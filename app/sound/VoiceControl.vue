<script setup lang="ts">
// In the header: how loud the voice is, and whether it is muted.
import { Mic, MicOff } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import LevelMeter from './LevelMeter.vue'
import { useVoiceStore } from './voice.store.ts'

const { t } = useI18n()
const voice = useVoiceStore()
const isShown = computed(() => voice.state !== 'off')
const words = computed(() => {
  if (voice.state !== 'live' && voice.state !== 'starting') return t('voice.trouble', { what: t(`voice.states.${voice.state}`) })
  return voice.isMuted ? t('voice.unmute') : t('voice.mute')
})
</script>

<template>
  <div v-if="isShown" class="flex items-center gap-1" data-testid="voice">
    <button
      type="button"
      class="inline-flex h-8 items-center gap-1.5 rounded-md px-1.5"
      :class="voice.isMuted ? 'bg-wash font-semibold text-ink' : 'text-soft hover:bg-sunk hover:text-ink'"
      :aria-pressed="voice.isMuted"
      :aria-label="words"
      :data-tip="words"
      @click="voice.toggleMute()"
    >
      <component :is="voice.isMuted || voice.state !== 'live' ? MicOff : Mic" :size="16" :stroke-width="1.8" aria-hidden="true" />
      <span v-if="voice.isMuted" class="max-[1120px]:sr-only">{{ t('voice.muted') }}</span>
    </button>
    <LevelMeter v-if="!voice.isMuted" class="max-[1020px]:hidden" />
  </div>
</template>
