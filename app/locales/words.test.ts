import { readdirSync, readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import path from 'node:path'
import nspell from 'nspell'
import { describe, expect, it } from 'vitest'
import { steps } from '../../core/steps/index.ts'
import en from './en/index.ts'

/** Every sentence of the catalogue with its key. */
function sentences(node: object, prefix = ''): [key: string, words: string][] {
  return Object.entries(node).flatMap(([key, value]) =>
    typeof value === 'string' ? [[`${prefix}${key}`, value] as [string, string]] : sentences(value as object, `${prefix}${key}.`),
  )
}

describe('the words', () => {
  it.each(steps.map((step) => [step.kind, step] as const))('name step %s, its purpose and every value', (kind, step) => {
    const words = en.steps[kind]
    expect(words.name).not.toBe('')
    expect(words.purpose.endsWith('.')).toBe(true)
    expect(Object.keys(words.params).sort()).toEqual(Object.keys(step.params).sort())
    for (const [name, spec] of Object.entries(step.params)) {
      if (spec.type !== 'choice' || spec.options.includes('off')) continue
      expect(Object.keys((words.options as Record<string, Record<string, string>>)[name] ?? {}).sort(), name).toEqual([...spec.options].sort())
    }
  })

  it('have a unit for every unit of a step', () => {
    for (const step of steps) for (const spec of Object.values(step.params)) if (spec.type === 'number') expect(en.units).toHaveProperty(spec.unit)
  })

  it('are in sentence case and never shout', () => {
    for (const [key, words] of sentences(en)) {
      if (key === 'app.name' || key.startsWith('units.')) continue
      expect(words, key).not.toMatch(/!|[A-Z]{4,}/)
      // A name that fills a place is no word of ours.
      const inside = words.split(/[.?:,]\s+|· /).flatMap((sentence) => sentence.split(' ').slice(1))
      const capitals = inside.filter(
        (word) =>
          /^[A-Z][a-z]/.test(word) &&
          ![
            'Green',
            'Room',
            'Room.',
            'Chromium',
            'Chromium-based',
            'Chrome',
            'Build',
            'Build;',
            'Escape',
            'Alt',
            'Start',
            'Camera',
            'Camera.',
            'Shift',
            'Delete',
            'Enter',
            'Find',
            'Measure',
            'On',
            'Bench',
            'Bench.',
            'Devices',
            'Devices.',
            'Spill',
            'Microphone',
            'Microphone.',
            // What the browser's own page of extensions, and systems, are called.
            'Developer',
            'Load',
            'Linux',
          ].includes(word),
      )
      expect(capitals, key).toEqual([])
    }
  })
})

const appDir = path.resolve(import.meta.dirname, '..')
const sources = readdirSync(appDir, { recursive: true, encoding: 'utf8' }).filter(
  (file) => /\.(vue|ts)$/.test(file) && !file.startsWith('locales') && !file.endsWith('.test.ts'),
)
const code = sources.map((file) => readFileSync(path.join(appDir, file), 'utf8')).join('\n')
const keys = sentences(en).map(([key]) => key)

describe('the keys of the catalogue', () => {
  // A key is asked for as it is, or made from parts: `camera.states.${state}`. Any string of that form counts, since keys are handed on.
  const literal = new Set([...code.matchAll(/['"]([a-zA-Z]+(?:\.[\w-]+)+)['"]/g)].map(([, key]) => key!))
  const made = [...code.matchAll(/`((?:[\w.-]|\$\{[^`}]*\})+)`/g)]
    .map(([, text]) => text!)
    .filter((text) => /^[a-zA-Z]+\./.test(text) && text.includes('${'))
    .map(
      (text) =>
        new RegExp(
          `^${text
            .split(/\$\{[^}]*\}/)
            .map((part) => part.replaceAll('.', '\\.'))
            .join('[\\w.-]+')}$`,
        ),
    )
  const isAsked = (key: string) => literal.has(key) || made.some((pattern) => pattern.test(key))

  it('are all used', () => {
    // Of these a part of the catalogue is read as a whole.
    const whole = ['app.name']
    expect(keys.filter((key) => !isAsked(key) && !whole.includes(key))).toEqual([])
  })

  it('are all there', () => {
    const asked = [...code.matchAll(/\bt\(\s*'([\w.-]+)'/g)].map(([, key]) => key!)
    expect(asked.length).toBeGreaterThan(300)
    expect(asked.filter((key) => !keys.includes(key))).toEqual([])
  })
})

/** What is said at once: the forms of a plural, and each sentence of a message. Names that are filled in count as one word. */
function saidIn(words: string): string[] {
  return words
    .split(' | ')
    .flatMap((form) => form.split(/(?<=[.?:])\s+/))
    .filter((sentence) => /\p{L}/u.test(sentence))
}

describe('the sentences', () => {
  const said = sentences(en).flatMap(([, words]) => saidIn(words))

  it('have nine words on average at most, and none more than 24', () => {
    const lengths = said.filter((sentence) => /\s/.test(sentence)).map((sentence) => sentence.split(/\s+/).length)
    expect(lengths.reduce((sum, length) => sum + length, 0) / lengths.length).toBeLessThanOrEqual(9)
    expect(said.filter((sentence) => sentence.split(/\s+/).length > 24)).toEqual([])
  })

  it('are spelt as British English (Hunspell dictionary en-GB), but for words of the trade', () => {
    const dictionary = (file: string) => readFileSync(path.join(path.dirname(createRequire(import.meta.url).resolve('dictionary-en-gb')), file))
    const spelling = nspell({ aff: dictionary('index.aff'), dic: dictionary('index.dic') })
    const trade = 'fps dBFS HD ffmpeg loopback webcam histogram waveform vectorscope keyed SVG EBU unpacked loupe denoise ungroup unmute ctrl px ins ups'.split(
      ' ',
    )
    for (const word of trade) spelling.add(word)
    const unknown = said.flatMap((sentence) =>
      sentence
        .replace(/\{[^}]*\}/g, ' ')
        .split(/[^\p{L}’']+/u)
        .map((word) => word.replace(/^[’']+|[’']+$/g, '').replaceAll('’', "'"))
        .filter((word) => word.length > 1 && !spelling.correct(word)),
    )
    expect([...new Set(unknown)]).toEqual([])
  })
})
