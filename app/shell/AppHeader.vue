<script setup lang="ts">
import { ChevronDown, History, LayoutGrid, Moon, Pencil, Redo2, Sun, Undo2 } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { renameShow } from '../../core/show/edits.ts'
import ActionMenu from '../base/ActionMenu.vue'
import IconButton from '../base/IconButton.vue'
import InlineName from '../base/InlineName.vue'
import { useShowStore } from '../show/show.store.ts'
import VersionsDialog from '../shows/VersionsDialog.vue'
import FeedControl from './FeedControl.vue'
import MachineMenu from './MachineMenu.vue'
import SaveNote from './SaveNote.vue'
import { useTheme } from './use-theme.ts'

const { t } = useI18n()
const route = useRoute()
const router = useRouter()
const showStore = useShowStore()
const { theme, toggle } = useTheme()
const isRenaming = ref(false)
const isVersionsOpen = ref(false)

const isInShow = computed(() => route.name === 'build' || route.name === 'bench')
const views = computed(() => [
  { name: 'bench', label: t('nav.bench') },
  { name: 'build', label: t('nav.build') },
])
const showActions = computed(() => [
  { label: t('nav.shows'), icon: LayoutGrid, run: () => void router.push({ name: 'shows' }) },
  { label: t('header.rename'), icon: Pencil, run: () => (isRenaming.value = true) },
  { label: t('header.versions'), icon: History, run: () => (isVersionsOpen.value = true) },
])

function rename(name: string): void {
  showStore.edit(t('edits.rename'), (show) => renameShow(show, name))
}
</script>

<template>
  <header class="grid grid-cols-[auto_1fr_auto] min-[1240px]:grid-cols-[minmax(0,1fr)_auto_minmax(0,1fr)] items-center gap-3 border-b border-line px-4">
    <div class="flex min-w-0 items-center gap-4">
      <RouterLink :to="{ name: 'shows' }" class="flex shrink-0 items-center gap-2 font-head text-[18px] font-bold tracking-tight">
        <img src="/favicon.svg" alt="" width="26" height="26" />
        {{ t('app.name') }}
      </RouterLink>
      <div v-if="isInShow && showStore.show" class="min-w-0 border-l border-line pl-4 text-soft">
        <InlineName
          v-if="isRenaming"
          :model-value="showStore.show.name"
          :label="t('shows.nameLabel')"
          is-editing
          @update:model-value="rename"
          @done="isRenaming = false"
        />
        <ActionMenu v-else :actions="showActions" :label="t('header.showMenu', { name: showStore.show.name })">
          <span class="max-w-32 truncate hover:text-ink min-[1240px]:max-w-44" :title="showStore.show.name">{{ showStore.show.name }}</span>
          <ChevronDown :size="14" aria-hidden="true" />
        </ActionMenu>
      </div>
    </div>

    <nav v-if="isInShow" :aria-label="t('nav.views')" class="flex items-center justify-self-center">
      <template v-for="(view, index) in views" :key="view.name">
        <i v-if="index > 0" class="h-px w-4 bg-line"></i>
        <RouterLink
          :to="{ name: view.name, params: { showId: route.params['showId'] as string } }"
          class="mx-2 grid h-[52px] place-items-center border-b-[3px] px-1.5 pt-[3px] font-head text-[15px] font-semibold"
          :class="route.name === view.name ? 'border-brass text-ink' : 'border-transparent text-soft hover:text-ink'"
          :aria-current="route.name === view.name ? 'page' : undefined"
        >
          {{ view.label }}
        </RouterLink>
      </template>
    </nav>
    <span v-else></span>

    <div class="flex min-w-0 items-center justify-end gap-1">
      <template v-if="isInShow">
        <SaveNote class="mr-2" />
        <IconButton
          :icon="Undo2"
          :label="showStore.undoLabel === null ? t('header.undoNone') : t('header.undo', { what: showStore.undoLabel })"
          :disabled="showStore.undoLabel === null"
          @click="showStore.undo()"
        />
        <IconButton
          :icon="Redo2"
          :label="showStore.redoLabel === null ? t('header.redoNone') : t('header.redo', { what: showStore.redoLabel })"
          :disabled="showStore.redoLabel === null"
          @click="showStore.redo()"
        />
      </template>
      <IconButton :icon="theme === 'paper' ? Moon : Sun" :label="theme === 'paper' ? t('header.toBlackout') : t('header.toPaper')" @click="toggle" />
      <MachineMenu v-if="isInShow" />
      <FeedControl v-if="isInShow" class="ml-2" />
    </div>
  </header>
  <VersionsDialog
    v-if="showStore.showId"
    :is-open="isVersionsOpen"
    :show-id="showStore.showId"
    :restore="showStore.restoreVersion"
    @close="isVersionsOpen = false"
  />
</template>
