<script setup lang="ts">
// Files that no show names any more: listed when asked for, and deleted when the presenter says so.
import { ChevronRight, Trash2 } from 'lucide-vue-next'
import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/vue'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { decimals } from '../base/decimals.ts'
import BaseButton from '../base/BaseButton.vue'
import { api, type Asset } from '../show/api.ts'
import { errorWords } from '../show/error-words.ts'

const { t } = useI18n()
const MIB = 1024 * 1024
const files = ref<readonly Asset[] | null>(null)
const isRemoving = ref(false)
const megabytes = (bytes: number) => decimals(bytes / MIB, bytes < MIB ? 2 : 1)
const total = computed(() => megabytes((files.value ?? []).reduce((sum, { byteLength }) => sum + byteLength, 0)))

async function load(): Promise<void> {
  try {
    files.value = await api.unusedFiles()
  } catch (error) {
    toast.error(errorWords(error))
  }
}

async function remove(): Promise<void> {
  isRemoving.value = true
  try {
    const removed = await api.removeUnusedFiles(files.value!.map(({ hash }) => hash))
    toast.success(t('shows.filesDeleted', { count: removed.length }, removed.length))
    await load()
  } catch (error) {
    toast.error(errorWords(error))
  } finally {
    isRemoving.value = false
  }
}
</script>

<template>
  <Disclosure v-slot="{ open }" as="section" class="mt-4" data-testid="unused-files">
    <DisclosureButton class="inline-flex items-center gap-1.5 rounded-md py-1 pe-2 font-medium text-soft hover:text-ink" @click="!open && load()">
      <ChevronRight :size="15" class="transition-transform motion-reduce:transition-none" :class="open ? 'rotate-90' : 'rtl:-scale-x-100'" aria-hidden="true" />
      {{ t('shows.unusedTitle') }}
    </DisclosureButton>
    <DisclosurePanel>
      <p class="mt-1 text-soft" role="status">
        {{ files === null ? t('shows.unusedLooking') : files.length === 0 ? t('shows.unusedNone') : t('shows.unusedHint') }}
      </p>
      <template v-if="files !== null && files.length > 0">
        <ul class="mt-2 border-t border-line">
          <li v-for="file in files" :key="file.hash" class="flex items-center gap-3 border-b border-line py-1.5">
            <span class="min-w-0 flex-1 truncate" dir="auto">{{ file.fileName }}</span>
            <span class="font-num text-[12px] whitespace-nowrap text-soft">{{ t('shows.megabytes', { size: megabytes(file.byteLength) }) }}</span>
          </li>
        </ul>
        <BaseButton class="mt-3" :icon="Trash2" :disabled="isRemoving" @click="remove">
          {{ t('shows.deleteFiles', { count: files.length, size: total }, files.length) }}
        </BaseButton>
      </template>
    </DisclosurePanel>
  </Disclosure>
</template>
