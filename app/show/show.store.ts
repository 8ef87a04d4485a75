// The open show: its document, its history, its saving, and what is selected in it.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, triggerRef } from 'vue'
import { brokenLimit, type LimitedThing } from '../../core/show/broken-limit.ts'
import { brokenLock } from '../../core/show/locks.ts'
import type { Scene, Show } from '../../core/show/show.ts'
import { api, type StoredShow } from './api.ts'
import { browserHost, holdTabLock } from './browser-host.ts'
import { changedScene } from './changed-scene.ts'
import { FinishingShows } from './finishing-shows.ts'
import { History } from './history.ts'
import { useSelection } from './use-selection.ts'
import { ShowSession, type Role, type SessionNotice, type ShowChange } from './show-session.ts'
import type { SaveState } from './show-saver.ts'

/** What the presenter is to be told. */
export type ShowNotice = { readonly kind: ShowChange } | SessionNotice

export const useShowStore = defineStore('show', () => {
  const showId = ref<string | null>(null)
  const show = shallowRef<Show | null>(null)
  const selection = useSelection(show)
  const { sceneId, selectScene, selectLayer } = selection
  const saveState = shallowRef<SaveState>({ kind: 'saved' })
  /** Whether this tab may edit; another tab may have the show. */
  const role = ref<Role>('asking')
  /** The scene that goes on air first; one that is gone gives way to the first one, until it is back. */
  const firstId = ref<string | null>(null)
  const history = shallowRef(new History(() => performance.now()))
  /** The locked scene that the last edit would have changed. */
  const lockRefusal = shallowRef<{ readonly sceneId: string; readonly name: string } | null>(null)
  /** What the last edit that was not made would have made too many of. */
  const limitRefusal = shallowRef<{ readonly thing: LimitedThing } | null>(null)
  /** How often something was to be changed while another tab edits. */
  const watchRefusals = ref(0)
  const notice = shallowRef<ShowNotice | null>(null)
  /** Tells the server that another tab may edit now. */
  let yieldShow: (showId: string) => void = () => undefined
  let copyName: (name: string) => string = (name) => name
  const host = browserHost((name) => copyName(name))
  let session: ShowSession | null = null
  let opening = 0
  const finishing = new FinishingShows()
  holdTabLock()

  const isEditor = computed(() => role.value === 'editing')
  const onAirId = computed(() => (show.value?.scenes.find((candidate) => candidate.id === firstId.value) ?? show.value?.scenes[0])?.id ?? null)
  /** Names of the steps that can be undone, newest first, and of those that can be done again, next first. */
  const steps = computed(() => ({ past: history.value.pastLabels, future: history.value.futureLabels }))
  const undoLabel = computed(() => history.value.undoLabel)
  const redoLabel = computed(() => history.value.redoLabel)
  /** The scene that a step back, or forth, changes, when it is not the one on the stage. */
  const undoScene = computed(() => elsewhere(history.value.past))
  const redoScene = computed(() => elsewhere(history.value.future))

  /** Loads a show; `named` gives the name of a copy, should one have to be made. */
  async function open(id: string, named: (name: string) => string): Promise<void> {
    copyName = named
    opening += 1
    const turn = opening
    const stored = await api.getShow(id)
    // Another show was asked for meanwhile.
    if (turn !== opening) return
    close()
    showId.value = id
    history.value = new History(() => performance.now())
    role.value = 'asking'
    // What was not saved when this show was closed goes on from there.
    session = finishing.take(id) ?? startSession(id, stored)
    session.reopen()
    saveState.value = session.saver.state
    adopt(session.saver.unsaved ?? stored.show)
  }

  function startSession(id: string, stored: StoredShow): ShowSession {
    return new ShowSession(host, id, stored, {
      onShow: (next, why) => {
        if (why !== 'recovered') history.value = new History(() => performance.now())
        adopt(next)
        notice.value = { kind: why }
      },
      onSaveState: (state) => (saveState.value = state),
      onRole: (next) => (role.value = next),
      onNotice: (next) => (notice.value = next),
      onYield: () => yieldShow(id),
    })
  }

  function close(): void {
    if (session !== null) {
      const closing = session
      closing.close()
      if (closing.saver.unsaved !== null) finishing.add(closing)
    }
    session = null
    showId.value = null
    show.value = null
    sceneId.value = null
    selectLayer(null)
    firstId.value = null
  }

  function adopt(next: Show): void {
    show.value = next
    if (!next.scenes.some((candidate) => candidate.id === sceneId.value)) {
      sceneId.value = next.scenes[0]?.id ?? null
      selectLayer(null)
    }
  }

  /**
   * Makes an edit: `make` is a pure edit of core. `key` joins a run of edits, such as one drag,
   * into one step of undo. A tab that only watches edits nothing; one that is about to edit does it then. False when nothing was
   * changed: for a lock, a limit, another tab that edits, or because there was nothing to change.
   */
  function edit(label: string, make: (show: Show) => Show, key: string | null = null): boolean {
    let isMade = true
    return whenEditing(() => (isMade = change(label, make, key))) && isMade
  }

  /** Runs something that the presenter asked for now, or when this tab may edit. False, and told, while another tab edits. */
  function whenEditing(run: () => void): boolean {
    if (session === null) return false
    const isTaken = session.whenEditing(run)
    if (!isTaken) watchRefusals.value += 1
    return isTaken
  }

  function change(label: string, make: (show: Show) => Show, key: string | null): boolean {
    const before = show.value
    if (before === null) return false
    const after = make(before)
    if (after === before) return false
    const locked = brokenLock(before, after)
    if (locked !== null) {
      lockRefusal.value = { sceneId: locked.id, name: locked.name }
      return false
    }
    const limited = brokenLimit(before, after)
    if (limited !== null) {
      limitRefusal.value = { thing: limited }
      return false
    }
    history.value.note(before, label, key)
    triggerRef(history)
    adopt(after)
    session?.saver.push(after, null, label)
    return true
  }

  /** Whether a scene, the one on the stage if none is named, is locked; if so the presenter is told that nothing in it changes. */
  function isStopped(id = sceneId.value): boolean {
    const asked = show.value?.scenes.find((one) => one.id === id)
    if (asked?.locked !== true) return false
    lockRefusal.value = { sceneId: asked.id, name: asked.name }
    return true
  }

  /** Notes a fact that is no edit: nothing that undo would take back. */
  function amend(make: (show: Show) => Show): void {
    session?.whenEditing(() => {
      if (show.value === null) return
      const after = make(show.value)
      if (after === show.value) return
      adopt(after)
      session?.saver.push(after)
    })
  }

  const undo = (): boolean => whenEditing(() => travel((current) => history.value.undo(current)))

  /** Goes so many steps back, or forth where negative, in one go. */
  function jump(steps: number): void {
    whenEditing(() =>
      travel((current) => {
        let reached: Show | null = null
        for (let left = Math.abs(steps); left > 0; left -= 1) {
          const next: Show | null = steps > 0 ? history.value.undo(reached ?? current) : history.value.redo(reached ?? current)
          if (next === null) break
          reached = next
        }
        return reached
      }),
    )
  }

  const redo = (): boolean => whenEditing(() => travel((current) => history.value.redo(current)))

  function travel(step: (current: Show) => Show | null): void {
    if (show.value === null) return
    const next = step(show.value)
    if (next === null) return
    const place = changedScene(show.value, next, sceneId.value)
    triggerRef(history)
    adopt(next)
    // What comes back or goes is to be seen.
    if (place !== null) selectScene(place.id)
    session?.saver.push(next)
  }

  function elsewhere(next: Show | null): Scene | null {
    if (show.value === null || next === null) return null
    const place = changedScene(show.value, next, sceneId.value)
    return place?.id === sceneId.value ? null : place
  }

  /** Puts an earlier version in place; what is newest now stays among the versions, and one step back. */
  async function restoreVersion(revision: number): Promise<void> {
    const current = session
    const id = showId.value
    if (current === null || id === null) return
    await current.saver.settle()
    const stored = await api.restoreVersion(id, revision)
    if (session !== current || !current.saver.rebase(stored)) return
    if (show.value !== null) history.value.note(show.value, '', null)
    triggerRef(history)
    adopt(stored.show)
  }

  function setOnAir(id: string): void {
    firstId.value = id
  }

  /** Hears from the server who edits the show. */
  function setEditor(is: boolean): void {
    session?.setEditor(is)
  }

  /** This tab is to edit instead of another. */
  function claim(): void {
    session?.claim()
  }

  function onYield(run: (showId: string) => void): void {
    yieldShow = run
  }

  /** Sends what is unsaved now. */
  function flush(): void {
    session?.saver.flush()
    for (const each of finishing.all) each.saver.flush()
  }

  /** Whether leaving the page now would lose something: it is neither saved nor kept by the browser. */
  function isAtRisk(): boolean {
    return [session, ...finishing.all].some((each) => each !== null && each.saver.unsaved !== null && !each.saver.isKept)
  }

  window.addEventListener('pagehide', () => {
    for (const each of [session, ...finishing.all]) each?.saver.release()
  })
  window.addEventListener('beforeunload', (event) => {
    if (isAtRisk()) event.preventDefault()
  })

  return {
    showId,
    show,
    saveState,
    role,
    isEditor,
    notice,
    ...selection,
    onAirId,
    undoLabel,
    redoLabel,
    undoScene,
    redoScene,
    open,
    close,
    edit,
    amend,
    isStopped,
    undo,
    redo,
    jump,
    steps,
    restoreVersion,
    lockRefusal,
    limitRefusal,
    watchRefusals,
    setOnAir,
    setEditor,
    claim,
    onYield,
    flush,
  }
})
