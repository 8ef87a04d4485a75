<script setup lang="ts">
// How the extension is loaded, in three steps with pictures; replaced by a word of welcome as soon as it is there.
import { useClipboard } from '@vueuse/core'
import { Check, Copy } from 'lucide-vue-next'
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import IconButton from '../base/IconButton.vue'
import { api } from '../show/api.ts'
import GuidePicture from './GuidePicture.vue'

const { t } = useI18n()
/** The whole path, once the server has told it. */
const folder = ref('dist/extension')
const { copy, copied } = useClipboard({ copiedDuring: 2000 })
api.extensionFolder().then(
  (path) => (folder.value = path),
  (error: unknown) => toast.error(error instanceof TypeError ? t('errors.network') : String(error)),
)
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
        </i18n-t>
        <div v-if="step === 2" class="flex items-center gap-1">
          <code class="min-w-0 font-num text-[11.5px] break-all select-all" data-testid="extension-folder">{{ folder }}</code>
          <IconButton
            class="shrink-0"
            :icon="copied ? Check : Copy"
            size="small"
            :label="copied ? t('extension.copied') : t('extension.copy')"
            @click="copy(folder)"
          />
        </div>
        <a v-if="step === 2" href="/extension/green-room-extension.zip" download class="font-medium text-green underline">{{ t('extension.zip') }}</a>
      </div>
    </li>
  </ol>
  <p class="mt-2 text-soft" role="status">{{ t('extension.waiting') }}</p>
</template>
