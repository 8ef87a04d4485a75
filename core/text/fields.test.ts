import { describe, expect, it } from 'vitest'
import { fieldsIn, filledText, type WallClock } from './fields.ts'
import { lettersOf } from './letters.ts'
import { USUAL_LETTERS, type TextContent } from './text-content.ts'

const saying = (...texts: string[]): TextContent => ({
  ...USUAL_LETTERS,
  family: 'Instrument Sans',
  align: 'start',
  plate: null,
  blocks: texts.map((text) => ({ text, weight: 400, sizePx: 20, colour: '#ffffff' })),
})
/** Half past six in the evening of 29 November 2026 in Zagreb, an hour ahead of UTC. */
const wall: WallClock = { epochMs: Date.UTC(2026, 10, 29, 17, 30, 0), utcOffsetMin: 60, locale: 'en-GB' }
const iva = { name: 'Iva Kovač', title: 'Beekeeper', countdownTo: '19:00' }
const wordsAt = (text: string, timeMs = 0, source = iva) => filledText(saying(text), source, wall, timeMs).content.blocks[0]!.text

describe('fields', () => {
  it('are filled from the show and the clock on the wall', () => {
    expect(wordsAt('{name}, {title}')).toBe('Iva Kovač, Beekeeper')
    expect(wordsAt('{time}')).toBe('18:30')
    // Intl is the browser's own way to write dates (ECMA-402).
    expect(wordsAt('{date}')).toBe(new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone: 'Europe/Zagreb' }).format(wall.epochMs))
    expect(wordsAt('We begin in {countdown}')).toBe('We begin in 30:00')
  })

  it('leave other words in braces, and texts without fields the same object', () => {
    const plain = saying('{nobody} { name } {}')
    expect(filledText(plain, iva, wall, 0)).toEqual({ content: plain, untilMs: Infinity })
    expect(filledText(plain, iva, wall, 0).content).toBe(plain)
    expect(fieldsIn(saying('{time}', 'and {name}{name}'))).toEqual(['name', 'time'])
  })

  it('take no room where they leave a line empty, unless nothing else is said', () => {
    const blocksOf = (texts: string[], source = iva) => filledText(saying(...texts), source, wall, 0).content.blocks.map(({ text }) => text)
    expect(blocksOf(['{name}', '{title}'], { ...iva, title: '' })).toEqual(['Iva Kovač'])
    expect(blocksOf(['{name}', '', 'of Zagreb'], { ...iva, name: '' })).toEqual(['', 'of Zagreb'])
    expect(blocksOf(['{name}', '{title}'], { ...iva, name: '', title: ' ' })).toEqual(['', ' '])
  })

  it('take what a presenter is called as it is, braces and signs too', () => {
    expect(wordsAt('{name}', 0, { ...iva, name: '{title} $& $1' })).toBe('{title} $& $1')
    expect(wordsAt('{name}!', 0, { ...iva, name: '' })).toBe('!')
  })

  it.each([
    ['{time}', 60_000],
    ['{countdown}', 1000],
    ['{date}', 5.5 * 3_600_000],
    ['{name}', Infinity],
    ['{date} {countdown}', 1000],
  ])('%s says the same for %d ms, and not longer', (text, ms) => {
    const { untilMs, content } = filledText(saying(text), iva, wall, 0)
    expect(untilMs).toBe(ms)
    if (ms === Infinity) return
    expect(wordsAt(text, ms - 1)).toBe(content.blocks[0]!.text)
    expect(wordsAt(text, ms)).not.toBe(content.blocks[0]!.text)
  })

  it('count down by whole seconds to nothing, stay there, and begin again when the next day is nearer', () => {
    const at = (clock: string) => {
      const [h, m, s] = clock.split(':').map(Number) as [number, number, number]
      return wordsAt('{countdown}', ((h - 18) * 3600 + (m - 30) * 60 + s) * 1000)
    }
    expect(['18:59:59', '19:00:00', '19:00:01', '23:30:00', '07:00:01'].map(at)).toEqual(['0:01', '0:00', '0:00', '0:00', '11:59:59'])
    expect(at('17:00:00')).toBe('2:00:00')
    expect(wordsAt('{countdown}', 29 * 60_000 + 59_001)).toBe('0:01')
    expect(wordsAt('{countdown}', 0, { ...iva, countdownTo: null as unknown as string })).toBe('')
  })

  it('holds at every moment what the next one says until its time is over', () => {
    for (let timeMs = 0; timeMs < 3 * 3_600_000; timeMs += 97_301) {
      const { content, untilMs } = filledText(saying('{time} {countdown}'), iva, wall, timeMs)
      expect(untilMs).toBeGreaterThan(timeMs)
      expect(filledText(saying('{time} {countdown}'), iva, wall, untilMs - 1).content).toEqual(content)
    }
  })
})

it('letters are what a reader counts (Unicode Standard Annex 29): accents and joined emoji belong to theirs', () => {
  expect(lettersOf('e\u0301a')).toHaveLength(2)
  expect(lettersOf('👩‍🌾🐝')).toHaveLength(2)
})
