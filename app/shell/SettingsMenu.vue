<script setup lang="ts">
// What holds in this browser only: the theme, who draws the picture and how fast, and keys.
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { AppWindow, Keyboard, Search, Settings2 } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { decimals } from '../base/decimals.ts'
import type { ExecutorPin } from '../../engine/executors.ts'
import BaseButton from '../base/BaseButton.vue'
import ChoiceBar from '../base/ChoiceBar.vue'
import ToggleSwitch from '../base/ToggleSwitch.vue'
import { keyWords } from '../commands/keys.ts'
import { useKeysStore } from '../commands/keys.store.ts'
import { hasSingleKeys } from '../commands/use-single-keys.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { languages } from '../locales/languages.ts'
import { useInstall } from './use-install.ts'
import { useLanguage } from './use-language.ts'
import { useTheme } from './use-theme.ts'

const { t } = useI18n()
const engine = useEngineStore()
const keys = useKeysStore()
const { theme } = useTheme()
const { chosen: language, failed: languageFailed, choose: chooseLanguage } = useLanguage()
const languageOptions = computed(() => [
  { value: 'auto', label: t('settings.languages.auto') },
  ...Object.entries(languages).map(([value, { name }]) => ({ value, label: name })),
])
const { canInstall, install } = useInstall()
const themes = computed(() => (['paper', 'blackout'] as const).map((value) => ({ value, label: t(`settings.themes.${value}`) })))
const choices = computed(() => (['auto', 'cpu', 'gl'] as const).map((pin: ExecutorPin) => ({ value: pin, label: t(`machine.pins.${pin}`) })))
const explanation = computed(() => {
  const state = engine.executor
  if (state === null) return t('machine.starting')
  const { name, reason, times } = state
  if (reason === 'measured' && times !== null) {
    return t(`machine.measured.${name}`, { cpu: decimals(times.cpuMs, 1), card: decimals(times.cardMs, 1) })
  }
  return reason === 'pinned' ? t(`machine.pinned.${name}`) : t(`machine.reasons.${reason}`)
})
const shortcuts = computed(() => [
  { icon: Search, label: t('commands.title'), key: keys.keysOf('palette')[0], run: () => (keys.isPaletteShown = true) },
  { icon: Keyboard, label: t('keys.open'), key: keys.keysOf('keys')[0], run: () => (keys.isListShown = true) },
  ...(canInstall.value ? [{ icon: AppWindow, label: t('settings.install'), key: undefined, run: () => void install() }] : []),
])
</script>

<template>
  <Popover v-slot="{ close }" class="relative">
    <PopoverButton
      class="inline-grid size-8 place-items-center rounded-md text-soft hover:bg-sunk hover:text-ink"
      :aria-label="t('settings.title')"
      :data-tip="t('settings.title')"
    >
      <Settings2 :size="16" :stroke-width="1.8" aria-hidden="true" />
    </PopoverButton>
    <PopoverPanel
      class="absolute end-0 z-50 mt-1 max-h-[calc(100vh-60px)] w-80 overflow-auto rounded-xl border border-line bg-raised p-4 shadow-lg"
      data-testid="settings"
    >
      <h2 class="font-head text-[15px] font-bold">{{ t('settings.title') }}</h2>
      <p class="mt-2 mb-1 text-soft">{{ t('settings.theme') }}</p>
      <ChoiceBar v-model="theme" :label="t('settings.theme')" :choices="themes" />
      <p class="mt-3 mb-1 text-soft">{{ t('settings.language') }}</p>
      <ChoiceBar :model-value="language" :label="t('settings.language')" :choices="languageOptions" @update:model-value="chooseLanguage($event)" />
      <p v-if="languageFailed" role="alert" class="mt-1 text-[12.5px] leading-snug">{{ t('settings.languageFailed', { language: languageFailed }) }}</p>
      <p class="mt-3 mb-1 text-soft">{{ t('machine.madeBy') }}</p>
      <ChoiceBar :model-value="engine.pin" :label="t('machine.madeBy')" :choices="choices" @update:model-value="engine.pinExecutor($event)" />
      <p class="mt-2 text-[12.5px] leading-snug" role="status" :data-executor="engine.executor?.name">{{ explanation }}</p>
      <p class="mt-3 flex items-center gap-2 border-t border-line pt-3">
        <ToggleSwitch v-model="hasSingleKeys" :label="t('machine.keys')" />
        <span class="leading-snug">{{ t('machine.keys') }}</span>
      </p>
      <div class="mt-2 -mb-1 grid gap-0.5">
        <BaseButton v-for="entry in shortcuts" :key="entry.label" kind="quiet" :icon="entry.icon" class="justify-start!" @click="(close(), entry.run())">
          <span class="flex-1 text-start">{{ entry.label }}</span>
          <kbd v-if="entry.key" class="font-num text-[11.5px] text-soft">{{ keyWords(entry.key) }}</kbd>
        </BaseButton>
      </div>
    </PopoverPanel>
  </Popover>
</template>
