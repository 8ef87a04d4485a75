<script setup lang="ts">
import { AArrowDown, AArrowUp, ChevronLeft, ChevronRight } from 'lucide-vue-next'
import { useEventListener, useIntervalFn, useLocalStorage, useNow } from '@vueuse/core'
import { computed, ref, shallowRef, watchEffect } from 'vue'
import { useI18n } from 'vue-i18n'
import { figure } from '../base/decimals.ts'
import { isTooSoon } from '../commands/held-key.ts'
import IconButton from '../base/IconButton.vue'
import PageImage from '../decks/PageImage.vue'
import { clockWords } from '../shell/clock-words.ts'
import type { NotesNow } from '../decks/use-notes-window.ts'

const { t } = useI18n()
const LOOK_EVERY_MS = 150
const SIZES_PX = [16, 19, 23, 28, 34, 42] as const
const size = useLocalStorage('green-room:notes-window-size', 2)
const now = shallowRef<NotesNow | null>(null)
const isGone = ref(false)
const clock = useNow({ interval: 1000 })
const onThis = computed(() => (now.value === null ? '' : clockWords(clock.value.getTime() - now.value.sinceMs)))
const elapsed = computed(() => (now.value === null ? '' : clockWords(clock.value.getTime() - now.value.beganMs)))
const isOver = computed(() => now.value?.plannedMin != null && clock.value.getTime() - now.value.beganMs > now.value.plannedMin * 60_000)

/** The studio, for as long as it is open; while it is loaded anew it answers nothing. */
function studio(): Window['greenRoomNotes'] {
  const opener = window.opener as Window | null
  isGone.value = opener === null || opener.closed
  try {
    return isGone.value ? undefined : opener!.greenRoomNotes
  } catch {
    return undefined
  }
}

useIntervalFn(() => (now.value = studio()?.read() ?? null), LOOK_EVERY_MS, { immediateCallback: true })
useEventListener('keydown', (event: KeyboardEvent) => {
  if (event.defaultPrevented || (event.target instanceof HTMLElement && event.target.closest('[data-notes]') !== null && event.key.startsWith('Page'))) return
  const by = ['ArrowRight', 'PageDown', ' '].includes(event.key) ? 1 : ['ArrowLeft', 'PageUp'].includes(event.key) ? -1 : 0
  if (by === 0 || (event.key === ' ' && event.target instanceof HTMLButtonElement)) return
  event.preventDefault()
  if (!isTooSoon(event)) studio()?.turn(by)
})
watchEffect(() => (document.title = now.value === null ? t('decks.windowTitle') : `${t('decks.windowTitle')}: ${now.value.deckName}`))

function resize(by: number): void {
  size.value = Math.min(SIZES_PX.length - 1, Math.max(0, size.value + by))
}
</script>

<template>
  <main class="flex h-screen min-h-0 flex-col bg-paper text-ink" tabindex="-1">
    <header class="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-4 py-2">
      <h1 dir="auto" class="min-w-0 flex-1 truncate font-head text-[17px] font-bold">{{ now?.deckName ?? t('decks.windowTitle') }}</h1>
      <template v-if="now">
        <p class="whitespace-nowrap text-soft">
          {{ t('decks.onThisPage') }} <span class="font-num text-[15px] text-ink tabular-nums">{{ figure(onThis) }}</span>
        </p>
        <p class="whitespace-nowrap text-soft">
          {{ t('decks.elapsed') }}
          <span class="font-num text-[15px] tabular-nums" :class="isOver ? 'font-semibold text-tally' : 'text-ink'">{{ figure(elapsed) }}</span>
          <template v-if="now.plannedMin">{{ ` ${t('decks.plannedOf', { minutes: now.plannedMin })}` }}</template>
        </p>
        <div class="flex items-center">
          <IconButton :icon="AArrowDown" size="small" :label="t('decks.smaller')" :disabled="size === 0" @click="resize(-1)" />
          <IconButton :icon="AArrowUp" size="small" :label="t('decks.larger')" :disabled="size === SIZES_PX.length - 1" @click="resize(1)" />
        </div>
      </template>
    </header>
    <p v-if="now === null" role="status" class="m-auto max-w-80 text-center text-balance text-soft">
      {{ isGone ? t('decks.windowGone') : t('decks.windowWaiting') }}
    </p>
    <div v-else class="grid min-h-0 flex-1 gap-4 overflow-y-auto p-4 min-[640px]:grid-cols-[minmax(0,1fr)_minmax(180px,34%)] min-[640px]:overflow-hidden">
      <div
        dir="auto"
        tabindex="0"
        role="region"
        data-notes
        :aria-label="t('decks.notes')"
        class="min-h-24 overflow-y-auto leading-snug whitespace-pre-line"
        :style="{ fontSize: `${SIZES_PX[size] ?? SIZES_PX[2]}px` }"
      >
        <template v-if="now.page.notes">{{ now.page.notes }}</template>
        <span v-else class="text-soft">{{ t('decks.noNotes') }}</span>
      </div>
      <div class="flex min-w-0 flex-col gap-3">
        <div class="flex items-center justify-between">
          <IconButton
            class="rtl:-scale-x-100"
            :icon="ChevronLeft"
            :label="t('commands.does.previousPage')"
            :disabled="now.index === 0"
            @click="studio()?.turn(-1)"
          />
          <span class="font-num text-[15px] tabular-nums" :aria-label="t('decks.place', { n: now.index + 1, count: now.count })">{{
            figure(`${now.index + 1} / ${now.count}`)
          }}</span>
          <IconButton
            class="rtl:-scale-x-100"
            :icon="ChevronRight"
            :label="t('commands.does.nextPage')"
            :disabled="now.next === null"
            @click="studio()?.turn(1)"
          />
        </div>
        <PageImage :page="now.page" class="aspect-video w-full" />
        <p class="text-soft">{{ now.next === null ? t('decks.last') : t('decks.next') }}</p>
        <PageImage v-if="now.next" :page="now.next" class="aspect-video w-2/3" />
      </div>
    </div>
  </main>
</template>
