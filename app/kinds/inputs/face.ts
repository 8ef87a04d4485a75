import type { Component } from 'vue'
import type { LiveStatus } from '../../../engine/live/live-state.ts'
import type { InputKind, InputOf } from '../../../core/inputs/input.ts'

/** What is known of live inputs now. */
export interface InputStates {
  /** What an input is doing, by its id. */
  readonly statusOf: (inputId: string) => LiveStatus
}

/** How a kind of input shows itself in the studio. */
export interface InputFace<K extends InputKind> {
  readonly icon: Component
  /** Its own part of the inspector, given the input as `input`; null for kinds that have none. */
  readonly section: Component<{ input: InputOf<K> }> | null
  /** The key of the words for its state, and whether its size is said too. */
  readonly state: (input: InputOf<K>, states: InputStates) => { readonly words: string; readonly hasSize: boolean }
}
