<script setup lang="ts">
// What holds on this machine only: who makes the pictures, and how fast.
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { Cpu } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { ExecutorPin } from '../../engine/executors.ts'
import ChoiceBar from '../base/ChoiceBar.vue'
import ToggleSwitch from '../base/ToggleSwitch.vue'
import { useEngineStore } from '../engine/engine.store.ts'

import { hasSingleKeys } from '../commands/use-single-keys.ts'

const { t } = useI18n()
const engine = useEngineStore()
const choices = computed(() => (['auto', 'cpu', 'gl'] as const).map((pin: ExecutorPin) => ({ value: pin, label: t(`machine.pins.${pin}`) })))
const explanation = computed(() => {
  const state = engine.executor
  if (state === null) return t('machine.starting')
  const { name, reason, times } = state
  if (reason === 'measured' && times !== null) {
    return t(`machine.measured.${name}`, { cpu: times.cpuMs.toFixed(1), card: times.cardMs.toFixed(1) })
  }
  return t(`machine.reasons.${reason}`, { who: t(`machine.makers.${name}`) })
})
</script>

<template>
  <Popover class="relative">
    <PopoverButton
      class="inline-grid size-8 place-items-center rounded-md text-soft hover:bg-sunk hover:text-ink"
      :aria-label="t('machine.title')"
      :title="t('machine.title')"
    >
      <Cpu :size="16" :stroke-width="1.8" aria-hidden="true" />
    </PopoverButton>
    <PopoverPanel class="absolute right-0 z-30 mt-1 w-80 rounded-xl border border-line bg-raised p-4 shadow-lg" data-testid="machine">
      <h2 class="font-head text-[15px] font-bold">{{ t('machine.title') }}</h2>
      <p class="mt-2 mb-1 text-soft">{{ t('machine.madeBy') }}</p>
      <ChoiceBar :model-value="engine.pin" :label="t('machine.madeBy')" :choices="choices" @update:model-value="engine.pinExecutor($event)" />
      <p class="mt-2.5 text-[12.5px] leading-snug" role="status" :data-executor="engine.executor?.name">{{ explanation }}</p>
      <p class="mt-3 flex items-center gap-2 border-t border-line pt-2.5">
        <ToggleSwitch v-model="hasSingleKeys" :label="t('machine.keys')" />
        <span>{{ t('machine.keys') }}</span>
      </p>
    </PopoverPanel>
  </Popover>
</template>
