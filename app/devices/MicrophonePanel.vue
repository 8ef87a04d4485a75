<script setup lang="ts">
// The voice: which microphone, how loud, what is done to it and what is not.
import { Mic, MicOff, RefreshCw } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { updateMicrophone } from '../../core/show/edits.ts'
import { RANGES } from '../../core/schema/limits.ts'
import { voiceSides, type Microphone } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import ChoiceBar from '../base/ChoiceBar.vue'
import SliderRow from '../base/SliderRow.vue'
import ToggleSwitch from '../base/ToggleSwitch.vue'
import { useShowStore } from '../show/show.store.ts'
import LevelMeter from '../sound/LevelMeter.vue'
import { useVoiceStore } from '../sound/voice.store.ts'
import ClapSync from './ClapSync.vue'
import MicrophoneMenu from './MicrophoneMenu.vue'

defineProps<{ microphone: Microphone }>()
const { t } = useI18n()
const showStore = useShowStore()
const voice = useVoiceStore()
const sides = computed(() => voiceSides.map((value) => ({ value, label: t(`devices.sides.${value}`) })))
const automatics = ['echoCancellation', 'noiseSuppression', 'autoGainControl'] as const
const isInTrouble = computed(() => !['off', 'live', 'starting'].includes(voice.state))
/** One side is silent, and still both are heard where they are. */
const onlySide = computed(() => (voice.microphone?.sides === 'both' ? (voice.level?.onlySide ?? null) : null))

function edit(part: Partial<Microphone>, group?: string): void {
  showStore.edit(t('edits.microphone'), (show) => updateMicrophone(show, part), group)
}
</script>

<template>
  <div data-testid="microphone-panel">
    <LevelMeter is-large />
    <div class="mt-2.5 mb-1.5 flex items-center gap-1.5">
      <MicrophoneMenu class="flex-1" :microphone="microphone" />
      <BaseButton
        v-if="voice.state !== 'off'"
        class="min-h-7 py-0.5!"
        :icon="voice.isMuted ? MicOff : Mic"
        :aria-pressed="voice.isMuted"
        @click="voice.toggleMute()"
      >
        {{ voice.isMuted ? t('devices.unmute') : t('devices.mute') }}
      </BaseButton>
    </div>
    <p role="status" class="mb-2 text-soft">{{ t(`voice.is.${voice.state}`) }}</p>
    <div v-if="isInTrouble" role="alert" class="mb-2 rounded-md bg-wash px-2.5 py-2 leading-snug">
      <p>{{ t(`voice.help.${voice.state}`) }}</p>
      <BaseButton class="mt-1.5" :icon="RefreshCw" @click="voice.retry()">{{ t('camera.retry') }}</BaseButton>
    </div>
    <div v-if="onlySide" role="status" class="mb-2 flex items-center gap-2 rounded-md bg-wash px-2.5 py-2 leading-snug">
      <p class="flex-1">{{ t(`devices.only.${onlySide}`) }}</p>
      <BaseButton class="py-0.5!" @click="edit({ sides: onlySide })">{{ t('devices.toBoth') }}</BaseButton>
    </div>
    <div v-if="voice.otherLabel" role="status" class="mb-2 flex items-center gap-2 rounded-md bg-wash px-2.5 py-2 leading-snug">
      <p class="flex-1">{{ t('devices.other', { name: voice.otherLabel }) }}</p>
      <BaseButton class="py-0.5!" @click="voice.otherLabel = null">{{ t('errors.close') }}</BaseButton>
    </div>
    <div class="grid grid-cols-[minmax(0,1fr)] gap-1 border-t border-line pt-2">
      <SliderRow
        :label="t('devices.gain')"
        unit="dB"
        :min="RANGES.gainDb.min"
        :max="RANGES.gainDb.max"
        :step="0.5"
        :usual="0"
        :model-value="microphone.gainDb"
        @update:model-value="edit({ gainDb: $event }, 'voice-gain')"
      />
      <SliderRow
        :label="t('devices.delay')"
        unit="ms"
        :min="RANGES.delayMs.min"
        :max="RANGES.delayMs.max"
        :step="1"
        :usual="0"
        :model-value="microphone.delayMs"
        @update:model-value="edit({ delayMs: $event }, 'voice-delay')"
      />
      <ClapSync />
      <div class="flex min-h-7 items-center gap-2">
        <span class="w-[76px] shrink-0">{{ t('devices.heardOn') }}</span>
        <ChoiceBar :model-value="microphone.sides" :label="t('devices.heardOn')" :choices="sides" @update:model-value="edit({ sides: $event })" />
      </div>
    </div>
    <fieldset class="mt-2 border-t border-line pt-2">
      <legend class="sr-only">{{ t('devices.automatics') }}</legend>
      <p class="mb-1 text-soft">{{ t('devices.automatics') }}</p>
      <div v-for="name in automatics" :key="name" class="flex min-h-7 items-center gap-2">
        <ToggleSwitch :model-value="microphone[name]" :label="t(`devices.${name}`)" @update:model-value="edit({ [name]: $event })" />
        <span>{{ t(`devices.${name}`) }}</span>
      </div>
    </fieldset>
  </div>
</template>
