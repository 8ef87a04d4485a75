import { describe, expect, it } from 'vitest'
import en from './en/index.ts'
import { languageFor, languageOf, languages, pseudoLanguages } from './languages.ts'
import { pseudoCatalogue, pseudoText } from './pseudo.ts'

describe('the language', () => {
  // RFC 4647, 3.4 "Lookup": a tag is cut from the end until a language has it, and the person's order decides.
  it.each([
    ['auto', ['de-AT', 'en'], 'de'],
    ['auto', ['fr-FR', 'de'], 'de'],
    ['auto', ['en-GB', 'de'], 'en'],
    ['auto', ['fr', 'ja'], 'en'],
    ['auto', [], 'en'],
    ['auto', ['DE'], 'de'],
    ['de', ['en'], 'de'],
    ['en', ['de'], 'en'],
    ['no-such', ['de'], 'de'],
    ['constructor', ['toString', 'en'], 'en'],
    ['ar-XB', ['en'], 'ar-XB'],
  ])('for %s in a browser that asks for %j is %s', (chosen, browser, tag) => expect(languageFor(chosen, browser)).toBe(tag))

  it('has its name in its own words, and is English when its tag is unknown', () => {
    expect(Object.values(languages).map(({ name }) => name)).toEqual(['English', 'Deutsch'])
    expect(languageOf('xx').name).toBe('English')
  })

  it('loads all texts', async () => {
    for (const { load } of Object.values({ ...languages, ...pseudoLanguages })) expect(Object.keys(await load()).sort()).toEqual(Object.keys(en).sort())
  })
})

describe('a pseudo-language', () => {
  it('keeps places, links, plural forms and the name', () => {
    expect(pseudoText('Start {name} in Green Room | @.lower:{key} {count} feeds', 'rightToLeft')).toMatch(
      /^[^a-z|]+ \{name\} [^a-z|]+ Green Room \| @\.lower:\{key\} \{count\} [^a-z]+$/,
    )
    expect(pseudoText('{percent} %', 'longer')).toBe('{percent} %')
  })

  it('makes texts 40 % longer, within a letter', () => {
    for (const text of ['Scenes', 'Make this a separate copy', 'The picture has stopped. Restart it to go on.'])
      expect(Math.abs(pseudoText(text, 'longer').length - 1.4 * text.length)).toBeLessThanOrEqual(1)
  })

  it('leaves no Latin letter of ours', () => {
    const left = JSON.stringify(Object.values(pseudoCatalogue(en.build, 'rightToLeft'))).replace(/\{\w+\}|@\.?\w*:|Green Room|"\w+":/g, '')
    expect(left).not.toMatch(/[a-z]/i)
  })
})
