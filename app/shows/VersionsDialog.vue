<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import BaseButton from '../base/BaseButton.vue'
import { api, type ShowVersion } from '../show/api.ts'
import { errorWords } from '../show/error-words.ts'
import { timeOf } from './relative-time.ts'
import VersionCover from './VersionCover.vue'

const props = defineProps<{
  isOpen: boolean
  showId: string
  /** Puts a version in place. */
  restore: (revision: number) => Promise<unknown>
}>()
const emit = defineEmits<{ close: []; restored: [] }>()
const { t, locale } = useI18n()
const versions = ref<ShowVersion[]>([])

watch(
  () => props.isOpen,
  async (isOpen) => {
    if (!isOpen) return
    versions.value = await api.listVersions(props.showId).catch(() => {
      toast.error(t('errors.network'))
      return []
    })
  },
  // Opened from the list of shows, it is open from the beginning.
  { immediate: true },
)

async function putBack(version: ShowVersion): Promise<void> {
  try {
    await props.restore(version.revision)
    toast(t('versions.restored', { when: timeOf(version.savedAt, locale.value, new Date(), true) }))
    emit('restored')
    emit('close')
  } catch (error) {
    toast.error(errorWords(error))
  }
}
</script>

<template>
  <Dialog :open="isOpen" class="relative z-40" @close="emit('close')">
    <div class="fixed inset-0 bg-black/45" aria-hidden="true"></div>
    <div class="fixed inset-0 grid place-items-center p-6">
      <DialogPanel class="flex max-h-[80vh] w-[560px] flex-col rounded-2xl border border-line bg-paper p-5">
        <DialogTitle class="font-head text-[18px] font-bold">{{ t('versions.title') }}</DialogTitle>
        <p class="mt-1 text-soft">{{ t('versions.hint') }}</p>
        <ol class="mt-3 min-h-0 flex-1 overflow-auto border-y border-line">
          <li v-for="(version, index) in versions" :key="version.revision" class="flex items-center gap-3 border-b border-line py-2 last:border-0">
            <VersionCover
              v-if="version.isReadable"
              :show-id="showId"
              :revision="version.revision"
              :before="versions[index + 1]?.isReadable ? versions[index + 1]!.revision : null"
            />
            <div class="min-w-0 flex-1">
              <div v-if="version.label" class="truncate font-medium first-letter:uppercase" dir="auto" :title="version.label">{{ version.label }}</div>
              <div class="text-[12px] text-soft">
                <span class="font-num tabular-nums">{{ timeOf(version.savedAt, locale, new Date(), true) }}</span> ·
                {{
                  version.isReadable
                    ? t('versions.what', { scenes: t('shows.scenes', version.sceneCount), layers: t('layer.many', version.layerCount) })
                    : t('versions.unreadable')
                }}
              </div>
            </div>
            <span v-if="index === 0" class="px-3 text-soft">{{ t('versions.now') }}</span>
            <BaseButton v-else-if="version.isReadable" @click="putBack(version)">{{ t('versions.restore') }}</BaseButton>
          </li>
        </ol>
        <div class="mt-4 flex justify-end">
          <BaseButton @click="emit('close')">{{ t('versions.close') }}</BaseButton>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
