<script setup lang="ts">
// A new show asks three things: what it is for, which camera, which microphone. All are answered already; any can be changed later.
import { Dialog, DialogPanel, DialogTitle, RadioGroup, RadioGroupOption } from '@headlessui/vue'
import { computed, onBeforeUnmount, ref, shallowRef, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { firstShow, purposes, type FirstWords, type Purpose } from '../../core/layout/arrange/first-show.ts'
import type { FirstDevices } from '../../core/show/create.ts'
import type { Show } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import SelectMenu from '../base/SelectMenu.vue'
import { firstDevices } from '../devices/first-devices.ts'
import { useDeviceChoice } from '../devices/use-device-choice.ts'
import { useDevices, type Asked } from '../devices/use-devices.ts'
import { makeId } from '../show/make-id.ts'
import ShowCover from './ShowCover.vue'

const props = defineProps<{
  /** Makes the show; false when that failed, which was said. */
  create: (show: Show) => Promise<boolean>
}>()
const emit = defineEmits<{ close: [] }>()
const { t } = useI18n()
const devices = useDevices()
const { valueOf, cameraOptions, microphoneOptions, cameraFor, microphoneFor } = useDeviceChoice(devices)
const COVER_PX = 320

const purpose = ref<Purpose>('talk')
/** What the presenter chose; until then the first device that is there. */
const chosenCamera = shallowRef<FirstDevices['camera'] | null>(null)
const chosenMicrophone = shallowRef<FirstDevices['microphone'] | null>(null)
const asked = ref<Asked | 'asking' | null>(null)
const isMaking = ref(false)
/** The browser may answer after the presenter has gone. */
let isClosed = false
onBeforeUnmount(() => (isClosed = true))
const createButton = useTemplateRef<{ $el: HTMLElement }>('createButton')

const first = computed(() => firstDevices(devices.cameras.value, devices.microphones.value))
/** Whether the browser has devices, but tells nobody which until it is asked. */
const mustAsk = computed(
  () =>
    devices.hasAny.value &&
    first.value.camera.type === 'standin' &&
    first.value.microphone.type === 'standin' &&
    asked.value !== 'refused' &&
    asked.value !== 'none',
)
const camera = computed(() => chosenCamera.value ?? first.value.camera)
const microphone = computed(() => chosenMicrophone.value ?? first.value.microphone)
/** Above the table is the other camera, where there are two. */
const table = computed(() => {
  const { table: second, camera: usual } = first.value
  return valueOf(second) === valueOf(camera.value) ? usual : second
})
const note = computed(() => {
  if (asked.value === 'refused') return t('devices.refused')
  if (asked.value === 'none' || !devices.hasAny.value) return t('newShow.noDevices')
  return mustAsk.value ? t('newShow.asks') : t('newShow.later')
})

const words = computed<FirstWords>(() => ({
  camera: t('build.newCameraName'),
  wall: t('newShow.wall'),
  screen: t('screens.name'),
  table: t('newShow.table'),
  text: t('build.textName'),
  divider: t('layouts.divider'),
  ink: t('layouts.ink', { name: t('screens.name') }),
  yourName: t('newShow.yourName'),
  backSoon: t('newShow.backSoon'),
  scenes: {
    named: t('newShow.scenes.named'),
    alone: t('newShow.scenes.alone'),
    soon: t('newShow.scenes.soon'),
    beside: t('newShow.scenes.beside'),
    shoulder: t('layouts.names.shoulder'),
    corner: t('newShow.scenes.corner'),
    tableAndYou: t('newShow.scenes.tableAndYou'),
    tableAlone: t('newShow.scenes.tableAlone'),
    first: t('build.sceneName', { n: 1 }),
  },
}))
/** A show of each kind with stand-ins: what the pictures show. */
const samples = computed(() => purposes.map((value) => ({ value, show: withTableTop(firstShow(t('shows.newName'), value, words.value, makeId)) })))

/** Drawings have people for cameras; the one above the table has a table top. */
function withTableTop(show: Show): Show {
  const inputs = show.inputs.map((input) =>
    input.name === words.value.table ? { id: input.id, kind: 'colour' as const, name: input.name, colour: '#a8865c', treatment: [] } : input,
  )
  return { ...show, inputs }
}

/** What was chosen stays when the show could not be made. */
async function make(): Promise<void> {
  if (isMaking.value) return
  isMaking.value = true
  const made = { camera: camera.value, microphone: microphone.value, table: table.value }
  if (await props.create(firstShow(t('shows.newName'), purpose.value, words.value, makeId, made))) emit('close')
  isMaking.value = false
}

/** The browser asks once; whatever it says, what was chosen here stays. */
async function useOwn(): Promise<void> {
  asked.value = 'asking'
  asked.value = await devices.askAll()
  if (asked.value === 'granted' && !isClosed) await make()
}
</script>

<template>
  <Dialog :open="true" class="relative z-40" :initial-focus="createButton?.$el ?? null" @close="emit('close')">
    <div class="fixed inset-0 bg-black/45" aria-hidden="true"></div>
    <div class="fixed inset-0 grid place-items-center overflow-auto p-4">
      <DialogPanel class="w-full max-w-[820px] rounded-2xl border border-line bg-paper p-5" data-testid="new-show">
        <DialogTitle class="font-head text-[20px] font-bold">{{ t('shows.new') }}</DialogTitle>
        <h3 class="mt-3 mb-2 font-semibold">{{ t('newShow.purpose') }}</h3>
        <RadioGroup v-model="purpose" :aria-label="t('newShow.purpose')" class="grid grid-cols-[repeat(auto-fit,minmax(168px,1fr))] gap-3">
          <RadioGroupOption v-for="sample in samples" :key="sample.value" v-slot="{ checked }" :value="sample.value" as="template">
            <div class="min-w-0 cursor-pointer rounded-xl border p-1.5" :class="checked ? 'border-brass bg-wash' : 'border-line bg-raised hover:border-soft'">
              <ShowCover :show="sample.show" :scene="sample.show.scenes[0]!" :width-px="COVER_PX" class="rounded-lg" />
              <p class="mt-1.5 px-1 font-semibold">{{ t(`newShow.purposes.${sample.value}`) }}</p>
              <ul class="px-1 pb-1 text-[12px] leading-snug text-soft">
                <li v-for="scene in sample.show.scenes" :key="scene.id">{{ scene.name }}</li>
              </ul>
            </div>
          </RadioGroupOption>
        </RadioGroup>
        <div v-if="!mustAsk" class="mt-4 grid gap-3 sm:grid-cols-2">
          <div class="min-w-0">
            <p class="mb-1 font-semibold">{{ t('devices.cameras') }}</p>
            <SelectMenu
              :model-value="valueOf(camera)"
              :label="t('devices.cameras')"
              :options="cameraOptions(camera)"
              @update:model-value="chosenCamera = cameraFor($event)"
            />
          </div>
          <div class="min-w-0">
            <p class="mb-1 font-semibold">{{ t('devices.microphone') }}</p>
            <SelectMenu
              :model-value="valueOf(microphone)"
              :label="t('devices.microphone')"
              :options="microphoneOptions(microphone)"
              @update:model-value="chosenMicrophone = microphoneFor($event)"
            />
          </div>
        </div>
        <p class="mt-3 text-soft" role="status">{{ note }}</p>
        <div class="mt-4 flex flex-wrap justify-end gap-2">
          <BaseButton kind="quiet" @click="emit('close')">{{ t('newShow.cancel') }}</BaseButton>
          <template v-if="mustAsk">
            <BaseButton :disabled="asked === 'asking'" @click="make">{{ t('newShow.withStandins') }}</BaseButton>
            <BaseButton ref="createButton" kind="primary" :disabled="asked === 'asking'" @click="useOwn">{{ t('newShow.withOwn') }}</BaseButton>
          </template>
          <BaseButton v-else ref="createButton" kind="primary" @click="make">{{ t('newShow.create') }}</BaseButton>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
