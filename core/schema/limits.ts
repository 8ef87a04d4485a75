/** Most of each thing that a show may hold; keeps one document small enough to save on every edit. */
export const LIMITS = {
  inputs: 40,
  scenes: 60,
  layers: 40,
  /** Layers of a scene with those of every scene that it shows. */
  shownLayers: 2000,
  contents: 4000,
  depth: 4,
  stops: 12,
  steps: 24,
  blocks: 6,
  nameLength: 80,
  textLength: 600,
  pathLength: 20_000,
  notesLength: 2000,
  transitionPairs: 400,
  favourites: 24,
  deckPages: 300,
  /** Of one drawing, and points of one stroke. */
  strokes: 600,
  strokePoints: 2000,
} as const

/** Most bytes of a file that is added. A clip is decoded from memory; longer ones are for a cutting room. */
export const MOST_BYTES = { picture: 40 * 1024 * 1024, clip: 256 * 1024 * 1024, deck: 256 * 1024 * 1024, pages: 1024 * 1024 * 1024 } as const

interface Range {
  readonly min: number
  readonly max: number
}

/** The one range of each number of a show, for the stored form and for the controls; pixels are the canvas's. */
export const RANGES = {
  canvasWidthPx: { min: 160, max: 3840 },
  canvasHeightPx: { min: 120, max: 2160 },
  frameRate: { min: 5, max: 60 },
  position: { min: -20_000, max: 20_000 },
  size: { min: 1, max: 20_000 },
  angleDeg: { min: -360, max: 360 },
  share: { min: 0, max: 1 },
  cornerRadiusPx: { min: 0, max: 4000 },
  borderPx: { min: 0.5, max: 400 },
  shadowOffsetPx: { min: -1000, max: 1000 },
  blurPx: { min: 0, max: 400 },
  textSizePx: { min: 4, max: 600 },
  textWeight: { min: 100, max: 900 },
  lineHeight: { min: 0.5, max: 4 },
  letterSpacingEm: { min: -0.2, max: 2 },
  outlinePx: { min: 0.5, max: 60 },
  motionMs: { min: 0, max: 20_000 },
  curve: { min: -5, max: 5 },
  stairs: { min: 1, max: 100 },
  platePaddingPx: { min: 0, max: 400 },
  gainDb: { min: -40, max: 24 },
  delayMs: { min: 0, max: 500 },
  clipMs: { min: 0, max: 86_400_000 },
  clipRate: { min: 0.1, max: 4 },
  pageSidePx: { min: 1, max: 8192 },
  pageNumber: { min: 1, max: 100_000 },
  plannedMin: { min: 1, max: 600 },
  strokePlace: { min: -1, max: 2 },
  strokeWidth: { min: 0.001, max: 0.2 },
  cropShare: { min: 0, max: 0.99 },
} as const satisfies Record<string, Range>

/** The number within a range that is nearest to `value`; never -0, which no stored text has. */
export function withinRange({ min, max }: Range, value: number): number {
  return Math.min(max, Math.max(min, value)) + 0
}
