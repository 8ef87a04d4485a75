// Snapping against a plain search of every possibility; cropping by edges, lining up.
import { describe, expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import type { Placement } from '../show/show.ts'
import { aligned, alignments, distributed, matchedInSize } from './align.ts'
import { atOwnSize, cropByEdges } from './crop-drag.ts'
import { fitRects, type Rect } from '../box/fit.ts'
import { boxRound } from '../box/placement.ts'
import { resized, turnedTo } from './resize.ts'
import { safeArea } from './safe-area.ts'
import { snapEdges, snapMove } from './snap.ts'

const canvas = { widthPx: 1280, heightPx: 720 }
const SEEDS = Array.from({ length: 30 }, (_, i) => i + 1)

function boxes(random: () => number, count: number): Rect[] {
  return Array.from({ length: count }, () => ({
    x: Math.round(random() * 1000),
    y: Math.round(random() * 500),
    width: 40 + Math.round(random() * 300),
    height: 30 + Math.round(random() * 200),
  }))
}

/** Every place along x that a box may rest at, the long way round: lines, and gaps that come out equal. */
function restingPlaces(box: Rect, others: readonly Rect[], flip: boolean): number[] {
  const turn = ({ x, y, width, height }: Rect): Rect => (flip ? { x: y, y: x, width: height, height: width } : { x, y, width, height })
  const me = turn(box)
  const rest = others.map(turn)
  const length = flip ? canvas.heightPx : canvas.widthPx
  const safe = (['title', 'action'] as const).map((kind) => turn(safeArea(kind, canvas.widthPx, canvas.heightPx)))
  const lines = [0, length, length / 2, length / 3, (2 * length) / 3, ...[...rest, ...safe].flatMap(({ x, width }) => [x, x + width])]
  lines.push(...rest.map(({ x, width }) => x + width / 2))
  return lines.flatMap((line) => [line, line - me.width / 2, line - me.width])
}

describe('snapping', () => {
  it.each(SEEDS)('seed %i: a moved box goes to the nearest line of all that there are, and nowhere when none is near', (seed) => {
    const random = seededRandom(seed)
    for (let round = 0; round < 20; round += 1) {
      const [box, ...others] = boxes(random, 1 + Math.floor(random() * 5)) as [Rect, ...Rect[]]
      const reach = 2 + random() * 10
      const snapped = snapMove(box, others, canvas, reach)
      for (const axis of ['x', 'y'] as const) {
        const by = axis === 'x' ? snapped.dx : snapped.dy
        const nearest = Math.min(...restingPlaces(box, others, axis === 'y').map((place) => Math.abs(place - box[axis])))
        const hasGap = snapped.guides.some((guide) => guide.axis === axis && guide.kind === 'gap')
        if (hasGap) expect(Math.abs(by)).toBeLessThan(nearest)
        else expect(Math.abs(by)).toBeCloseTo(nearest <= reach ? nearest : 0, 9)
        for (const guide of snapped.guides) {
          if (guide.axis !== axis || guide.kind !== 'line') continue
          const size = axis === 'x' ? box.width : box.height
          const at = box[axis] + by
          expect(Math.min(...[at, at + size / 2, at + size].map((place) => Math.abs(place - guide.at)))).toBeLessThan(1e-6)
        }
      }
    }
  })

  it.each(SEEDS)('seed %i: equal gaps are equal, and no nearer place would make two gaps equal', (seed) => {
    const random = seededRandom(seed + 400)
    // A row of boxes that all face each other, so that a plain search can try every position of the moved one.
    const row: Rect[] = []
    let x = 37
    for (let i = 0; i < 4; i += 1) {
      const width = 60 + Math.round(random() * 80)
      row.push({ x, y: 211, width, height: 83 })
      x += width + 40 + Math.round(random() * 120)
    }
    const reach = 9
    const rowGaps = row.slice(1).map((box, i) => box.x - row[i]!.x - row[i]!.width)
    /** Whether a box at `x` has a gap to a neighbour that equals another. */
    const equalAt = (x: number) => {
      const before = row.filter((box) => box.x + box.width <= x + 0.01).at(-1)
      const after = row.find((box) => box.x >= x + 51 - 0.01)
      if (row.some((box) => box.x + box.width > x + 0.01 && box.x < x + 51 - 0.01)) return false
      const mine = [...(before === undefined ? [] : [x - before.x - before.width]), ...(after === undefined ? [] : [after.x - x - 51])]
      return (mine.length === 2 && Math.abs(mine[0]! - mine[1]!) < 0.06) || mine.some((gap) => rowGaps.some((other) => Math.abs(gap - other) < 0.03))
    }
    let found = 0
    for (let round = 0; round < 60; round += 1) {
      const moved = { x: random() * 1200, y: 213, width: 51, height: 71 }
      const { dx, guides } = snapMove(moved, row, canvas, reach)
      const nearestLine = Math.min(...restingPlaces(moved, row, false).map((place) => Math.abs(place - moved.x)))
      // The plain search: steps of a fiftieth of a pixel, nearest first.
      let nearestGap = Infinity
      for (let step = 0; step <= reach && nearestGap === Infinity; step += 0.02) if (equalAt(moved.x + step) || equalAt(moved.x - step)) nearestGap = step
      const hasGap = guides.some((guide) => guide.kind === 'gap' && guide.axis === 'x')
      if (Math.abs(nearestLine - nearestGap) < 0.2 || nearestGap > reach - 0.1) continue
      expect(hasGap, JSON.stringify({ x: moved.x, dx, nearestLine, nearestGap })).toBe(nearestGap < nearestLine)
      if (hasGap) {
        expect(Math.abs(dx)).toBeCloseTo(nearestGap, 0)
        expect(equalAt(moved.x + dx)).toBe(true)
        found += 1
      }
    }
    expect(found).toBeGreaterThan(0)
  })

  it('a box between two others finds the middle, and the gap that two others have', () => {
    const left = { x: 100, y: 250, width: 100, height: 90 }
    const right = { x: 500, y: 252, width: 100, height: 90 }
    expect(snapMove({ x: 297, y: 270, width: 100, height: 60 }, [left, right], canvas, 6).dx).toBe(3)
    const third = { x: 640, y: 300, width: 80, height: 90 }
    expect(snapMove({ x: 757, y: 309, width: 63, height: 61 }, [left, right, third], canvas, 6)).toMatchObject({ dx: 3 })
  })

  it('only dragged edges come to rest', () => {
    const box = { x: 203, y: 311, width: 431, height: 217 }
    expect(snapEdges(box, { x: 1, y: 0 }, [], canvas, 8)).toMatchObject({ dx: 6, dy: 0 })
    expect(snapEdges(box, { x: 0, y: 0 }, [], canvas, 80)).toEqual({ dx: 0, dy: 0, guides: [] })
  })
})

describe('cropping by an edge', () => {
  /** Where a point of a picture lies on the canvas. */
  function onCanvas({ placement, crop }: Parameters<typeof cropByEdges>[0], widthPx: number, heightPx: number, sourceX: number, sourceY: number) {
    const { source, target } = fitRects(placement.fit, widthPx, heightPx, placement.width, placement.height, crop)
    const x = target.x + ((sourceX - source.x) / source.width) * target.width - placement.width / 2
    const y = target.y + ((sourceY - source.y) / source.height) * target.height - placement.height / 2
    const angle = (placement.angleDeg * Math.PI) / 180
    return [
      placement.x + placement.width / 2 + x * Math.cos(angle) - y * Math.sin(angle),
      placement.y + placement.height / 2 + x * Math.sin(angle) + y * Math.cos(angle),
    ] as const
  }

  it.each(SEEDS)('seed %i: every point of the picture stays where it was, whatever the fit and the angle; back is as before', (seed) => {
    const random = seededRandom(seed + 50)
    const widthPx = 100 + Math.round(random() * 3000)
    const heightPx = 100 + Math.round(random() * 2000)
    const fit = (['fit', 'fill', 'stretch'] as const)[seed % 3]!
    const placement: Placement = {
      x: random() * 500,
      y: random() * 300,
      width: 60 + random() * 900,
      height: 60 + random() * 700,
      angleDeg: seed % 2 === 0 ? 0 : random() * 360,
      fit,
    }
    const crop = random() < 0.5 ? null : { left: random() * 0.4, top: random() * 0.4, right: random() * 0.4, bottom: random() * 0.4 }
    const before = { placement, crop }
    const moves = { left: (random() - 0.3) * 60, top: (random() - 0.3) * 60, right: (random() - 0.7) * 60, bottom: (random() - 0.7) * 60 }
    const after = cropByEdges(before, { widthPx, heightPx }, moves)
    for (const [x, y] of [
      [0, 0],
      [widthPx, 0],
      [widthPx / 2, heightPx / 3],
      [widthPx, heightPx],
    ] as const) {
      const was = onCanvas(before, widthPx, heightPx, x, y)
      const is = onCanvas(after, widthPx, heightPx, x, y)
      expect(Math.hypot(was[0] - is[0], was[1] - is[1])).toBeLessThan(1e-6 * widthPx)
    }
    const { left = 0, top = 0, right = 0, bottom = 0 } = after.crop ?? {}
    expect(Math.min(left, top, right, bottom)).toBeGreaterThanOrEqual(0)
    expect(Math.max(left + right, top + bottom)).toBeLessThanOrEqual(0.99)
  })

  it('stops at the ends of the picture, and never takes all of it', () => {
    const placement: Placement = { x: 0, y: 0, width: 400, height: 300, angleDeg: 0, fit: 'fit' }
    const size = { widthPx: 800, heightPx: 600 }
    expect(cropByEdges({ placement, crop: null }, size, { left: -50, top: -50, right: 50, bottom: 50 })).toEqual({ placement, crop: null })
    const most = cropByEdges({ placement, crop: null }, size, { left: 5000, top: 0, right: 0, bottom: 0 })
    expect(most.placement.width).toBeGreaterThan(3)
    expect(most.crop!.left + most.crop!.right).toBeLessThanOrEqual(0.99)
  })

  it('at its own size a picture has a canvas pixel for each of its own, about the same middle', () => {
    const placement: Placement = { x: 100, y: 100, width: 400, height: 400, angleDeg: 30, fit: 'fit' }
    const next = atOwnSize({ placement, crop: { left: 0.25, top: 0, right: 0.25, bottom: 0 } }, { widthPx: 800, heightPx: 600 })
    expect(next).toMatchObject({ width: 400, height: 600, x: 100, y: 0 })
  })
})

describe('lining up', () => {
  const random = seededRandom(12)
  const placements: Placement[] = Array.from({ length: 5 }, (_, i) => ({
    x: random() * 800,
    y: random() * 400,
    width: 50 + random() * 200,
    height: 40 + random() * 160,
    angleDeg: i === 2 ? 31 : 0,
    fit: 'fill',
  }))
  const edges = (one: Placement) => {
    const { x, y, width, height } = boxRound([one])!
    return { left: x, centre: x + width / 2, right: x + width, top: y, middle: y + height / 2, bottom: y + height }
  }

  it.each(alignments)('%s: all are in line, the box round them is no larger, one alone meets the canvas', (alignment) => {
    const after = aligned(placements, alignment, canvas)
    const at = after.map((one) => edges(one)[alignment])
    for (const value of at) expect(value).toBeCloseTo(at[0]!, 6)
    expect(at[0]).toBeCloseTo(edges({ ...boxRound(placements)!, angleDeg: 0, fit: 'fill' })[alignment], 6)
    const alone = edges(aligned([placements[0]!], alignment, canvas)[0]!)[alignment]
    expect(alone).toBeCloseTo({ left: 0, centre: 640, right: 1280, top: 0, middle: 360, bottom: 720 }[alignment], 6)
  })

  it('gaps come out equal, the outer two stay; two boxes are left as they are', () => {
    for (const direction of ['x', 'y'] as const) {
      const after = distributed(placements, direction)
      const size = direction === 'x' ? 'width' : 'height'
      const sorted = after.map((one) => boxRound([one])!).toSorted((one, other) => one[direction] - other[direction])
      const gaps = sorted.slice(1).map((box, i) => box[direction] - sorted[i]![direction] - sorted[i]![size])
      for (const gap of gaps) expect(gap).toBeCloseTo(gaps[0]!, 6)
      expect(distributed(placements.slice(0, 2), direction)).toEqual(placements.slice(0, 2))
    }
  })

  it('one size for all is the last one’s, about each middle', () => {
    for (const [i, one] of matchedInSize(placements).entries()) {
      expect([one.width, one.height]).toEqual([placements[4]!.width, placements[4]!.height])
      expect(one.x + one.width / 2).toBeCloseTo(placements[i]!.x + placements[i]!.width / 2, 9)
    }
  })
})

describe('safe areas', () => {
  it('EBU R 95 and SMPTE ST 2046-1: 93 % and 90 % of an HD picture, 67 and 96 px from the side', () => {
    expect(safeArea('action', 1920, 1080)).toEqual({
      x: expect.closeTo(67.2, 6),
      y: expect.closeTo(37.8, 6),
      width: expect.closeTo(1785.6, 6),
      height: expect.closeTo(1004.4, 6),
    })
    expect(safeArea('title', 1920, 1080)).toMatchObject({ x: 96, y: 54, width: 1728, height: 972 })
  })
})

describe('sizing and turning', () => {
  const corners = ({ x, y, width, height, angleDeg }: Placement) => {
    const angle = (angleDeg * Math.PI) / 180
    return (
      [
        [-1, -1],
        [1, -1],
        [1, 1],
        [-1, 1],
        [0, -1],
        [1, 0],
        [0, 1],
        [-1, 0],
      ] as const
    ).map(([towardsX, towardsY]) => {
      const [dx, dy] = [(towardsX * width) / 2, (towardsY * height) / 2]
      return {
        towardsX,
        towardsY,
        x: x + width / 2 + dx * Math.cos(angle) - dy * Math.sin(angle),
        y: y + height / 2 + dx * Math.sin(angle) + dy * Math.cos(angle),
      }
    })
  }

  it.each(SEEDS)('seed %i: what is opposite stays, and the dragged corner is where the pointer is', (seed) => {
    const random = seededRandom(seed + 900)
    const placement: Placement = {
      x: random() * 500,
      y: random() * 300,
      width: 200 + random() * 400,
      height: 150 + random() * 300,
      angleDeg: seed % 3 === 0 ? 0 : random() * 360,
      fit: 'fill',
    }
    for (const { towardsX, towardsY, x, y } of corners(placement)) {
      const [dx, dy] = [(random() - 0.5) * 120, (random() - 0.5) * 120]
      const next = resized(placement, { x: towardsX, y: towardsY }, dx, dy, false, 8)
      const now = corners(next)
      const opposite = corners(placement).find((one) => one.towardsX === -towardsX && one.towardsY === -towardsY)!
      const kept = now.find((one) => one.towardsX === -towardsX && one.towardsY === -towardsY)!
      expect(Math.hypot(kept.x - opposite.x, kept.y - opposite.y)).toBeLessThan(1e-9)
      if (towardsX !== 0 && towardsY !== 0) {
        const dragged = now.find((one) => one.towardsX === towardsX && one.towardsY === towardsY)!
        expect(Math.hypot(dragged.x - x - dx, dragged.y - y - dy)).toBeLessThan(1e-9)
      }
      const kept2 = resized(placement, { x: towardsX, y: towardsY }, dx, dy, true, 8)
      expect(kept2.width / kept2.height).toBeCloseTo(placement.width / placement.height, 9)
    }
  })

  it('no side becomes too short, however far a handle is dragged', () => {
    const placement: Placement = { x: 0, y: 0, width: 100, height: 50, angleDeg: 20, fit: 'fit' }
    for (const keeps of [false, true]) {
      const least = resized(placement, { x: 1, y: 1 }, -5000, -5000, keeps, 8)
      expect(Math.min(least.width, least.height)).toBeCloseTo(8, 9)
    }
  })

  it('a turn points to the pointer, and rests on fifteens', () => {
    const placement: Placement = { x: 0, y: 0, width: 200, height: 200, angleDeg: 0, fit: 'fit' }
    expect(turnedTo(placement, 100, -500, false)).toBe(0)
    expect(turnedTo(placement, 900, 100, false)).toBe(90)
    expect(turnedTo(placement, 100 + Math.tan((32 * Math.PI) / 180) * 100, 0, false)).toBe(30)
    expect(turnedTo(placement, 100 + Math.tan((32 * Math.PI) / 180) * 100, 0, true)).toBe(32)
    expect(turnedTo(placement, 100 + Math.tan((38 * Math.PI) / 180) * 100, 0, false)).toBe(38)
  })
})
