// Putting boxes in line: along an edge, in the middle, with equal gaps, of one size. Turned boxes count by the upright box round them.
import type { Placement } from '../show/show.ts'
import type { Canvas } from './arrange/layouts.ts'
import { boxRound, type UprightBox } from '../box/placement.ts'

export const alignments = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const
export type Alignment = (typeof alignments)[number]
export type Direction = 'x' | 'y'

/** Several boxes in line with each other, at an edge or the middle of the box round them; one box with the canvas. */
export function aligned(placements: readonly Placement[], alignment: Alignment, canvas: Canvas): Placement[] {
  const whole: UprightBox = placements.length > 1 ? boxRound(placements)! : { x: 0, y: 0, width: canvas.widthPx, height: canvas.heightPx }
  return placements.map((placement) => {
    const box = boxRound([placement])!
    const [dx, dy] = stepTo(alignment, whole, box)
    return { ...placement, x: placement.x + dx, y: placement.y + dy }
  })
}

function stepTo(alignment: Alignment, whole: UprightBox, box: UprightBox): readonly [dx: number, dy: number] {
  switch (alignment) {
    case 'left':
      return [whole.x - box.x, 0]
    case 'centre':
      return [whole.x + whole.width / 2 - box.x - box.width / 2, 0]
    case 'right':
      return [whole.x + whole.width - box.x - box.width, 0]
    case 'top':
      return [0, whole.y - box.y]
    case 'middle':
      return [0, whole.y + whole.height / 2 - box.y - box.height / 2]
    case 'bottom':
      return [0, whole.y + whole.height - box.y - box.height]
  }
}

/** Three or more boxes with equal gaps between them; the first and the last stay where they are. Gaps may be negative where there is no room. */
export function distributed(placements: readonly Placement[], direction: Direction): Placement[] {
  if (placements.length < 3) return [...placements]
  const size = direction === 'x' ? 'width' : 'height'
  const items = placements.map((placement, index) => ({ index, box: boxRound([placement])! }))
  const sorted = items.toSorted((one, other) => one.box[direction] - other.box[direction] || one.index - other.index)
  const first = sorted[0]!.box
  const last = sorted.at(-1)!.box
  const taken = sorted.reduce((sum, { box }) => sum + box[size], 0)
  const gap = (last[direction] + last[size] - first[direction] - taken) / (sorted.length - 1)
  const steps = new Map<number, number>()
  let at = first[direction]
  for (const { index, box } of sorted) {
    steps.set(index, at - box[direction])
    at += box[size] + gap
  }
  return placements.map((placement, index) => ({ ...placement, [direction]: placement[direction] + steps.get(index)! }))
}

/** Boxes as wide and as high as the last of them, each about its own middle. */
export function matchedInSize(placements: readonly Placement[]): Placement[] {
  const model = placements.at(-1)
  if (model === undefined) return []
  const { width, height } = model
  return placements.map((placement) => ({
    ...placement,
    x: placement.x + (placement.width - width) / 2,
    y: placement.y + (placement.height - height) / 2,
    width,
    height,
  }))
}
