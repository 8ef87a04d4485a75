<script setup lang="ts">
// Which picture a graphic shows: one of the show, or one more from a file.
import { FolderOpen } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { isCamera } from '../../core/inputs/camera.ts'
import { inputIdOf } from '../../core/layers/index.ts'
import type { Input, Layer } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import SelectRow from '../base/rows/SelectRow.vue'
import { useShowStore } from '../show/show.store.ts'
import { usePictures } from './use-pictures.ts'

/** `withCameras`: whether a camera will do too. */
const props = defineProps<{ layer: Layer; withCameras?: boolean }>()
const emit = defineEmits<{ choose: [input: Input] }>()
const { t } = useI18n()
const showStore = useShowStore()
const { pictures, fromFile } = usePictures()
const choices = computed<readonly Input[]>(() => [...pictures.value, ...(props.withCameras ? showStore.show!.inputs.filter(isCamera) : [])])
const options = computed(() => choices.value.map(({ id, name }) => ({ value: id, label: name })))

async function chooseFile(): Promise<void> {
  const picture = await fromFile()
  if (picture !== null) emit('choose', picture)
}

function choose(id: string): void {
  const input = choices.value.find((one) => one.id === id)
  if (input !== undefined) emit('choose', input)
}
</script>

<template>
  <SelectRow v-if="options.length > 0" :model-value="inputIdOf(layer) ?? ''" :label="t('graphics.picture')" :options="options" @update:model-value="choose" />
  <BaseButton :icon="FolderOpen" @click="chooseFile">{{ t('graphics.fromFile') }}</BaseButton>
</template>
