import { describe, expect, it } from 'vitest'
import { isDeck, newDeck } from '../../core/inputs/deck.ts'
import { EMPTY_PROGRAMME, programmeAfter, type Programme, type ProgrammeMessage } from '../../core/programme/programme.ts'
import { addInput, renameShow } from '../../core/show/edits.ts'
import type { Show } from '../../core/show/show.ts'
import { usualTransitions } from '../../core/transitions/index.ts'
import { testShow } from '../../tests/support/shows.ts'
import { ShowBook } from './show-book.ts'

const pages = [1, 2, 3].map((number) => ({
  id: `p${number}`,
  asset: String(number).repeat(64),
  widthPx: 16,
  heightPx: 9,
  number,
  title: '',
  notes: '',
  skipped: false,
  strokes: [],
}))
const show = addInput(
  testShow(),
  newDeck('Slides', 's.pdf', pages, () => 'deck'),
)
const ref = { showId: 'show', sceneId: show.scenes[0]!.id }
const turn = (pageId: string, showId = 'show'): ProgrammeMessage => ({ type: 'turnDeck', showId, inputId: 'deck', pageId })
const take: ProgrammeMessage = { type: 'take', scene: ref, transition: usualTransitions.cut }
const pageOf = (one: Show | null | undefined) => one?.inputs.find(isDeck)?.pageId

/** A book with the show, and a programme that messages change. */
function bookOf() {
  const book = new ShowBook()
  book.take('show', { type: 'whole', document: show })
  book.openId = 'show'
  let programme: Programme = EMPTY_PROGRAMME
  const say = (...messages: ProgrammeMessage[]) => {
    for (const message of messages) programme = programmeAfter(programme, message, 0)
    book.follow(programme)
  }
  return { book, say }
}

describe('decks in the shows of the engine', () => {
  it('are at the page that they were turned to, whoever asks', () => {
    const { book, say } = bookOf()
    say(take, turn('p2'))
    expect([pageOf(book.open), pageOf(book.find(ref)?.show), pageOf(book.together)]).toEqual(['p2', 'p2', 'p2'])
  })

  it('change the version when they are turned, and nothing when they are not', () => {
    const { book, say } = bookOf()
    say(take, turn('p2'))
    const [version, open] = [book.version, book.open]
    say(turn('p2'))
    expect([book.version === version, book.open === open]).toEqual([true, true])
    say(turn('p3'))
    expect(book.version).not.toBe(version)
    expect(book.open!.scenes).toBe(show.scenes)
  })

  it('are turned while edits of what is on air are held', () => {
    const { book, say } = bookOf()
    say(take, { type: 'holdEdits', holds: true })
    book.take('show', { type: 'whole', document: renameShow(show, 'Other') })
    say(turn('p3'))
    expect([book.find(ref)?.show.name, pageOf(book.find(ref)?.show), book.open?.name]).toEqual([show.name, 'p3', 'Other'])
  })

  it('of another show are turned by themselves', () => {
    const { book, say } = bookOf()
    book.take('held', { type: 'whole', document: { ...show } })
    say({ ...take, scene: { ...ref, showId: 'held' } }, turn('p2', 'held'), turn('p3'))
    expect([pageOf(book.find({ ...ref, showId: 'held' })?.show), pageOf(book.open)]).toEqual(['p2', 'p3'])
  })

  it('stay as they are when the page that they were at is gone', () => {
    const { book, say } = bookOf()
    say(turn('p3'))
    book.take('show', {
      type: 'whole',
      document: { ...show, inputs: show.inputs.map((input) => (isDeck(input) ? { ...input, pages: pages.slice(0, 2) } : input)) },
    })
    expect(pageOf(book.open)).toBe('p1')
  })
})
