<script setup lang="ts">
// The way into a meeting: the extension, and which sites may have the feed.
import { BadgeCheck, Undo2 } from 'lucide-vue-next'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import BaseButton from '../base/BaseButton.vue'
import { useSitesStore } from '../sites/sites.store.ts'
import ExtensionGuide from './ExtensionGuide.vue'

const { t } = useI18n()
const sites = useSitesStore()
/** Every site that has a decision, or a page open now. */
const rows = computed(() => {
  const origins = [...new Set([...sites.decided.map(({ origin }) => origin), ...sites.open.map(({ origin }) => origin)])]
  return origins.map((origin) => {
    const decision = sites.decided.find((site) => site.origin === origin)?.decision ?? null
    const open = sites.open.filter((site) => site.origin === origin)
    const state = decision ?? (open.some((site) => site.state === 'allowed') ? 'once' : open.some((site) => site.state === 'refused') ? 'refused' : 'asking')
    return { origin, state, isOpen: open.length > 0 } as const
  })
})
</script>

<template>
  <div data-testid="meeting-panel">
    <div v-if="sites.extensionVersion" class="mb-3 flex items-start gap-2.5 rounded-lg border border-line bg-raised p-3" role="status">
      <BadgeCheck :size="20" class="mt-px shrink-0 text-green" aria-hidden="true" />
      <div>
        <p class="font-semibold">{{ t('extension.there') }}</p>
        <p class="leading-snug text-soft">{{ t('extension.thereHelp') }}</p>
      </div>
    </div>
    <ExtensionGuide v-else />
    <h3 class="mt-4 mb-1 border-t border-line pt-2.5 font-semibold">{{ t('sites.title') }}</h3>
    <p v-if="rows.length === 0" class="leading-snug text-soft">{{ t('sites.none') }}</p>
    <ul>
      <li v-for="row in rows" :key="row.origin" class="flex min-h-9 items-center gap-2 border-b border-line last:border-0">
        <span class="min-w-0 flex-1">
          <span class="block truncate font-medium" :title="row.origin">{{ row.origin.replace(/^https:\/\//, '') }}</span>
          <span class="block text-[12px] text-soft"
            >{{ t(`sites.states.${row.state}`) }}<template v-if="row.isOpen">, {{ t('sites.openNow') }}</template></span
          >
        </span>
        <BaseButton v-if="row.state !== 'asking'" class="py-0.5!" kind="quiet" :icon="Undo2" @click="sites.forget(row.origin)">
          {{ t('sites.takeBack') }}<span class="sr-only">: {{ row.origin }}</span>
        </BaseButton>
      </li>
    </ul>
    <p v-if="sites.failure" role="alert" class="mt-2 rounded-md bg-wash px-2.5 py-2">{{ t('sites.failed', { why: sites.failure }) }}</p>
  </div>
</template>
