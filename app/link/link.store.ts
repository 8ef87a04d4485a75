// The tab's line to the server: whether it stands, and which tab edits the open show.
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { useShowStore } from '../show/show.store.ts'
import { StudioLink } from './studio-link.ts'

export const useLinkStore = defineStore('link', () => {
  const showStore = useShowStore()
  const isServerReached = ref(false)
  const onReached = new Set<() => void>()

  const link = new StudioLink({
    onOpen: (isOpen) => {
      isServerReached.value = isOpen
      if (!isOpen) return
      for (const run of onReached) run()
      showStore.flush()
    },
    onEditor: (showId, isEditor) => {
      if (showId === showStore.showId) showStore.setEditor(isEditor)
    },
  })
  showStore.onYield((showId) => link.yield(showId))

  watch(
    () => showStore.showId,
    (showId) => {
      if (showId === null) link.leave()
      else link.edit(showId, false)
    },
    { immediate: true },
  )

  /** Edits the show here instead of in another tab, once that has saved. */
  function takeOver(): void {
    if (showStore.showId === null) return
    showStore.claim()
    link.edit(showStore.showId, true)
  }

  return {
    isServerReached,
    takeOver,
    signalling: link.signalling,
    /** Runs something each time the server can be reached again. */
    onReached: (run: () => void) => void onReached.add(run),
  }
})
