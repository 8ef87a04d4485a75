import { describe, expect, it } from 'vitest'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Show } from '../../core/show/show.ts'
import type { ViewRequest } from '../protocol.ts'
import { Views, type AirState, type DrawnView } from './views.ts'

const picture: RgbaPicture = { format: 'rgba', widthPx: 1, heightPx: 1, data: new Uint8Array(4) }
const show = {} as Show
const quiet: AirState = { isFeedOpen: false, showsCard: false, sceneId: 'on-air' }

/** A view that writes down what is asked of it. */
class PaperView implements DrawnView {
  request: ViewRequest
  lastDrawnMs = -Infinity
  readonly log: string[] = []
  isWhole = true
  constructor(request: ViewRequest) {
    this.request = request
  }
  get isSmall(): boolean {
    return this.request.kind === 'layer' || this.request.kind === 'draft' || (this.request.kind !== 'air' && this.request.isSmall)
  }
  invalidate(): void {
    this.log.push('stale')
  }
  showAir(): void {
    this.log.push('air')
  }
  draw(_show: Show, _nowMs: number, onlyWhole: boolean): boolean {
    this.log.push(onlyWhole && !this.isWhole ? 'waited' : 'drawn')
    return this.isWhole
  }
  dispose(): void {
    this.log.push('gone')
  }
}

const scene = (sceneId: string, isSmall = false): ViewRequest => ({ kind: 'scene', sceneId, isSmall })
function board(requests: Readonly<Record<string, ViewRequest>>) {
  let firsts = 0
  const views = new Views(() => (firsts += 1))
  const opened = Object.fromEntries(Object.entries(requests).map(([id, request]) => [id, new PaperView(request)]))
  for (const [id, view] of Object.entries(opened)) views.open(id, view)
  const drawnIn = (nowMs: number, air = quiet) => {
    for (const view of Object.values(opened)) view.log.length = 0
    views.draw(show, air, nowMs)
    return Object.entries(opened).flatMap(([id, view]) => (view.log.includes('drawn') ? [id] : []))
  }
  return { views, opened, drawnIn, firsts: () => firsts }
}

describe('what is drawn when', () => {
  it('large views each time, small ones by turns, one in a tick, none more often than twice a second', () => {
    const small = Object.fromEntries(Array.from({ length: 5 }, (_, i) => [`small${i}`, scene(`s${i}`, true)]))
    const { drawnIn } = board({ large: scene('other'), ...small })
    const ticks = Array.from({ length: 20 }, (_, i) => drawnIn(i * 33))
    expect(ticks.every((drawn) => drawn.includes('large'))).toBe(true)
    expect(ticks.map((drawn) => drawn.length - 1)).toEqual([...Array<number>(5).fill(1), ...Array<number>(11).fill(0), 1, 1, 1, 1])
    expect(new Set(ticks.slice(0, 5).flat()).size).toBe(6)
  })

  it('small ones once a second while the feed is open', () => {
    const { drawnIn } = board({ small: scene('s', true) })
    const air = { ...quiet, isFeedOpen: true }
    expect([0, 500, 990, 1010].map((nowMs) => drawnIn(nowMs, air).length)).toEqual([1, 0, 0, 1])
  })

  it('no small view starves beside many others', () => {
    const { drawnIn } = board(Object.fromEntries(Array.from({ length: 40 }, (_, i) => [`s${i}`, scene(`s${i}`, true)])))
    const counts = new Map<string, number>()
    for (let tick = 0; tick < 200; tick += 1) for (const id of drawnIn(tick * 33)) counts.set(id, (counts.get(id) ?? 0) + 1)
    expect(Math.max(...counts.values()) - Math.min(...counts.values())).toBeLessThanOrEqual(2)
    expect(counts.size).toBe(40)
  })

  it('at first nothing is drawn that is not whole, for four seconds at most; later everything is', () => {
    const { opened, drawnIn, firsts } = board({ stage: scene('a'), thumb: scene('b', true) })
    const { stage, thumb } = opened
    stage!.isWhole = thumb!.isWhole = false
    expect(drawnIn(1000)).toEqual([])
    expect(drawnIn(4990)).toEqual([])
    expect(firsts()).toBe(0)
    expect(drawnIn(5000)).toContain('stage')
    expect(firsts()).toBe(1)
    expect(drawnIn(6000)).toEqual(['stage', 'thumb'])
    const quick = board({ stage: scene('a'), thumb: scene('b', true) })
    quick.opened['thumb']!.isWhole = false
    expect(quick.drawnIn(0)).toEqual(['stage'])
    expect(quick.firsts()).toBe(1)
    expect(quick.drawnIn(500)).toEqual(['stage', 'thumb'])
  })

  it('what is on air is not drawn again: its picture is shown', () => {
    const { views, opened, drawnIn } = board({ air: { kind: 'air' }, stage: scene('on-air'), thumb: scene('on-air', true), other: scene('other') })
    expect(views.wantsAir(quiet)).toBe(true)
    expect(drawnIn(0)).toEqual(['thumb', 'other'])
    views.showAir(picture, quiet, 0)
    expect(Object.values(opened).map(({ log }) => log.includes('air'))).toEqual([true, true, false, false])
  })

  it('the stage shows its own scene while the audience gets the card, or another show is on air', () => {
    const { drawnIn, views } = board({ stage: scene('on-air') })
    expect(drawnIn(0, { ...quiet, showsCard: true })).toEqual(['stage'])
    expect(drawnIn(0, { ...quiet, sceneId: null })).toEqual(['stage'])
    expect(views.wantsAir({ ...quiet, sceneId: null })).toBe(false)
  })
})

describe('the first picture', () => {
  it('is told once, when a large view is whole', () => {
    const { opened, drawnIn, firsts } = board({ small: scene('s', true), large: scene('l') })
    opened['large']!.isWhole = false
    drawnIn(0)
    expect(firsts()).toBe(0)
    opened['large']!.isWhole = true
    drawnIn(33)
    drawnIn(66)
    expect(firsts()).toBe(1)
  })

  it('is not the card', () => {
    const { views, firsts } = board({ air: { kind: 'air' } })
    views.showAir(picture, { ...quiet, showsCard: true }, 0)
    expect(firsts()).toBe(0)
    views.showAir(picture, quiet, 0)
    expect(firsts()).toBe(1)
  })
})

it('a view that is changed is drawn in the next tick; one that is closed never again; unknown ones harm nobody', () => {
  const { views, opened, drawnIn } = board({ small: scene('s', true), large: scene('l') })
  drawnIn(0)
  views.change('small', scene('t', true))
  expect(drawnIn(33)).toContain('small')
  views.close('large')
  expect(opened['large']!.log).toContain('gone')
  expect(drawnIn(533)).toEqual(['small'])
  views.invalidate()
  expect(opened['small']!.log).toContain('stale')
  views.change('nobody', scene('x'))
  views.close('nobody')
})
