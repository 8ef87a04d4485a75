<script setup lang="ts">
// How the extension is loaded, in three steps with pictures; replaced by a word of welcome as soon as it is there.
import { useI18n } from 'vue-i18n'
import GuidePicture from './GuidePicture.vue'

const { t } = useI18n()
const steps = [1, 2, 3] as const
</script>

<template>
  <p class="mb-2 leading-snug">{{ t('extension.why') }}</p>
  <ol class="grid gap-2">
    <li v-for="step in steps" :key="step" class="grid grid-cols-[112px_minmax(0,1fr)] items-center gap-3 rounded-lg border border-line bg-raised p-2">
      <GuidePicture :step="step" />
      <div>
        <p class="font-semibold">{{ step }}. {{ t(`extension.steps.${step}.title`) }}</p>
        <i18n-t :keypath="`extension.steps.${step}.text`" tag="p" class="leading-snug text-soft" scope="global">
          <template #address><code class="font-num text-[11.5px] text-ink select-all">chrome://extensions</code></template>
          <template #folder><code class="font-num text-[11.5px] text-ink select-all">dist/extension</code></template>
        </i18n-t>
        <a v-if="step === 2" href="/extension/green-room-extension.zip" download class="font-medium text-green underline">{{ t('extension.zip') }}</a>
      </div>
    </li>
  </ol>
  <p class="mt-2 text-soft" role="status">{{ t('extension.waiting') }}</p>
</template>
