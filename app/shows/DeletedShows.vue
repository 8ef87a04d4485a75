<script setup lang="ts">
// Shows that were deleted and can still be brought back; nothing is drawn while there are none.
import { ChevronRight, Undo2 } from 'lucide-vue-next'
import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/vue'
import { useI18n } from 'vue-i18n'
import BaseButton from '../base/BaseButton.vue'
import type { DeletedShow } from '../show/api.ts'
import { timeOf } from './relative-time.ts'

defineProps<{ shows: readonly DeletedShow[] }>()
const emit = defineEmits<{ bringBack: [id: string] }>()
const { t, locale } = useI18n()
</script>

<template>
  <Disclosure v-if="shows.length > 0" v-slot="{ open }" as="section" class="mt-8" data-testid="deleted-shows">
    <DisclosureButton class="inline-flex items-center gap-1.5 rounded-md py-1 pe-2 font-medium text-soft hover:text-ink">
      <ChevronRight :size="15" class="transition-transform motion-reduce:transition-none" :class="open ? 'rotate-90' : 'rtl:-scale-x-100'" aria-hidden="true" />
      {{ t('shows.deletedTitle') }}
      <span class="font-num text-[12px] tabular-nums">{{ shows.length }}</span>
    </DisclosureButton>
    <DisclosurePanel>
      <p class="mt-1 text-soft">{{ t('shows.deletedHint') }}</p>
      <ul class="mt-2 border-t border-line">
        <li v-for="show in shows" :key="show.id" class="flex items-center gap-3 border-b border-line py-2">
          <span class="min-w-0 flex-1 truncate" dir="auto">{{ show.name }}</span>
          <span class="text-[12px] whitespace-nowrap text-soft">{{ t('shows.deletedWhen', { when: timeOf(show.deletedAt, locale) }) }}</span>
          <BaseButton :icon="Undo2" :aria-label="t('shows.bringBackOf', { name: show.name })" @click="emit('bringBack', show.id)">
            {{ t('shows.bringBack') }}
          </BaseButton>
        </li>
      </ul>
    </DisclosurePanel>
  </Disclosure>
</template>
