<script setup lang="ts">
// Every step of this sitting by name, to go back to any of them, or forth again, at once.
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { Check, ChevronDown } from 'lucide-vue-next'
import { computed, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { useFloatingPanel } from '../base/use-floating-panel.ts'
import { useShowStore } from '../show/show.store.ts'

const { t } = useI18n()
const showStore = useShowStore()
const anchor = useTemplateRef<HTMLElement>('anchor')
const panel = useTemplateRef<HTMLElement>('panel')
const floatingStyles = useFloatingPanel(anchor, panel, () => 'bottom-end')

/** From the step that can be done again last down to the first one: each with how many steps it is away. */
const rows = computed(() => {
  const { past, future } = showStore.steps
  const ahead = future.map((label, i) => ({ label, by: -(i + 1), isNow: false })).toReversed()
  const behind = past.map((label, i) => ({ label, by: i, isNow: i === 0 }))
  return [...ahead, ...behind, { label: t('header.stepsFirst'), by: past.length, isNow: past.length === 0 }]
})
const isEmpty = computed(() => rows.value.length === 1)
</script>

<template>
  <Menu v-slot="{ open }" as="div">
    <span ref="anchor" class="inline-flex">
      <MenuButton
        class="inline-grid h-8 w-6 place-items-center rounded-md text-soft hover:bg-sunk hover:text-ink"
        :aria-label="t('header.steps')"
        :data-tip="t('header.steps')"
      >
        <ChevronDown :size="13" aria-hidden="true" />
      </MenuButton>
    </span>
    <Teleport to="body">
      <div ref="panel" :role="open ? 'region' : undefined" :aria-label="open ? t('header.steps') : undefined" class="z-50 flex" :style="floatingStyles">
        <MenuItems
          class="max-h-full w-72 overflow-auto rounded-xl border border-line bg-raised p-1.5 shadow-[0_8px_28px_#0000002e] focus:outline-none"
          :aria-label="t('header.steps')"
        >
          <p role="presentation" class="px-2.5 pt-1 pb-1.5 text-[12px] text-soft">{{ isEmpty ? t('header.stepsNone') : t('header.steps') }}</p>
          <MenuItem v-for="(row, i) in rows" :key="i" v-slot="{ active }">
            <button
              type="button"
              class="flex w-full items-center gap-2 rounded-lg px-2.5 py-1 text-start"
              :class="[active ? 'bg-wash' : '', row.by < 0 ? 'text-soft' : '', row.isNow ? 'font-medium' : '']"
              :aria-current="row.isNow ? 'step' : undefined"
              @click="showStore.jump(row.by)"
            >
              <Check :size="13" class="shrink-0" :class="row.isNow ? 'text-green' : 'invisible'" aria-hidden="true" />
              <span class="min-w-0 flex-1 truncate first-letter:uppercase" :title="row.label">{{ row.label }}</span>
            </button>
          </MenuItem>
        </MenuItems>
      </div>
    </Teleport>
  </Menu>
</template>
