import { beforeEach, describe, expect, it, vi } from 'vitest'
import { languages } from '../locales/languages.ts'
import { i18n } from '../i18n.ts'
import { useLanguage } from './use-language.ts'

const { choose, failed, direction } = useLanguage()
const german = languages['de']!

/** Lets the test say when German has been loaded, or that it cannot be. Node.js 20 has no Promise.withResolvers. */
function heldBack() {
  const real = german.load
  let arrive!: () => void
  let fail!: (why: Error) => void
  const held = new Promise<void>((resolve, reject) => {
    arrive = resolve
    fail = reject
  })
  vi.spyOn(german, 'load').mockImplementation(() => held.then(() => real()))
  return { arrive, fail }
}

beforeEach(async () => {
  vi.restoreAllMocks()
  await choose('en')
})

describe('the language of the interface', () => {
  it('changes once its words are there, with the page', async () => {
    const { arrive } = heldBack()
    const chosen = choose('de')
    expect(i18n.global.t('nav.build')).toBe('Build')
    arrive()
    await chosen
    expect(i18n.global.t('nav.build')).toBe('Aufbau')
    expect([document.documentElement.lang, document.documentElement.dir]).toEqual(['de', 'ltr'])
    expect(localStorage.getItem('green-room:language')).toBe('de')
  })

  it('is the one chosen last, whichever arrives last', async () => {
    const { arrive } = heldBack()
    const first = choose('de')
    await choose('ar-XB')
    arrive()
    await first
    expect([document.documentElement.lang, document.documentElement.dir, direction()]).toEqual(['ar-XB', 'rtl', 'rtl'])
  })

  it('stays when the next cannot be loaded, and says which', async () => {
    const { fail } = heldBack()
    const chosen = choose('de')
    fail(new TypeError('Failed to fetch'))
    await chosen
    expect(failed.value).toBe('Deutsch')
    expect(i18n.global.t('nav.build')).toBe('Build')
    await choose('en')
    expect(failed.value).toBeNull()
  })
})
