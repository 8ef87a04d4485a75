// Drawings as pictures: painted off the tick, swapped whole, painted again after the painter died, and let go of.
import { describe, expect, it, vi } from 'vitest'
import type { Stroke } from '../../core/drawing/stroke.ts'
import { pageSurface, sceneSurface } from '../../core/drawing/surface.ts'
import { newDeck, type DeckPage } from '../../core/inputs/deck.ts'
import { EMPTY_PROGRAMME, programmeAfter, type ProgrammeMessage } from '../../core/programme/programme.ts'
import { addInput } from '../../core/show/edits.ts'
import type { Show } from '../../core/show/show.ts'
import { randomStrokes } from '../../tests/support/random-drawings.ts'
import { testShow } from '../../tests/support/shows.ts'
import type { SourceFrame } from '../executor.ts'
import { StrokePainter, type StrokesRequest } from '../raster/stroke-painter.ts'
import { DrawingBook } from './drawing-book.ts'

const page = (id: string, strokes: readonly Stroke[] = []): DeckPage => ({
  ...{ id, asset: 'a'.repeat(64), widthPx: 160, heightPx: 90, number: 1 },
  ...{ title: '', notes: '', skipped: false, strokes },
})
const withPages = (...pages: DeckPage[]): Show =>
  addInput(
    testShow(),
    newDeck('Slides', 's.pdf', pages, () => 'deck'),
  )
const show = withPages(page('p1'), page('p2'))
const scene = sceneSurface(show.scenes[0]!.id)
const [one, two, three] = randomStrokes(5, 3) as [Stroke, Stroke, Stroke]
const draw = (stroke: Stroke, part: Partial<Extract<ProgrammeMessage, { type: 'drawStroke' }>> = {}): ProgrammeMessage => ({
  ...{ type: 'drawStroke', showId: 'show', surface: scene, stroke, isOpen: false, staysMs: null },
  ...part,
})

/** A book whose painter answers when it is told to. */
function bookOf() {
  const asked: StrokesRequest[] = []
  const frames = new Map<string, SourceFrame>()
  const onChange = vi.fn()
  const book = new DrawingBook((request) => asked.push(request), frames, { onChange, onPainted: () => undefined })
  let painter = new StrokePainter()
  let programme = EMPTY_PROGRAMME
  let shown = show
  const follow = () => book.follow(programme.drawings, [['show', shown]])
  return {
    book,
    asked,
    frames,
    onChange,
    say: (...messages: ProgrammeMessage[]) => {
      for (const message of messages) programme = programmeAfter(programme, message, 0)
      follow()
    },
    edit: (next: Show) => {
      shown = next
      follow()
    },
    /** The painter does all that it was asked, and what is asked because of it. */
    paint: () => {
      while (asked.length > 0) book.receive(painter.paint(asked.shift()!))
    },
    die: () => {
      painter = new StrokePainter()
      asked.length = 0
      book.startAgain()
    },
    parts: (surface = scene) => (book.of('show')?.get(surface) ?? []).map(({ sourceId }) => sourceId.split(':').at(-1)),
  }
}

describe('DrawingBook', () => {
  it('shows a stroke by itself while the hand is at it, and among the others in the same moment in which it is done', () => {
    const { say, paint, parts, frames, asked } = bookOf()
    say(draw(one))
    expect(parts()).toEqual([])
    paint()
    expect(parts()).toEqual(['lasting'])
    say(draw(two, { isOpen: true }))
    expect(parts()).toEqual(['lasting'])
    paint()
    expect(parts()).toEqual(['lasting', two.id])
    const before = frames.get(`strokes:show/${scene}:lasting`)
    say(draw({ ...two, points: [...two.points] }))
    expect([parts(), frames.get(`strokes:show/${scene}:lasting`)]).toEqual([['lasting', two.id], before])
    paint()
    expect(parts()).toEqual(['lasting'])
    expect(frames.size).toBe(1)
    expect(asked).toEqual([])
  })

  it('asks for the newest only, however many points come while one is painted, and sends no stroke twice', () => {
    const { say, asked, paint, parts } = bookOf()
    say(draw(one))
    for (let i = 0; i < 20; i += 1) say(draw({ ...two, points: two.points.map((value) => value + i * 1e-5) }, { isOpen: true }))
    expect(asked).toHaveLength(1)
    const [first] = asked
    paint()
    expect(first!.put.map(({ id }) => id)).toEqual([one.id])
    expect(parts()).toEqual(['lasting', two.id])
    say(draw(three))
    expect(asked[0]!.put.map(({ id }) => id)).toEqual([three.id])
  })

  it('hands on when a stroke fades without painting it again, and lets go of it', () => {
    const { say, paint, book, asked, frames } = bookOf()
    say(draw(one, { isOpen: true }))
    paint()
    say(draw(one, { staysMs: 500 }))
    expect(asked).toEqual([])
    expect(book.of('show')!.get(scene)![0]!.fadesFromMs).toBe(500)
    say({ type: 'eraseStrokes', showId: 'show', surface: scene, ids: [one.id] })
    paint()
    expect([book.of('show'), frames.size]).toEqual([undefined, 0])
  })

  it('lets what was painted stand when the painter dies, and has all of it painted again', () => {
    const { say, paint, parts, die, asked } = bookOf()
    say(draw(one), draw(two, { isOpen: true }))
    paint()
    say(draw(three))
    die()
    expect(parts()).toEqual(['lasting', two.id])
    expect(asked[0]!.put.map(({ id }) => id).toSorted()).toEqual([one.id, two.id, three.id].toSorted())
    paint()
    expect(parts()).toEqual(['lasting', two.id])
  })

  it('has kept strokes of pages that are seen, or may be next, and live ones over them', () => {
    const { edit, say, paint, parts, asked } = bookOf()
    const [p1, p4] = [pageSurface('deck', 'p1'), pageSurface('deck', 'p4')]
    edit(withPages(page('p1', [one]), page('p2'), page('p3'), page('p4', [two])))
    paint()
    expect([parts(p1), parts(p4)]).toEqual([['lasting'], []])
    say(draw(three, { surface: p1 }))
    expect(asked[0]!.lasting).toEqual([one.id, three.id])
    paint()
    edit(withPages(page('p1'), page('p2')))
    expect(asked[0]!.lasting).toEqual([three.id])
  })

  it('draws nothing for a page or a scene that is gone, and says nothing when nothing changed', () => {
    const { say, asked, onChange, paint } = bookOf()
    say(draw(one, { surface: pageSurface('deck', 'gone') }), draw(one, { surface: sceneSurface('gone') }), draw(one, { surface: 'nonsense' }))
    expect(asked).toEqual([])
    say(draw(two))
    paint()
    onChange.mockClear()
    say({ type: 'card', isShown: true })
    expect(onChange).not.toHaveBeenCalled()
  })
})
