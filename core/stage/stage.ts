// What an output shows: a scene, or the way from one stage to a scene. Plain data; time is told by who asks.
import type { Drawings } from '../drawing/surface.ts'
import type { StackNode } from '../plan/frame-plan.ts'
import type { Scene, Show } from '../show/show.ts'
import { ease } from '../motion/easing.ts'
import type { Pointer } from './pointer.ts'
import { clamp01 } from '../picture/float-picture.ts'
import type { Transition } from '../transitions/index.ts'

export interface SceneStage {
  readonly scene: Scene
  /** The show that the scene belongs to, where it is not the one that is planned: one that is still on air while another is open. */
  readonly show?: Show
  /** What lies under the scene; black unless it says otherwise. */
  readonly ground?: StackNode['ground']
  /** When the scene came, on the clock of the stage, and when it began to go: what its layers come and go by. Without: they rest. */
  readonly enteredMs?: number
  readonly leavesMs?: number
  /** What is drawn on the show's pages and scenes, besides the show. */
  readonly drawings?: Drawings
}

export interface TransitionStage {
  /** The state before: an interrupted transition continues underneath. */
  readonly from: Stage
  readonly to: SceneStage
  readonly transition: Transition
  readonly beganMs: number
}

export type Stage = SceneStage | TransitionStage

/** What one output shows: a stage, and scenes that are laid over it, whatever is on it. */
export interface OutputStage {
  readonly stage: Stage
  /** From back to front. */
  readonly over: readonly SceneStage[]
  /** What points at a spot of it, over everything. */
  readonly pointer?: Pointer
  /** Pixels of the output for one of the canvas. */
  readonly scale: number
}

export function isTransition(stage: Stage): stage is TransitionStage {
  return 'transition' in stage
}

/** How far a transition is, 0..1. A cut is over at once. */
export function progressOf({ transition, beganMs }: TransitionStage, timeMs: number): number {
  if (transition.kind === 'cut' || timeMs >= beganMs + transition.durationMs) return 1
  return clamp01(ease(transition.easing, Math.max(0, timeMs - beganMs) / transition.durationMs))
}

/** Whether a transition's time is over. */
export function isOver({ transition, beganMs }: TransitionStage, timeMs: number): boolean {
  return transition.kind === 'cut' || timeMs >= beganMs + transition.durationMs
}

/** A stage without the transitions that are over. */
export function settled(stage: Stage, timeMs: number): Stage {
  if (!isTransition(stage)) return stage
  if (isOver(stage, timeMs)) return stage.to
  const from = settled(stage.from, timeMs)
  return from === stage.from ? stage : { ...stage, from }
}

/** The scene that a stage ends at. */
export function sceneOf(stage: Stage): Scene {
  return isTransition(stage) ? stage.to.scene : stage.scene
}

/** On the way to another scene from whatever is on stage, mid-way or not. */
export function goTo(stage: Stage, scene: Scene, transition: Transition, timeMs: number): TransitionStage {
  return { from: leaving(settled(stage, timeMs), timeMs), to: { scene, enteredMs: timeMs }, transition, beganMs: timeMs }
}

function leaving(stage: Stage, timeMs: number): Stage {
  return isTransition(stage) ? { ...stage, to: { ...stage.to, leavesMs: timeMs } } : { ...stage, leavesMs: timeMs }
}
