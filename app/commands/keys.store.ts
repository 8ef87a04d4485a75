// The keys of commands: the defaults, and what the presenter made of them in this browser.
import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { areSameKey, belongsToPage, defaultKeys } from './keys.ts'
import { commandIds, type CommandId } from './list.ts'

/** Why a key was not taken. */
export type KeyRefusal = { readonly type: 'taken'; readonly by: CommandId } | { readonly type: 'page' }

export const useKeysStore = defineStore('keys', () => {
  const own = useLocalStorage<Partial<Record<CommandId, readonly string[]>>>('green-room:keys', {})
  const isListShown = ref(false)
  const isPaletteShown = ref(false)

  /** What is stored may be of another version, or spoiled: then the default counts. */
  function keysOf(id: CommandId): readonly string[] {
    const stored: unknown = (own.value as Partial<Record<CommandId, unknown>> | null)?.[id]
    return Array.isArray(stored) && stored.every((key) => typeof key === 'string' && key !== '') ? stored : defaultKeys[id]
  }

  /** Why a key cannot be had by a command, or by something that is none; null when it can. */
  function refusalOf(binding: string, id: CommandId | null = null): KeyRefusal | null {
    if (belongsToPage(binding)) return { type: 'page' }
    const by = commandIds.find((other) => other !== id && keysOf(other).some((key) => areSameKey(key, binding)))
    return by === undefined ? null : { type: 'taken', by }
  }

  /** Gives a command one key; says why it cannot have it, or null when it has it now. */
  function give(id: CommandId, binding: string): KeyRefusal | null {
    const refused = refusalOf(binding, id)
    if (refused !== null) return refused
    own.value = { ...own.value, [id]: [binding] }
    return null
  }

  return {
    keysOf,
    refusalOf,
    give,
    reset: () => (own.value = {}),
    isChanged: computed(() => Object.keys(own.value ?? {}).length > 0),
    isListShown,
    isPaletteShown,
  }
})
