// What is drawn on pages and over scenes while nothing is kept of it: strokes by surface, steps back and forth, and the pen in hand.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { hasRoomFor, keepDrawing } from '../../core/annotations/keep-drawing.ts'
import { surfacesOf } from '../../core/annotations/surface-at.ts'
import { strokesSchema, strokeWidths, type Stroke, type StrokeTool, type StrokeWidth } from '../../core/drawing/stroke.ts'
import { FADE_MS, surfaceOf, type SurfaceId } from '../../core/drawing/surface.ts'
import { pointerKinds, type PointerKind } from '../../core/stage/pointer.ts'
import { focusedScene } from '../../core/layout/focus.ts'
import type { NewStroke } from '../../core/programme/live-drawing.ts'
import { LIMITS } from '../../core/schema/limits.ts'
import type { Show } from '../../core/show/show.ts'
import { useAirStore } from '../air/air.store.ts'
import { useDecksStore } from '../decks/decks.store.ts'
import { useEngineStore } from '../engine/engine.store.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'

const MEMORY_KEY = 'green-room:drawings'
/** Steps back that are remembered. */
const MOST_STEPS = 200
/** How long a stroke stays when strokes are to fade. */
export const FADES_AFTER_MS = 4000

export type DrawingTool = StrokeTool | 'eraser' | PointerKind

interface Step {
  readonly key: string
  readonly before: readonly NewStroke[]
  readonly after: readonly NewStroke[]
}

const NONE: readonly NewStroke[] = []
const keyOf = (showId: string, surface: SurfaceId) => `${showId} ${surface}`
const partsOf = (key: string) => {
  const [showId, surface] = key.split(' ') as [string, SurfaceId]
  return { showId, surface }
}

export const useDrawingStore = defineStore('drawing', () => {
  const showStore = useShowStore()
  const engine = useEngineStore()
  const decks = useDecksStore()
  const air = useAirStore()
  /** Whether a press on the stage draws. */
  const isOn = ref(false)
  const tool = ref<DrawingTool>('pen')
  /** Null: the show's accent. */
  const chosenColour = ref<string | null>(null)
  const width = ref<StrokeWidth>('medium')
  const fades = ref(false)
  const strokes = shallowRef(recalled())
  const past = shallowRef<readonly Step[]>([])
  const future = shallowRef<readonly Step[]>([])

  /** The colours of the show, and two that are seen on any page. */
  const colours = computed<readonly string[]>(() => {
    const style = showStore.show?.style.colours
    const own = style === undefined ? [] : [style.accent, style.ink, style.panel]
    return [...new Set([...own, '#d9412e', '#f2c230'].map((colour) => colour.toLowerCase()))]
  })
  const colour = computed(() => {
    const wanted = chosenColour.value?.toLowerCase()
    return wanted !== undefined && colours.value.includes(wanted) ? wanted : colours.value[0]!
  })
  const staysMs = computed(() => (fades.value ? FADES_AFTER_MS : null))

  /** The open show with its decks where they are. */
  const turnedShow = computed<Show | null>(() => {
    const { show } = showStore
    if (show === null) return null
    const byId = new Map(decks.decks.map((deck) => [deck.id, deck]))
    return { ...show, inputs: show.inputs.map((input) => byId.get(input.id) ?? input) }
  })
  /** The scene on the stage as it is seen there. */
  const seenScene = computed(() => {
    const { scene } = showStore
    if (turnedShow.value === null || scene === null) return null
    const focus = air.onAirId === scene.id ? air.focus.now : null
    return focus === null ? scene : focusedScene(turnedShow.value, scene, focus)
  })
  /** Surfaces that are seen on the stage. */
  const surfaces = computed<readonly SurfaceId[]>(() =>
    turnedShow.value === null || seenScene.value === null ? [] : surfacesOf(turnedShow.value, seenScene.value),
  )
  const isAnyDrawn = computed(() => surfaces.value.some((surface) => on(surface).length > 0))

  /** The strokes on a surface of the open show. */
  function on(surface: SurfaceId): readonly NewStroke[] {
    return strokes.value.get(keyOf(showStore.showId ?? '', surface)) ?? NONE
  }

  function put(key: string, next: readonly NewStroke[]): void {
    const all = new Map(strokes.value)
    if (next.length === 0) all.delete(key)
    else all.set(key, next)
    strokes.value = all
    remember(all)
  }

  function note(key: string, after: readonly NewStroke[]): void {
    past.value = [...past.value, { key, before: strokes.value.get(key) ?? NONE, after }].slice(-MOST_STEPS)
    future.value = []
    put(key, after)
  }

  /** Shows a stroke while the hand is at it. */
  function follow(surface: SurfaceId, stroke: Stroke): void {
    const { showId } = showStore
    if (showId !== null) engine.calls().programme.draw({ type: 'drawStroke', showId, surface, stroke, isOpen: true, staysMs: null })
  }

  /** Adds a stroke that is drawn. False where the surface holds no more. */
  function add(surface: SurfaceId, stroke: Stroke): boolean {
    const { showId } = showStore
    if (showId === null) return false
    if (on(surface).length >= LIMITS.strokes) {
      drop(surface, [stroke.id])
      return false
    }
    const drawn: NewStroke = { stroke, staysMs: staysMs.value }
    note(keyOf(showId, surface), [...on(surface), drawn])
    engine.calls().programme.draw({ type: 'drawStroke', showId, surface, isOpen: false, ...drawn })
    if (drawn.staysMs !== null) forgetLater(keyOf(showId, surface), drawn)
    return true
  }

  /** The pointer that is in hand instead of a pen; null for none, and while the scene on the stage is not on air. */
  const pointing = computed<PointerKind | null>(() => {
    const kind = pointerKinds.find((one) => one === tool.value)
    return kind !== undefined && isOn.value && air.onAirId !== null && air.onAirId === showStore.sceneId ? kind : null
  })

  /** Points at a spot of the scene on air, 0..1 across and down; null: at none. */
  function point(spot: { readonly x: number; readonly y: number } | null): void {
    const { showId, sceneId } = showStore
    const isShown = spot !== null && pointing.value !== null && showId !== null && sceneId !== null
    engine.calls().programme.point(isShown ? { kind: pointing.value!, showId, sceneId, ...spot } : null)
  }
  watch(pointing, () => point(null))

  /** Takes back a stroke that was not finished. */
  function drop(surface: SurfaceId, ids: readonly string[], showId = showStore.showId): void {
    if (showId !== null) engine.calls().programme.draw({ type: 'eraseStrokes', showId, surface, ids })
  }

  function erase(surface: SurfaceId, ids: readonly string[]): void {
    const { showId } = showStore
    const left = on(surface).filter(({ stroke }) => !ids.includes(stroke.id))
    if (showId === null || left.length === on(surface).length) return
    note(keyOf(showId, surface), left)
    drop(surface, ids)
  }

  /** Takes away everything drawn on what the stage shows. */
  function clear(): void {
    for (const surface of surfaces.value) {
      erase(
        surface,
        on(surface).map(({ stroke }) => stroke.id),
      )
    }
  }

  /** One that has faded is nothing to undo any more. */
  function forgetLater(key: string, { stroke, staysMs: after }: NewStroke): void {
    window.setTimeout(() => {
      const left = (list: readonly NewStroke[]) => list.filter((one) => one.stroke.id !== stroke.id)
      put(key, left(strokes.value.get(key) ?? NONE))
      const without = (steps: readonly Step[]) =>
        steps
          .map((step) => (step.key === key ? { ...step, before: left(step.before), after: left(step.after) } : step))
          .filter(({ before, after }) => before.length !== after.length)
      past.value = without(past.value)
      future.value = without(future.value)
    }, after! + FADE_MS)
  }

  function travel(from: typeof past, to: typeof past, pick: (step: Step) => readonly NewStroke[]): boolean {
    const step = from.value.at(-1)
    if (step === undefined) return false
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, step]
    put(step.key, pick(step))
    for (const one of pick(step)) if (one.staysMs !== null) forgetLater(step.key, one)
    engine.calls().programme.draw({ type: 'setStrokes', ...partsOf(step.key), strokes: pick(step) })
    return true
  }

  /** Keeps what is drawn on what the stage shows in the show: one step of undo. `full`: a page would hold more strokes than it can. */
  function keep(label: string, name: string): 'kept' | 'full' | 'nothing' {
    const drawn = surfaces.value.map((surface) => [surface, on(surface).filter(({ staysMs: ms }) => ms === null)] as const)
    const before = showStore.show
    if (before === null) return 'nothing'
    if (drawn.some(([surface, list]) => !hasRoomFor(before, surface, list.length))) return 'full'
    showStore.edit(label, (show) =>
      drawn.reduce(
        (next, [surface, list]) =>
          keepDrawing(
            next,
            surface,
            list.map(({ stroke }) => stroke),
            name,
            makeId,
          ),
        show,
      ),
    )
    // Refused, or it waits until this tab may edit: then it goes on as it was drawn.
    if (showStore.show === before) return 'nothing'
    // It is the show's now: taking it back is one of the show's steps.
    for (const [surface, list] of drawn) {
      const key = keyOf(showStore.showId!, surface)
      const left = on(surface).filter((one) => !list.includes(one))
      put(key, left)
      past.value = past.value.filter((step) => step.key !== key)
      future.value = future.value.filter((step) => step.key !== key)
      drop(
        surface,
        list.map(({ stroke }) => stroke.id),
      )
    }
    return 'kept'
  }

  engine.listen({
    onStarted: () => {
      for (const [key, list] of strokes.value) engine.calls().programme.draw({ type: 'setStrokes', ...partsOf(key), strokes: list })
    },
  })
  for (const [key, list] of strokes.value) engine.calls().programme.draw({ type: 'setStrokes', ...partsOf(key), strokes: list })

  return {
    isOn,
    showId: computed(() => showStore.showId),
    tool,
    colour,
    colours,
    chooseColour: (next: string) => (chosenColour.value = next),
    width,
    fades,
    lineWidth: computed(() => strokeWidths[width.value]),
    turnedShow,
    seenScene,
    surfaces,
    isAnyDrawn,
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => future.value.length > 0),
    on,
    pointing,
    point,
    follow,
    add,
    drop,
    erase,
    clear,
    keep,
    undo: () => travel(past, future, ({ before }) => before),
    redo: () => travel(future, past, ({ after }) => after),
  }
})

/** Of this browser tab, also after a reload; what fades is gone. */
function recalled(): ReadonlyMap<string, readonly NewStroke[]> {
  try {
    const stored: unknown = JSON.parse(sessionStorage.getItem(MEMORY_KEY) ?? '[]')
    if (!Array.isArray(stored)) return new Map()
    return new Map(
      stored.flatMap((pair: unknown) => {
        const [key, list] = Array.isArray(pair) ? pair : []
        const strokes = strokesSchema.safeParse(list)
        if (typeof key !== 'string' || surfaceOf(partsOf(key).surface ?? '') === null || !strokes.success) return []
        return [[key, strokes.data.map((stroke): NewStroke => ({ stroke, staysMs: null }))] as const]
      }),
    )
  } catch {
    // What another version left there.
    return new Map()
  }
}

function remember(all: ReadonlyMap<string, readonly NewStroke[]>): void {
  const lasting = [...all]
    .map(([key, list]) => [key, list.filter(({ staysMs }) => staysMs === null).map(({ stroke }) => stroke)] as const)
    .filter(([, list]) => list.length > 0)
  try {
    sessionStorage.setItem(MEMORY_KEY, JSON.stringify(lasting))
  } catch {
    // Full: after a reload the drawing is gone.
  }
}
