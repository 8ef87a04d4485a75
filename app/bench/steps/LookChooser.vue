<script setup lang="ts">
// All looks on the picture in hand; one is chosen.
import { FilePlus2, RefreshCw } from 'lucide-vue-next'
import { computed, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'
import { isOwnLook } from '../../../core/lut/own-looks.ts'
import BaseButton from '../../base/BaseButton.vue'
import { THUMB_HEIGHT_PX, THUMB_WIDTH_PX, useLooks } from '../use-looks.ts'
import LookThumb from './LookThumb.vue'

const props = defineProps<{ modelValue: string; stepId: string }>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()
const { t } = useI18n()
const { looks, refresh, addFile } = useLooks(() => props.stepId)
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const isOwn = computed(() => isOwnLook(props.modelValue))

async function onFile(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (file === undefined) return
  const look = await addFile(file)
  if (look !== null) emit('update:modelValue', look)
}
</script>

<template>
  <div class="relative mb-2">
    <RadioGroup
      :model-value="modelValue"
      :aria-label="t('steps.look.params.look')"
      class="grid grid-cols-3 gap-1.5"
      @update:model-value="emit('update:modelValue', $event)"
    >
      <RadioGroupOption v-for="look in looks" :key="look.value" v-slot="{ checked }" :value="look.value" as="template">
        <button type="button" class="rounded-md border p-1 text-start" :class="checked ? 'border-brass bg-wash' : 'border-transparent hover:bg-sunk'">
          <LookThumb :picture="look.thumb" :width-px="THUMB_WIDTH_PX" :height-px="THUMB_HEIGHT_PX" />
          <span dir="auto" class="mt-0.5 block truncate text-[11.5px]">{{ look.name }}</span>
        </button>
      </RadioGroupOption>
    </RadioGroup>
    <p v-if="!isOwn" class="mt-1.5 rounded-md bg-wash px-2 py-1 text-[12px]">{{ t('look.fromFile', { hash: modelValue.slice(0, 8) }) }}</p>
    <div class="mt-1.5 flex flex-wrap items-center gap-x-1">
      <BaseButton kind="quiet" class="-ms-2" :icon="FilePlus2" @click="chooser?.click()">{{ t('look.add') }}</BaseButton>
      <span class="flex-1"></span>
      <BaseButton kind="quiet" :icon="RefreshCw" @click="refresh">{{ t('look.refresh') }}</BaseButton>
      <input ref="chooser" type="file" accept=".cube,.png" class="sr-only" :aria-label="t('look.add')" tabindex="-1" @change="onFile" />
    </div>
  </div>
</template>
