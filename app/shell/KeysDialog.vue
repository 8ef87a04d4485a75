<script setup lang="ts">
// All keys, on "?".
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { X } from 'lucide-vue-next'
import { useI18n } from 'vue-i18n'
import IconButton from '../base/IconButton.vue'
import { areKeysShown, keyGroups } from './keys.ts'

const { t } = useI18n()
</script>

<template>
  <Dialog :open="areKeysShown" class="relative z-50" @close="areKeysShown = false">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true"></div>
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel class="max-h-full w-[min(860px,100%)] overflow-auto rounded-2xl border border-line bg-raised p-5 shadow-xl">
        <div class="mb-3 flex items-center justify-between">
          <DialogTitle class="font-head text-[18px] font-bold">{{ t('keys.title') }}</DialogTitle>
          <IconButton :icon="X" :label="t('errors.close')" @click="areKeysShown = false" />
        </div>
        <div class="columns-1 gap-8 min-[700px]:columns-2">
          <section v-for="group in keyGroups" :key="group.name" class="mb-4 break-inside-avoid">
            <h3 class="mb-1 text-[12.5px] font-semibold text-soft">{{ t(`keys.groups.${group.name}`) }}</h3>
            <dl>
              <div v-for="key in group.keys" :key="key" class="flex items-baseline gap-3 border-t border-line py-1">
                <dt class="min-w-0 flex-1">{{ t(`keys.does.${key}`) }}</dt>
                <dd class="shrink-0 font-num text-[11.5px] text-soft">{{ t(`keys.press.${key}`) }}</dd>
              </div>
            </dl>
          </section>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
