// What is on air, as a state of its own: scenes by their ids, each with its show, the transition between them, graphics over them, the card.
// Only messages change it. What the scenes look like is looked up when a picture is planned, so an edit is seen at once, in a transition too.
import type { Focus } from '../layout/focus.ts'
import { drawingsAfter, unfadedDrawings, type DrawingMessage, type LiveDrawing } from './live-drawing.ts'
import type { Pointer } from '../stage/pointer.ts'
import type { Transition } from '../transitions/index.ts'

/** A scene of a show. */
export interface SceneRef {
  readonly showId: string
  readonly sceneId: string
  /** What of it is brought near for a moment; without: it is as it is. */
  readonly focus?: Focus
}

export interface SceneOnAir {
  readonly ref: SceneRef
  /** When it came, on the clock of the programme; null: it was there from the first, and its layers do not come in. */
  readonly enteredMs: number | null
  /** When it began to go; null: it stays. */
  readonly leavesMs: number | null
}

/** A scene, or the way from whatever was on air to a scene. */
export type StageOnAir =
  | { readonly type: 'scene'; readonly scene: SceneOnAir }
  | {
      readonly type: 'transition'
      /** A transition that was interrupted goes on underneath. */
      readonly from: StageOnAir
      readonly to: SceneOnAir
      readonly transition: Transition
      readonly beganMs: number
    }

/** A scene that is laid over the one on air, whatever that is. */
export interface GraphicOnAir {
  readonly id: string
  readonly scene: SceneOnAir
}

/** The page that a deck was turned to. */
export interface TurnedDeck {
  readonly showId: string
  readonly inputId: string
  readonly pageId: string
}

/** A pointer, and the scene that it points at. */
export interface ScenePointer extends Pointer {
  readonly showId: string
  readonly sceneId: string
}

export interface Programme {
  /** Null before anything was taken. */
  readonly stage: StageOnAir | null
  /** What goes on air next; null for nothing. */
  readonly standby: SceneRef | null
  /** From back to front. */
  readonly graphics: readonly GraphicOnAir[]
  /** Whether the audience gets the holding card instead of all of it. */
  readonly isCardShown: boolean
  /** Whether edits of what is on air wait until they are let go. */
  readonly holdsEdits: boolean
  /** Decks that are not at the page that they open at, whether they are on air or not. */
  readonly decks: readonly TurnedDeck[]
  /** What is drawn on pages and over scenes, whether they are on air or not. */
  readonly drawings: readonly LiveDrawing[]
  /** What points at a spot of a scene while that is on air; null: nothing. */
  readonly pointer: ScenePointer | null
}

export type ProgrammeMessage =
  /** Puts a scene on air, and takes the card away. One that is on air already stays as it is. */
  | { readonly type: 'take'; readonly scene: SceneRef; readonly transition: Transition }
  | { readonly type: 'standby'; readonly scene: SceneRef | null }
  | { readonly type: 'card'; readonly isShown: boolean }
  | { readonly type: 'showGraphic'; readonly id: string; readonly scene: SceneRef }
  /** Its layers go by their exits; after that it is gone. */
  | { readonly type: 'hideGraphic'; readonly id: string }
  | { readonly type: 'hideAllGraphics' }
  | { readonly type: 'holdEdits'; readonly holds: boolean }
  | ({ readonly type: 'turnDeck' } & TurnedDeck)
  | DrawingMessage
  | { readonly type: 'point'; readonly pointer: ScenePointer | null }
  /** Nothing is on air any more; decks stay where they are, and what is drawn stays. */
  | { readonly type: 'clear' }

export const EMPTY_PROGRAMME: Programme = {
  stage: null,
  standby: null,
  graphics: [],
  isCardShown: false,
  holdsEdits: false,
  decks: [],
  drawings: [],
  pointer: null,
}

/** The programme after a message at `nowMs`. The same object where nothing changes. */
export function programmeAfter(programme: Programme, message: ProgrammeMessage, nowMs: number): Programme {
  switch (message.type) {
    case 'take':
      return taken(programme, message.scene, message.transition, nowMs)
    case 'standby':
      return isSameRef(programme.standby, message.scene) ? programme : { ...programme, standby: message.scene }
    case 'card':
      return programme.isCardShown === message.isShown ? programme : { ...programme, isCardShown: message.isShown }
    case 'showGraphic': {
      const others = programme.graphics.filter(({ id }) => id !== message.id)
      const known = programme.graphics.find(({ id }) => id === message.id)
      if (known !== undefined && known.scene.leavesMs === null && isSameRef(known.scene.ref, message.scene)) return programme
      return { ...programme, graphics: [...others, { id: message.id, scene: { ref: message.scene, enteredMs: nowMs, leavesMs: null } }] }
    }
    case 'hideGraphic':
      return withGraphicsLeaving(programme, ({ id }) => id === message.id, nowMs)
    case 'hideAllGraphics':
      return withGraphicsLeaving(programme, () => true, nowMs)
    case 'holdEdits':
      return programme.holdsEdits === message.holds ? programme : { ...programme, holdsEdits: message.holds }
    case 'turnDeck':
      return withDeckAt(programme, message)
    case 'drawStroke':
    case 'eraseStrokes':
    case 'setStrokes': {
      const drawings = drawingsAfter(programme.drawings, message, nowMs)
      return drawings === programme.drawings ? programme : { ...programme, drawings }
    }
    case 'point':
      return programme.pointer === message.pointer ? programme : { ...programme, pointer: message.pointer }
    case 'clear':
      return { ...EMPTY_PROGRAMME, decks: programme.decks, drawings: programme.drawings }
  }
}

/** The programme without transitions that are over at `nowMs` and strokes that have faded; the same object where none is. */
export function settledProgramme(programme: Programme, nowMs: number): Programme {
  const stage = programme.stage === null ? null : settledStage(programme.stage, nowMs)
  const drawings = unfadedDrawings(programme.drawings, nowMs)
  return stage === programme.stage && drawings === programme.drawings ? programme : { ...programme, stage, drawings }
}

/** The scene that is on air, or that the transition under way leads to; null before anything was taken. */
export function sceneOnAir({ stage }: Programme): SceneRef | null {
  return stage === null ? null : goalOf(stage).ref
}

/** Every scene that is needed to show the programme. */
export function scenesNeeded({ stage, graphics }: Programme): readonly SceneRef[] {
  const refs: SceneRef[] = graphics.map(({ scene }) => scene.ref)
  for (let at = stage; at !== null; at = at.type === 'transition' ? at.from : null) refs.push(goalOf(at).ref)
  return refs
}

export function isSameRef(one: SceneRef | null, other: SceneRef | null): boolean {
  return isSameScene(one, other) && isSameFocus(one?.focus, other?.focus)
}

/** Whether two are the same scene, whatever of it is brought near. */
export function isSameScene(one: SceneRef | null, other: SceneRef | null): boolean {
  return one?.showId === other?.showId && one?.sceneId === other?.sceneId
}

function isSameFocus(one: Focus | undefined, other: Focus | undefined): boolean {
  if (one === undefined || other === undefined) return one === other
  const [near, far] = [one.closer, other.closer]
  return one.layerId === other.layerId && one.fills === other.fills && near?.x === far?.x && near?.y === far?.y && near?.scale === far?.scale
}

function taken(programme: Programme, ref: SceneRef, transition: Transition, nowMs: number): Programme {
  const { stage } = programme
  const base = programme.isCardShown ? { ...programme, isCardShown: false } : programme
  if (stage === null) return { ...base, stage: { type: 'scene', scene: { ref, enteredMs: null, leavesMs: null } } }
  if (isSameRef(goalOf(stage).ref, ref)) return base
  // Bringing something near is no new scene: its layers neither come in nor go.
  const isHere = isSameScene(goalOf(stage).ref, ref)
  const to: SceneOnAir = isHere ? { ...goalOf(stage), ref } : { ref, enteredMs: nowMs, leavesMs: null }
  if (transition.kind === 'cut') return { ...base, stage: { type: 'scene', scene: to } }
  return {
    ...base,
    stage: { type: 'transition', from: isHere ? settledStage(stage, nowMs) : leaving(settledStage(stage, nowMs), nowMs), to, transition, beganMs: nowMs },
  }
}

function withDeckAt(programme: Programme, { showId, inputId, pageId }: TurnedDeck): Programme {
  const known = programme.decks.find((deck) => deck.showId === showId && deck.inputId === inputId)
  if (known?.pageId === pageId) return programme
  return { ...programme, decks: [...programme.decks.filter((deck) => deck !== known), { showId, inputId, pageId }] }
}

function goalOf(stage: StageOnAir): SceneOnAir {
  return stage.type === 'scene' ? stage.scene : stage.to
}

function leaving(stage: StageOnAir, nowMs: number): StageOnAir {
  if (stage.type === 'scene') return { ...stage, scene: { ...stage.scene, leavesMs: nowMs } }
  return { ...stage, to: { ...stage.to, leavesMs: nowMs } }
}

function settledStage(stage: StageOnAir, nowMs: number): StageOnAir {
  if (stage.type === 'scene') return stage
  if (nowMs >= stage.beganMs + stage.transition.durationMs) return { type: 'scene', scene: stage.to }
  const from = settledStage(stage.from, nowMs)
  return from === stage.from ? stage : { ...stage, from }
}

function withGraphicsLeaving(programme: Programme, isMeant: (graphic: GraphicOnAir) => boolean, nowMs: number): Programme {
  const leaves = (graphic: GraphicOnAir) => isMeant(graphic) && graphic.scene.leavesMs === null
  if (!programme.graphics.some(leaves)) return programme
  const graphics = programme.graphics.map((graphic) => (leaves(graphic) ? { ...graphic, scene: { ...graphic.scene, leavesMs: nowMs } } : graphic))
  return { ...programme, graphics }
}
