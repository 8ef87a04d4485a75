<script setup lang="ts">
// What a screen shows, what has become of it, and sharing it, again or something else.
import { isScreen } from '../../../../core/inputs/screen.ts'
import { updateInputOf } from '../../../../core/show/edits.ts'
import { MonitorUp, MonitorX, TriangleAlert } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { ScreenInput } from '../../../../core/show/show.ts'
import BaseButton from '../../../base/BaseButton.vue'
import ChoiceBar from '../../../base/ChoiceBar.vue'
import { useInputsStore } from '../../../inputs/inputs.store.ts'
import { useShowStore } from '../../../show/show.store.ts'

const props = defineProps<{ input: ScreenInput }>()
const { t } = useI18n()
const inputs = useInputsStore()
const showStore = useShowStore()
const state = computed(() => inputs.statusOf(props.input.id))
const shared = computed(() => inputs.shared[props.input.id])
const isLive = computed(() => state.value === 'live')
const showsItself = computed(() => isLive.value && inputs.mirrors[props.input.id] === true)
const title = computed(() => (isLive.value && shared.value !== undefined ? t(`screens.surfaces.${shared.value.surface}`) : t(`screens.states.${state.value}`)))
const shareWords = computed(() => (isLive.value ? t('screens.shareOther') : state.value === 'ended' ? t('screens.shareAgain') : t('screens.shareNow')))
/** Those that are offered, and the one it has. */
const rates = computed(() =>
  [...new Set([5, 15, 30, props.input.frameRate])].sort((a, b) => a - b).map((rate) => ({ value: String(rate), label: String(rate) })),
)

function setRate(value: string): void {
  showStore.edit(
    t('edits.screenRate', { name: props.input.name }),
    (show) => updateInputOf(show, props.input.id, isScreen, (input) => ({ ...input, frameRate: Number(value) })),
    `screen-rate-${props.input.id}`,
  )
}
</script>

<template>
  <p v-if="input.source.type === 'standin'" class="text-soft">{{ t('screens.isStandin') }}</p>
  <div v-else class="grid gap-2">
    <p role="status" :class="isLive ? '' : 'rounded-md bg-wash px-2.5 py-2 leading-snug'">
      <b class="font-semibold">{{ title }}.</b> {{ t(`screens.help.${state}`) }}
    </p>
    <p v-if="showsItself" role="alert" class="flex gap-2 rounded-md bg-wash px-2.5 py-2 leading-snug">
      <TriangleAlert :size="15" class="mt-0.5 shrink-0 text-brass" aria-hidden="true" />
      <span
        ><b class="font-semibold">{{ t('screens.mirrors') }}.</b> {{ t('screens.mirrorsHelp') }}</span
      >
    </p>
    <p v-else-if="isLive && shared?.surface === 'monitor'" class="leading-snug text-soft">{{ t('screens.monitorNote') }}</p>
    <BaseButton v-if="state !== 'unsupported'" :icon="MonitorUp" :kind="isLive ? 'plain' : 'primary'" @click="inputs.shareScreen(input.id)">
      {{ shareWords }}
    </BaseButton>
    <BaseButton v-if="isLive" kind="quiet" :icon="MonitorX" @click="inputs.stopScreen(input.id)">{{ t('screens.stop') }}</BaseButton>
  </div>
  <div class="mt-2">
    <p class="mb-1 text-soft">{{ t('screens.rate') }}</p>
    <ChoiceBar :model-value="String(input.frameRate)" :label="t('screens.rate')" :choices="rates" @update:model-value="setRate" />
    <p class="mt-1 leading-snug text-soft">{{ t('screens.rateHelp') }}</p>
  </div>
</template>
