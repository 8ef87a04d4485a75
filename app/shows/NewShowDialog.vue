<script setup lang="ts">
// A new show asks what it is for, who presents, in which colours, and with which camera and microphone. All are answered already; any can be
// changed later.
import { Dialog, DialogPanel, DialogTitle, RadioGroup, RadioGroupLabel, RadioGroupOption } from '@headlessui/vue'
import { computed, onBeforeUnmount, ref, shallowRef, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { isCamera } from '../../core/inputs/camera.ts'
import { inputOf } from '../../core/layers/index.ts'
import { standinShowDevices } from '../../core/layout/arrange/first-show.ts'
import { palettes, type PaletteName } from '../../core/palette/palettes.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import type { FirstDevices } from '../../core/show/create.ts'
import { graphicsOf, ownScenesOf } from '../../core/show/edits.ts'
import { USUAL_STYLE } from '../../core/show/style.ts'
import type { Layer, Show } from '../../core/show/show.ts'
import BaseButton from '../base/BaseButton.vue'
import SelectMenu from '../base/SelectMenu.vue'
import { firstDevices } from '../devices/first-devices.ts'
import { useDeviceChoice } from '../devices/use-device-choice.ts'
import { useDevices, type Asked } from '../devices/use-devices.ts'
import ShowCover from './ShowCover.vue'
import { beginnings, useNewShow, type Beginning } from './use-new-show.ts'

const props = defineProps<{
  /** Makes the show; false when that failed, which was said. */
  create: (show: Show) => Promise<boolean>
  /** The show that was worked on last: its colours and its presenter are offered. Null for none. */
  last?: Show | null
}>()
const emit = defineEmits<{ close: [] }>()
const { t } = useI18n()
const devices = useDevices()
const { valueOf, cameraOptions, microphoneOptions, cameraFor, microphoneFor } = useDeviceChoice(devices)
const { words, newShowFor } = useNewShow()
const COVER_PX = 320

const beginning = ref<Beginning>('talk')
const name = ref(props.last?.presenter.name ?? '')
const colours = ref<PaletteName | 'last'>(props.last == null ? 'apiary' : 'last')
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

const colourOptions = computed(() => [
  ...(props.last == null ? [] : [{ value: 'last' as const, label: t('newShow.coloursOf', { name: props.last.name }) }]),
  ...(Object.keys(palettes) as PaletteName[]).map((value) => ({ value, label: t(`graphics.paletteNames.${value}`) })),
])
const style = computed(() => (colours.value === 'last' ? (props.last?.style ?? USUAL_STYLE) : { ...USUAL_STYLE, colours: palettes[colours.value] }))
const presenter = computed(() => ({ name: name.value.trim(), title: name.value.trim() === props.last?.presenter.name ? props.last.presenter.title : '' }))

/** A show of each kind with stand-ins: what the pictures show. */
const groups = computed(() =>
  (['bare', 'prepared'] as const).map((group) => ({
    group,
    title: t(`newShow.groups.${group}`),
    samples: beginnings[group].map((value) => ({
      value: value as Beginning,
      title: group === 'bare' ? t(`newShow.purposes.${value}`) : t(`newShow.occasions.${value}`),
      ...sampleOf(value),
    })),
  })),
)
const sampleNames = computed(() => ({ name: name.value.trim() || t('graphics.says.name'), title: t('graphics.says.role') }))
const namesOf = (show: Show) =>
  ownScenesOf(show)
    .map((scene) => scene.name)
    .join(' · ')

function sampleOf(value: Beginning) {
  const show = newShowFor(value, standinShowDevices, { style: style.value, presenter: sampleNames.value })
  return { show: asSample(show), scenes: namesOf(show) }
}

/** The first scene that the presenter is in says most of a show, with its first graphic over it. */
function asSample(show: Show): Show {
  const own = ownScenesOf(show)
  const best = own.find(({ layers }) => layers.some((layer) => isPresenter(show, layer))) ?? own[0]!
  const [graphic] = graphicsOf(show)
  const sample = { ...best, layers: [...best.layers, ...(graphic?.layers ?? [])] }
  return withTableTop({ ...show, scenes: [sample, ...show.scenes.filter(({ id }) => id !== best.id)] })
}

function isPresenter(show: Show, layer: Layer): boolean {
  const input = inputOf(show, layer)
  return input !== undefined && isCamera(input)
}

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
  const own = { camera: camera.value, microphone: microphone.value, table: table.value }
  if (await props.create(newShowFor(beginning.value, own, { style: style.value, presenter: presenter.value }))) emit('close')
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
      <DialogPanel class="w-full max-w-[980px] rounded-2xl border border-line bg-paper p-5" data-testid="new-show">
        <DialogTitle class="font-head text-[20px] font-bold">{{ t('shows.new') }}</DialogTitle>
        <RadioGroup v-model="beginning" class="mt-2">
          <RadioGroupLabel class="sr-only">{{ t('newShow.purpose') }}</RadioGroupLabel>
          <template v-for="{ group, title, samples } in groups" :key="group">
            <h3 class="mt-2 mb-1.5 font-semibold">{{ title }}</h3>
            <div class="grid grid-cols-[repeat(auto-fill,minmax(168px,1fr))] gap-2.5">
              <RadioGroupOption v-for="sample in samples" :key="sample.value" v-slot="{ checked }" :value="sample.value" as="template">
                <div
                  class="min-w-0 cursor-pointer rounded-xl border p-1.5"
                  :class="checked ? 'border-brass bg-wash' : 'border-line bg-raised hover:border-soft'"
                >
                  <ShowCover :show="sample.show" :scene="sample.show.scenes[0]!" :width-px="COVER_PX" class="rounded-lg" />
                  <p class="mt-1 px-1 font-semibold">{{ sample.title }}</p>
                  <p class="line-clamp-2 px-1 pb-0.5 text-[12px] leading-snug text-soft" :title="sample.scenes">{{ sample.scenes }}</p>
                </div>
              </RadioGroupOption>
            </div>
          </template>
        </RadioGroup>
        <div class="mt-4 grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
          <label class="min-w-0 font-semibold">
            {{ t('newShow.yourName') }}
            <input
              v-model="name"
              type="text"
              dir="auto"
              autocomplete="name"
              :maxlength="LIMITS.nameLength"
              class="mt-1 block h-7 w-full rounded-md border border-line bg-raised px-2 font-normal"
            />
          </label>
          <div class="min-w-0">
            <p class="mb-1 font-semibold">{{ t('newShow.colours') }}</p>
            <SelectMenu v-model="colours" :label="t('newShow.colours')" :options="colourOptions" />
          </div>
          <template v-if="!mustAsk">
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
          </template>
        </div>
        <div class="mt-4 flex flex-wrap items-center justify-end gap-2">
          <p class="min-w-0 flex-1 text-soft" role="status">{{ note }}</p>
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
