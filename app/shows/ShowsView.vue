<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { Copy, FolderInput, History, PackageOpen, Pencil, Plus, Search, Trash2 } from 'lucide-vue-next'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { errorWords } from '../show/error-words.ts'
import { useRouter } from 'vue-router'
import { toast } from 'vue-sonner'
import { isCamera } from '../../core/inputs/camera.ts'
import { inputOf } from '../../core/layers/index.ts'
import { renameShow } from '../../core/show/edits.ts'
import type { Layer, Show } from '../../core/show/show.ts'
import type { MenuAction } from '../base/ActionMenu.vue'
import BaseButton from '../base/BaseButton.vue'
import EmptyState from '../base/EmptyState.vue'
import SelectMenu from '../base/SelectMenu.vue'
import { api, type DeletedShow, type ShowSummary } from '../show/api.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import DeletedShows from './DeletedShows.vue'
import NewShowDialog from './NewShowDialog.vue'
import ShowRow from './ShowRow.vue'
import { listedShows, showOrders, type ShowOrder } from './show-list.ts'
import UnusedFiles from './UnusedFiles.vue'
import { useTravel } from './use-travel.ts'
import UnreadableShow from './UnreadableShow.vue'
import VersionsDialog from './VersionsDialog.vue'

const RETRY_MS = 1500
const { t, locale } = useI18n()
const router = useRouter()
const showStore = useShowStore()
const shows = shallowRef<readonly ShowSummary[]>([])
const typed = ref('')
const storedOrder = useLocalStorage<string>('green-room:show-order', 'changed')
const order = computed<ShowOrder>({ get: () => showOrders.find((one) => one === storedOrder.value) ?? 'changed', set: (one) => (storedOrder.value = one) })
const orders = computed(() => showOrders.map((value) => ({ value, label: t(`shows.orders.${value}`) })))
const listed = computed(() => listedShows(shows.value, typed.value, order.value, locale.value))
const unreadable = ref<ShowSummary[]>([])
const deleted = ref<readonly DeletedShow[]>([])
const isLoaded = ref(false)
const hasFailed = ref(false)
const renamingId = ref<string | null>(null)
const isAsking = ref(false)
const last = shallowRef<Show | null>(null)
const versionsId = ref<string | null>(null)
let timer: number | null = null

async function load(): Promise<void> {
  try {
    const [summaries, gone] = await Promise.all([api.listShows(), api.listDeleted()])
    deleted.value = gone
    unreadable.value = summaries.filter((summary) => summary.unreadable !== null)
    shows.value = summaries.filter((summary) => summary.unreadable === null)
    isLoaded.value = true
    hasFailed.value = false
  } catch {
    hasFailed.value = true
    timer = window.setTimeout(() => void load(), RETRY_MS)
  }
}

onMounted(() => {
  showStore.close()
  void load()
})
onBeforeUnmount(() => {
  if (timer !== null) window.clearTimeout(timer)
})

/** Runs a call, says what went wrong, and brings the list up to date; whether all went well. */
async function attempt(run: () => Promise<unknown>): Promise<boolean> {
  let isDone = false
  try {
    await run()
    isDone = true
  } catch (error) {
    toast.error(errorWords(error))
  }
  await load()
  return isDone
}

const { exportShow, importShows, chooseFiles } = useTravel(() => void load())
const isDropTarget = ref(false)

function onDrop(event: DragEvent): void {
  isDropTarget.value = false
  const files = [...(event.dataTransfer?.files ?? [])]
  if (files.length > 0) void importShows(files)
}

const isPresenter = (show: Show, layer: Layer) => {
  const input = inputOf(show, layer)
  return input !== undefined && isCamera(input)
}

function create(show: Show): Promise<boolean> {
  return attempt(async () => {
    const stored = await api.createShow(show)
    // What is worked on first is the presenter.
    const first = stored.show.scenes[0]?.layers.findLast((layer) => isPresenter(stored.show, layer))
    await router.push({ name: 'build', params: { showId: stored.id }, query: first === undefined ? {} : { layer: first.id } })
  })
}

function rename(summary: ShowSummary, name: string): Promise<boolean> {
  return attempt(async () => {
    const { revision, show } = await api.getShow(summary.id)
    await api.saveShow(summary.id, revision, renameShow(show, name), makeId())
  })
}

function duplicate(summary: ShowSummary): Promise<boolean> {
  return attempt(async () => {
    const { show } = await api.getShow(summary.id)
    await api.createShow(renameShow(show, t('shows.copyName', { name: show.name.slice(0, 70) })))
  })
}

/** The dialog offers the colours and the presenter of the show that was worked on last. */
async function ask(): Promise<void> {
  const [newest] = listedShows(shows.value, '', 'changed', locale.value)
  try {
    last.value = newest === undefined ? null : (await api.getShow(newest.id)).show
  } catch (error) {
    toast.error(errorWords(error))
    last.value = null
  }
  isAsking.value = true
}

function remove(id: string, name: string): Promise<boolean> {
  return attempt(async () => {
    await api.deleteShow(id)
    toast(t('shows.deleted', { name }), {
      duration: 10_000,
      action: { label: t('shows.bringBack'), onClick: () => void attempt(() => api.undeleteShow(id)) },
    })
  })
}

function actionsOf(summary: ShowSummary): MenuAction[] {
  const { id, name } = summary
  return [
    { label: t('shows.rename'), icon: Pencil, run: () => (renamingId.value = id) },
    { label: t('shows.duplicate'), icon: Copy, run: () => void duplicate(summary) },
    { label: t('shows.exportShow'), icon: PackageOpen, run: () => exportShow(id) },
    { label: t('shows.versions'), icon: History, run: () => (versionsId.value = id) },
    { label: t('shows.delete'), icon: Trash2, run: () => void remove(id, name) },
  ]
}
</script>

<template>
  <main
    tabindex="-1"
    class="min-h-0 overflow-auto px-5 py-7 sm:px-10"
    :class="isDropTarget ? 'outline-2 -outline-offset-4 outline-brass outline-dashed' : ''"
    @dragover.prevent="isDropTarget = true"
    @dragleave="isDropTarget = false"
    @drop.prevent="onDrop"
  >
    <div class="mx-auto max-w-[1060px]">
      <div class="mb-7 flex items-end gap-4">
        <div class="flex-1">
          <h1 class="font-head text-[28px] leading-tight font-bold tracking-tight">{{ t('shows.title') }}</h1>
          <p class="mt-1 text-[14px] text-soft">{{ t('shows.intro') }}</p>
        </div>
        <BaseButton :icon="FolderInput" @click="chooseFiles">{{ t('shows.importShow') }}</BaseButton>
        <BaseButton kind="primary" :icon="Plus" @click="ask">{{ t('shows.new') }}</BaseButton>
      </div>
      <div v-if="shows.length > 1" class="mb-4 flex flex-wrap items-center gap-3">
        <label class="flex h-9 min-w-48 flex-1 items-center gap-2 rounded-lg border border-line bg-raised px-3 focus-within:border-soft">
          <Search :size="15" class="shrink-0 text-soft" aria-hidden="true" />
          <input
            v-model="typed"
            type="search"
            class="min-w-0 flex-1 bg-transparent outline-none"
            :placeholder="t('shows.search')"
            :aria-label="t('shows.search')"
          />
        </label>
        <SelectMenu v-model="order" class="w-52" :label="t('shows.order')" :options="orders" />
      </div>
      <p v-if="shows.length > 0 && listed.length === 0" class="py-6 text-center text-soft" role="status">{{ t('shows.noneFound') }}</p>
      <p v-if="hasFailed" role="alert" class="mb-5 rounded-lg bg-wash px-4 py-2">{{ t('shows.loadFailed') }}</p>
      <EmptyState v-if="isLoaded && shows.length + unreadable.length === 0" :title="t('shows.empty')" :hint="t('shows.emptyHint')">
        <BaseButton kind="primary" :icon="Plus" @click="ask">{{ t('shows.new') }}</BaseButton>
      </EmptyState>
      <ul v-if="listed.length > 0" class="border-t border-line" :aria-label="t('shows.title')">
        <ShowRow
          v-for="summary in listed"
          :key="summary.id"
          :summary="summary"
          :actions="actionsOf(summary)"
          :is-renaming="renamingId === summary.id"
          @rename="rename(summary, $event)"
          @renamed="renamingId = null"
        />
      </ul>
      <ul v-if="unreadable.length > 0" class="mt-7 grid gap-3">
        <li v-for="show in unreadable" :key="show.id">
          <UnreadableShow :show="show" @versions="versionsId = show.id" @delete="remove(show.id, show.name)" />
        </li>
      </ul>
      <DeletedShows :shows="deleted" @bring-back="(id) => attempt(() => api.undeleteShow(id))" />
      <UnusedFiles v-if="isLoaded" />
    </div>
    <NewShowDialog v-if="isAsking" :create="create" :last="last" @close="isAsking = false" />
    <VersionsDialog
      v-if="versionsId"
      :is-open="versionsId !== null"
      :show-id="versionsId"
      :restore="(revision) => api.restoreVersion(versionsId!, revision)"
      @close="versionsId = null"
      @restored="load"
    />
  </main>
</template>
