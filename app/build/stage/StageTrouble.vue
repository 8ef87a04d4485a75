<script setup lang="ts">
// Over the stage: why a picture is missing, and how to mend it in place.
import { MonitorUp, RefreshCw, TriangleAlert } from 'lucide-vue-next'
import { useI18n } from 'vue-i18n'
import BaseButton from '../../base/BaseButton.vue'
import DeviceMenu from '../../devices/DeviceMenu.vue'
import { useInputsStore } from '../../inputs/inputs.store.ts'
import { useStageTrouble } from './use-stage-trouble.ts'

const { t } = useI18n()
const inputs = useInputsStore()
const { camera, screen, words } = useStageTrouble()
</script>

<template>
  <div
    v-if="words"
    class="absolute inset-x-3 top-3 z-10 mx-auto flex w-fit max-w-[94%] flex-wrap items-center gap-x-3 gap-y-2 rounded-xl bg-black/85 px-3.5 py-2.5 text-white"
    role="alert"
    data-testid="stage-trouble"
  >
    <TriangleAlert :size="18" class="shrink-0 text-[#e0b04b]" aria-hidden="true" />
    <div class="min-w-48 flex-1">
      <p class="font-semibold">{{ words.title }}</p>
      <p v-if="words.help" class="text-[12.5px] leading-snug text-white/85">{{ words.help }}</p>
    </div>
    <BaseButton
      v-if="camera === null && screen && inputs.statusOf(screen.id) !== 'unsupported'"
      class="text-ink"
      :icon="MonitorUp"
      @click="inputs.shareScreen(screen.id)"
    >
      {{ inputs.statusOf(screen.id) === 'ended' ? t('screens.shareAgain') : t('screens.shareNow') }}
    </BaseButton>
    <div v-if="camera" class="flex items-center gap-2 text-ink">
      <BaseButton :icon="RefreshCw" @click="inputs.retryCamera(camera.id)">{{ t('camera.retry') }}</BaseButton>
      <DeviceMenu class="w-52" :input="camera" />
    </div>
  </div>
</template>
