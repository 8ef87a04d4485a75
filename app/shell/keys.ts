import { ref } from 'vue'

/** Whether the list of keys is shown. */
export const areKeysShown = ref(false)

/** Every key of the studio, in groups; words and keys are looked up under these names. */
export const keyGroups = [
  { name: 'everywhere', keys: ['undo', 'redo', 'mute', 'card', 'take', 'keys'] },
  { name: 'stage', keys: ['nudge', 'nudgeTen', 'order', 'duplicate', 'copyPaste', 'selectAll', 'write', 'menu', 'values', 'remove', 'leave'] },
  { name: 'pointer', keys: ['crop', 'dragCopy', 'free', 'ratio', 'band', 'near', 'pan'] },
  { name: 'strip', keys: ['go', 'reorder', 'goOn', 'alsoSelect', 'intoGroup'] },
  { name: 'scenes', keys: ['goScene', 'reorderScene', 'rename', 'find'] },
] as const
