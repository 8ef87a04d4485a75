import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import { afterEach, expect, it } from 'vitest'
import { loadCatalogue, showCatalogue } from '../i18n.ts'
import { refusals } from '../locales/de/refusals.ts'
import { ApiError } from './api.ts'
import { errorWords } from './error-words.ts'

const refused = new ApiError(415, 'picture-format', '"notes.png" is not a picture Green Room can read. Use a PNG.')

afterEach(() => showCatalogue('en'))

it('says a refusal as the server does in English, and by its code in another language, with the name of the file', async () => {
  expect(errorWords(refused)).toBe(refused.message)
  await loadCatalogue('de')
  showCatalogue('de')
  expect(errorWords(refused)).toContain('„notes.png“ ist kein Bild')
  expect(errorWords(new ApiError(404, 'show-not-found', 'There is no show.'))).toBe('Diese Show gibt es nicht mehr.')
  expect(errorWords(new TypeError('Failed to fetch'))).toBe('Der Server hat nicht geantwortet.')
  // What has no translation is said as it came, and not kept back.
  expect(errorWords(new ApiError(418, 'of-tomorrow', 'Something new.'))).toBe('Something new.')
})

it('has German words for every code that the server gives', () => {
  const server = path.resolve(import.meta.dirname, '../../server')
  const files = readdirSync(server, { recursive: true, encoding: 'utf8' }).filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
  const codes = files.flatMap((file) =>
    [...readFileSync(path.join(server, file), 'utf8').matchAll(/(?:HttpError\(\s*\d+,|refused\()\s*'([a-z-]+)'/g)].map(([, code]) => code!),
  )
  expect(codes.length).toBeGreaterThan(30)
  expect([...new Set(codes)].filter((code) => !(code in refusals))).toEqual([])
})
