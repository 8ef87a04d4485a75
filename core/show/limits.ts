/** Most of each thing that a show may hold; keeps one document small enough to save on every edit. */
export const LIMITS = { inputs: 40, scenes: 60, layers: 40, steps: 24, blocks: 6, nameLength: 80, textLength: 600 } as const
