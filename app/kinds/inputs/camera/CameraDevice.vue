<script setup lang="ts">
// Which device a camera input takes, what it is doing, and what to do when it does not come.
import { isFailure } from '../../../../engine/live/live-state.ts'
import { RefreshCw } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { CameraInput } from '../../../../core/show/show.ts'
import BaseButton from '../../../base/BaseButton.vue'
import { useInputsStore } from '../../../inputs/inputs.store.ts'
import DeviceMenu from '../../../devices/DeviceMenu.vue'
import FormatMenu from '../../../devices/FormatMenu.vue'
import { useDevices } from '../../../devices/use-devices.ts'

const props = defineProps<{ input: CameraInput }>()
const { t } = useI18n()
const inputs = useInputsStore()
const { needsPermission, ask } = useDevices()

const state = computed(() => inputs.statusOf(props.input.id))
const isStuck = computed(() => isFailure(state.value))
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] gap-2">
    <DeviceMenu :input="input" />
    <FormatMenu :input="input" />
    <p v-if="state !== 'live'" role="status" class="rounded-md bg-wash px-2.5 py-2 leading-snug">
      <b class="font-semibold">{{ t(`camera.states.${state}`) }}.</b> {{ t(`camera.help.${state}`) }}
    </p>
    <BaseButton v-if="isStuck" :icon="RefreshCw" @click="inputs.retryCamera(input.id)">{{ t('camera.retry') }}</BaseButton>
    <div v-if="needsPermission">
      <BaseButton @click="ask()">{{ t('camera.allow') }}</BaseButton>
      <p class="mt-1 text-soft">{{ t('camera.allowHint') }}</p>
    </div>
  </div>
</template>
