<script setup lang="ts">
// One figure in words. Pressing it says what it means.
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { useFloatingPanel } from '../base/use-floating-panel.ts'
import type { FigureWords } from './use-figure-words.ts'

defineProps<{ figure: FigureWords; before?: string | null }>()
const { t } = useI18n()
const anchor = useTemplateRef<HTMLElement>('anchor')
const panel = useTemplateRef<HTMLElement>('panel')
const floatingStyles = useFloatingPanel(anchor, panel, () => 'top-end')
</script>

<template>
  <Popover as="div" class="min-w-0" :data-testid="`figure-${figure.id}`">
    <span ref="anchor" class="flex">
      <PopoverButton
        class="flex min-h-6 w-full min-w-0 items-baseline gap-1.5 rounded px-1 text-start text-[12px] hover:bg-sunk"
        :title="`${figure.hint} ${t('scopes.goodIs', { limit: figure.limit })}`"
      >
        <span class="min-w-0 flex-1 truncate text-soft">{{ figure.label }}</span>
        {{ ' ' }}
        <template v-if="before">
          <span class="font-num text-soft tabular-nums">{{ before }} →</span>
          {{ ' ' }}
        </template>
        <span class="font-num tabular-nums" data-figure>{{ figure.value }}</span>
        {{ ' ' }}
        <template v-if="figure.isGood !== null">
          <span class="font-medium" :class="figure.isGood ? 'text-green' : 'text-brass'" data-word
            >· {{ figure.isGood ? t('scopes.good') : t('scopes.high') }}</span
          >
          {{ ' ' }}
        </template>
        <span v-if="!before" class="whitespace-nowrap text-soft">({{ figure.limit }})</span>
      </PopoverButton>
    </span>
    <Teleport to="body">
      <div ref="panel" class="z-50" :style="floatingStyles">
        <PopoverPanel role="dialog" :aria-label="figure.label" class="w-64 rounded-xl border border-line bg-raised px-3.5 py-2.5 leading-snug shadow-lg">
          <b class="font-semibold">{{ figure.label }}.</b> {{ figure.hint }} {{ t('scopes.goodIs', { limit: figure.limit }) }}
        </PopoverPanel>
      </div>
    </Teleport>
  </Popover>
</template>
