<script setup lang="ts">
// A question before something that cannot be done by accident.
import { Dialog, DialogDescription, DialogPanel, DialogTitle } from '@headlessui/vue'
import BaseButton from './BaseButton.vue'

defineProps<{ isOpen: boolean; title: string; text: string; act: string; keep: string }>()
const emit = defineEmits<{ act: []; close: [] }>()
</script>

<template>
  <Dialog :open="isOpen" class="relative z-40" @close="emit('close')">
    <div class="fixed inset-0 bg-black/45" aria-hidden="true"></div>
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel class="w-100 max-w-full rounded-2xl border border-line bg-paper p-5">
        <DialogTitle class="font-head text-[17px] font-bold break-words">{{ title }}</DialogTitle>
        <DialogDescription class="mt-1.5 break-words text-soft">{{ text }}</DialogDescription>
        <div class="mt-4 flex flex-wrap justify-end gap-2">
          <BaseButton @click="emit('close')">{{ keep }}</BaseButton>
          <BaseButton kind="primary" @click="emit('act')">{{ act }}</BaseButton>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
