<script setup lang="ts">
// What goes with the key on a coloured cloth: found for you, and the empty cloth.
import { ScanSearch, Timer, X } from 'lucide-vue-next'
import { useI18n } from 'vue-i18n'
import type { Step } from '../../../core/show/show.ts'
import BaseButton from '../../base/BaseButton.vue'
import { useFindKey } from '../use-find-key.ts'

const props = defineProps<{ step: Extract<Step, { kind: 'chromaKey' }> }>()
const { t } = useI18n()
const { progress, figures, countdown, find, cancel, takePlate, stopCountdown } = useFindKey(() => props.step)
const percent = (share: number) => `${(share * 100).toFixed(1)} %`
</script>

<template>
  <div class="mb-2 grid gap-2">
    <BaseButton v-if="progress === null" kind="primary" :icon="ScanSearch" data-testid="find-key" @click="find">{{ t('key.find') }}</BaseButton>
    <div v-else class="flex items-center gap-2" role="status">
      <div class="h-1.5 flex-1 overflow-hidden rounded bg-line" role="progressbar" :aria-label="t('key.finding')" :aria-valuenow="Math.round(progress * 100)">
        <div class="h-full bg-green transition-[width] duration-150" :style="{ width: `${progress * 100}%` }"></div>
      </div>
      <BaseButton kind="quiet" :icon="X" @click="cancel">{{ t('key.cancel') }}</BaseButton>
    </div>
    <table v-if="figures" class="w-full text-[12px]" data-testid="key-figures">
      <thead class="text-soft">
        <tr>
          <th class="text-left font-normal">{{ t('key.figures') }}</th>
          <th class="text-right font-normal">{{ t('bench.before') }}</th>
          <th class="text-right font-normal">{{ t('bench.after') }}</th>
        </tr>
      </thead>
      <tbody class="font-num tabular-nums">
        <tr>
          <td class="font-text">{{ t('scopes.fringe') }}</td>
          <td class="text-right">{{ figures.before.fringe.toFixed(1) }}</td>
          <td class="text-right">{{ figures.after.fringe.toFixed(1) }}</td>
        </tr>
        <tr v-for="name in ['seeThrough', 'veil', 'unsure'] as const" :key="name">
          <td class="font-text">{{ t(`scopes.${name}`) }}</td>
          <td class="text-right">{{ percent(figures.before[name]) }}</td>
          <td class="text-right">{{ percent(figures.after[name]) }}</td>
        </tr>
      </tbody>
    </table>
    <div class="flex items-center gap-2">
      <BaseButton v-if="countdown === null" class="flex-1" :icon="Timer" :title="t('key.plateHint')" @click="takePlate">{{ t('key.plate') }}</BaseButton>
      <template v-else>
        <p role="status" class="flex-1 rounded-lg bg-wash px-2.5 py-1.5">
          {{ t('key.stepOut') }} <b class="font-num text-[15px]">{{ countdown }}</b>
        </p>
        <BaseButton kind="quiet" :icon="X" @click="stopCountdown">{{ t('key.cancel') }}</BaseButton>
      </template>
    </div>
  </div>
</template>
