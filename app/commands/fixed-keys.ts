/** Keys that belong to a place, and stay as they are; words and keys are looked up under these names. */
export const keyGroups = [
  { name: 'stage', keys: ['nudge', 'nudgeTen', 'order', 'duplicate', 'copyPaste', 'selectAll', 'write', 'menu', 'values', 'remove', 'leave'] },
  { name: 'pointer', keys: ['crop', 'dragCopy', 'free', 'ratio', 'band', 'near', 'pan'] },
  { name: 'strip', keys: ['go', 'reorder', 'goOn', 'alsoSelect', 'intoGroup'] },
  { name: 'scenes', keys: ['goScene', 'reorderScene', 'rename', 'find'] },
] as const
