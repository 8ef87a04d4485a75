<script setup lang="ts">
import { inputKindOf } from '../../core/inputs/index.ts'
import { inputOf } from '../../core/layers/index.ts'
import { ChevronDown, History, LayoutGrid, Pencil, Redo2, Undo2 } from 'lucide-vue-next'
import { computed, defineAsyncComponent, onMounted, reactive, ref, watchEffect } from 'vue'
import { useI18n } from 'vue-i18n'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { renameShow } from '../../core/show/edits.ts'
import ActionMenu from '../base/ActionMenu.vue'
import IconButton from '../base/IconButton.vue'
import InlineName from '../base/InlineName.vue'
import UseOwnDevices from '../devices/UseOwnDevices.vue'
import { useShowStore } from '../show/show.store.ts'
import VoiceControl from '../sound/VoiceControl.vue'
import VersionsDialog from '../shows/VersionsDialog.vue'
import FeedControl from './FeedControl.vue'
import { useKeysStore } from '../commands/keys.store.ts'
import { useCommands } from '../commands/use-commands.ts'
import SaveNote from './SaveNote.vue'
import SelfMark from './SelfMark.vue'
import SettingsMenu from './SettingsMenu.vue'
import StepsMenu from './StepsMenu.vue'

// Not needed before the first press: what they bring loads after the page has come to rest.
const loadPalette = () => import('../commands/CommandPalette.vue')
const loadKeys = () => import('../commands/KeysDialog.vue')
const CommandPalette = defineAsyncComponent(loadPalette)
const KeysDialog = defineAsyncComponent(loadKeys)
const { t } = useI18n()
const route = useRoute()
const router = useRouter()
const showStore = useShowStore()
const { commands, run } = useCommands()
const keys = useKeysStore()
/** A dialog stays once it has been opened. */
const hasOpened = reactive({ palette: false, keys: false })
watchEffect(() => {
  hasOpened.palette ||= keys.isPaletteShown
  hasOpened.keys ||= keys.isListShown
})
onMounted(() => {
  // A failure is no matter yet: the first press loads it again.
  window.requestIdleCallback(() => void Promise.allSettled([loadPalette(), loadKeys()]), { timeout: 5000 })
})
const isRenaming = ref(false)
const isVersionsOpen = ref(false)

const isInShow = computed(() => route.name === 'build' || route.name === 'bench' || route.name === 'devices')
/** In working order. */
const views = computed(() => [
  { name: 'devices', label: t('nav.devices') },
  { name: 'bench', label: t('nav.bench') },
  { name: 'build', label: t('nav.build') },
])
/** The bench opens on what is selected in Build. */
const benchInput = computed(() => {
  const { layer, show } = showStore
  const input = show === null ? undefined : inputOf(show, layer ?? undefined)
  return input === undefined || !inputKindOf(input).hasPicture || route.name === 'bench' ? {} : { inputId: input.id }
})
const showActions = computed(() => [
  { label: t('nav.shows'), icon: LayoutGrid, run: () => void router.push({ name: 'shows' }) },
  { label: t('header.rename'), icon: Pencil, run: () => (isRenaming.value = true) },
  { label: t('header.versions'), icon: History, run: () => (isVersionsOpen.value = true) },
])

/** "move Class title", and where, when that is not on the stage. */
const where = (what: string, scene: { readonly name: string } | null) => (scene === null ? what : t('edits.inScene', { what, scene: scene.name }))
const undoWords = computed(() =>
  showStore.undoLabel === null ? t('header.undoNone') : t('header.undo', { what: where(showStore.undoLabel, showStore.undoScene) }),
)
const redoWords = computed(() =>
  showStore.redoLabel === null ? t('header.redoNone') : t('header.redo', { what: where(showStore.redoLabel, showStore.redoScene) }),
)

function rename(name: string): void {
  showStore.edit(t('edits.rename', { name: showStore.show?.name ?? '' }), (show) => renameShow(show, name))
}
</script>

<template>
  <header class="header border-b border-line px-3">
    <SelfMark class="absolute bottom-0 start-2" />
    <!-- A long name gives way before words that tell how things are. -->
    <div class="flex min-w-0 shrink-[8] items-center gap-3">
      <RouterLink
        :to="{ name: 'shows' }"
        class="flex min-h-8 shrink-0 items-center gap-2 rounded-md font-head text-[17px] font-bold tracking-tight"
        :title="t('nav.shows')"
      >
        <img src="/favicon.svg" alt="" width="24" height="24" />
        <span :class="isInShow ? 'max-[1479px]:sr-only' : ''">{{ t('app.name') }}</span>
      </RouterLink>
      <div v-if="isInShow && showStore.show" class="min-w-0 border-s border-line ps-3 text-soft">
        <InlineName
          v-if="isRenaming"
          :model-value="showStore.show.name"
          :label="t('shows.nameLabel')"
          is-editing
          @update:model-value="rename"
          @done="isRenaming = false"
        />
        <ActionMenu v-else :actions="showActions" :label="t('header.showMenu', { name: showStore.show.name })">
          <span dir="auto" class="min-w-0 max-w-44 truncate hover:text-ink" :title="showStore.show.name">{{ showStore.show.name }}</span>
          <ChevronDown :size="14" class="shrink-0" aria-hidden="true" />
        </ActionMenu>
      </div>
    </div>

    <nav v-if="isInShow" :aria-label="t('nav.views')" class="flex items-center">
      <template v-for="(view, index) in views" :key="view.name">
        <i v-if="index > 0" class="h-px w-4 bg-line"></i>
        <RouterLink
          :to="{ name: view.name, params: { showId: route.params['showId'] as string, ...(view.name === 'bench' ? benchInput : {}) } }"
          class="mx-1.5 grid h-11 place-items-center border-b-[3px] px-1.5 pt-[3px] font-head text-[15px] font-semibold"
          :class="route.name === view.name ? 'border-brass text-ink' : 'border-transparent text-soft hover:text-ink'"
          :aria-current="route.name === view.name ? 'page' : undefined"
        >
          {{ view.label }}
        </RouterLink>
      </template>
    </nav>

    <div class="ms-auto flex min-w-0 items-center justify-end gap-1 max-[819px]:flex-wrap">
      <template v-if="isInShow">
        <SaveNote class="me-2" />
        <IconButton :icon="Undo2" :label="undoWords" :disabled="commands.undo.whyNot !== null" @click="run('undo')" />
        <IconButton :icon="Redo2" :label="redoWords" :disabled="commands.redo.whyNot !== null" @click="run('redo')" />
        <StepsMenu />
      </template>
      <SettingsMenu />
      <UseOwnDevices v-if="isInShow" />
      <VoiceControl class="ms-1" />
      <FeedControl class="ms-2" />
    </div>
  </header>
  <KeysDialog v-if="hasOpened.keys" />
  <CommandPalette v-if="hasOpened.palette" />
  <VersionsDialog
    v-if="showStore.showId"
    :is-open="isVersionsOpen"
    :show-id="showStore.showId"
    :restore="showStore.restoreVersion"
    @close="isVersionsOpen = false"
  />
</template>

<style scoped>
.header {
  position: relative;
  display: flex;
  align-items: center;
  gap: 4px 14px;
  min-width: 0;
}
@media (max-width: 819px), (max-height: 519px) {
  .header {
    flex-wrap: wrap;
    padding-block: 4px;
  }
}
</style>
