import { describe, expect, it } from 'vitest'
import { coverageAt, edgeRevealAt } from '../../core/composite/coverage.ts'
import { mapPoint } from '../../core/composite/affine.ts'
import type { Item } from '../../core/plan/frame-plan.ts'
import { PLAN_SEEDS, planCase } from '../../tests/support/random-plans.ts'
import { coverMask, maskKey, SOLID, SPAN_NUMBERS } from './cover-mask.ts'

/** Bytes of every pixel of the bounds, as the spans have them. */
function spread({ coverage, bounds, opacity, ...rest }: Item): number[] {
  const mask = coverMask({ coverage, bounds, opacity, ...rest })
  const bytes = new Array<number>(mask.widthPx * mask.heightPx).fill(0)
  for (let row = 0; row < mask.heightPx; row += 1) {
    for (let span = mask.rowStarts[row]!; span < mask.rowStarts[row + 1]!; span += 1) {
      const [from, to, at] = mask.spans.slice(span * SPAN_NUMBERS, (span + 1) * SPAN_NUMBERS) as unknown as [number, number, number]
      for (let x = from; x < to; x += 1) bytes[row * mask.widthPx + x] = at === SOLID ? 255 : mask.bytes[at + x - from]!
    }
  }
  return bytes
}

/** The same, each pixel by itself. */
function exactly({ coverage, toCoverage, bounds, opacity }: Item): number[] {
  const bytes: number[] = []
  for (let y = bounds.top; y < bounds.bottom; y += 1) {
    for (let x = bounds.left; x < bounds.right; x += 1) {
      const [atX, atY] = mapPoint(toCoverage, x + 0.5, y + 0.5)
      const shown = coverage.reveal?.kind === 'edge' ? edgeRevealAt(coverage.reveal, x + 0.5, y + 0.5) : 1
      bytes.push(Math.round(coverageAt(coverage, atX, atY, toCoverage.a, toCoverage.c) * shown * opacity * 255))
    }
  }
  return bytes
}

const items = PLAN_SEEDS.flatMap((seed) => planCase(seed, { culls: false }).plan.nodes.flatMap((node) => (node.kind === 'stack' ? node.items : [])))

describe('coverMask', () => {
  it('has the coverage of every pixel, whatever it skips on the way', () => {
    expect(items.length).toBeGreaterThan(120)
    for (const item of items) {
      const [found, wanted] = [spread(item), exactly(item)]
      const worst = found.reduce((most, value, i) => Math.max(most, Math.abs(value - wanted[i]!)), 0)
      // Where a share is one but for rounding, both are right.
      expect(worst, item.key).toBeLessThanOrEqual(1)
    }
  })

  it.each(
    [
      { sigmaPx: 2, hole: { dx: 0, dy: -5 }, cornerRadius: 12 },
      { sigmaPx: 4, hole: { dx: 9, dy: 3 }, cornerRadius: 0 },
      { sigmaPx: 3, hole: { dx: -11, dy: 8 }, cornerRadius: 25 },
      { sigmaPx: 5, hole: null, cornerRadius: 8 },
    ].flatMap((one) => [0, 0.37].flatMap((part) => [null, { kind: 'edge', a: -0.05, b: 0, c: 4.5 } as const].map((reveal) => ({ ...one, part, reveal })))),
  )('has the shadow of a large box, whose rows and columns are mostly alike: %o', ({ sigmaPx, hole, cornerRadius, part, reveal }) => {
    const item: Item = {
      ...items[0]!,
      opacity: 0.8,
      bounds: { left: 3, top: 4, right: 203, bottom: 154 },
      toCoverage: { a: 1, b: 0, c: 0, d: 1, e: -20 - part, f: -18 - part },
      coverage: { shape: { kind: 'roundedRect', width: 160, height: 120, cornerRadius }, strokePx: null, sigmaPx, hole, reveal },
    }
    const [found, wanted] = [spread(item), exactly(item)]
    expect(found.reduce((most, value, i) => Math.max(most, Math.abs(value - wanted[i]!)), 0)).toBeLessThanOrEqual(1)
  })

  it('takes few bytes for a large frame', () => {
    const item = { ...items[0]!, opacity: 1, bounds: { left: 0, top: 0, right: 1280, bottom: 720 }, toCoverage: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 } }
    const mask = coverMask({
      ...item,
      coverage: { shape: { kind: 'roundedRect', width: 1280, height: 720, cornerRadius: 40 }, strokePx: null, sigmaPx: 0, hole: null, reveal: null },
    })
    expect(mask.bytes.length).toBeLessThan(1000)
  })

  it('is named alike wherever it lies, and by everything that it depends on', () => {
    const item: Item = { ...items[0]!, bounds: { left: 10, top: 20, right: 40, bottom: 50 }, toCoverage: { a: 1, b: 0, c: 0, d: 1, e: -12.25, f: -20 } }
    const moved = { ...item, bounds: { left: 110, top: 27, right: 140, bottom: 57 }, toCoverage: { ...item.toCoverage, e: -112.25, f: -27 } }
    expect(maskKey(moved)).toBe(maskKey(item))
    expect(spread(moved)).toEqual(spread(item))
    const others: Partial<Item>[] = [
      { opacity: 0.4 },
      { toCoverage: { ...item.toCoverage, e: -12.5 } },
      { bounds: { ...item.bounds, right: 39 } },
      { coverage: { ...item.coverage, strokePx: 3.25 } },
      { coverage: { ...item.coverage, sigmaPx: 2.5 } },
      { coverage: { ...item.coverage, hole: { dx: 1, dy: 2 } } },
      { coverage: { ...item.coverage, shape: { kind: 'superellipse', width: 31, height: 32, exponent: 3 } } },
      { coverage: { ...item.coverage, reveal: { kind: 'edge', a: 1, b: 0, c: -5 } } },
    ]
    expect(new Set([item, ...others.map((other) => ({ ...item, ...other }))].map(maskKey)).size).toBe(others.length + 1)
  })
})
