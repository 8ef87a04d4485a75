import { readdirSync, readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import path from 'node:path'
import { loadModule } from 'hunspell-asm'
import { describe, expect, it } from 'vitest'
import { steps } from '../../core/steps/index.ts'
import de from './de/index.ts'
import { refusals } from './de/refusals.ts'
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
      const inside = words.split(/[.?:,]\s+|· | \| /).flatMap((sentence) => sentence.split(' ').slice(1))
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
            'LibreOffice',
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
    const whole = ['app.name', ...['windowTitle', 'card', 'feed', 'fullScreen'].map((key) => `outputs.${key}`)]
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

/** Every sentence that is said in a catalogue, without the places that are filled. */
const saidInAll = (catalogue: object) => sentences(catalogue).flatMap(([, words]) => saidIn(words))

describe('the sentences', () => {
  it.each([
    ['English', en],
    ['German', { ...de, refusals }],
  ])('in %s have nine words on average at most, and none more than 24', (_, catalogue) => {
    const lengths = saidInAll(catalogue)
      .filter((sentence) => /\s/.test(sentence))
      .map((sentence) => sentence.split(/\s+/).length)
    expect(lengths.reduce((sum, length) => sum + length, 0) / lengths.length).toBeLessThanOrEqual(9)
    expect(saidInAll(catalogue).filter((sentence) => sentence.split(/\s+/).length > 24)).toEqual([])
  })

  // Words of the trade, names, and keys of the keyboard, which the dictionaries do not have.
  const names = 'fps dBFS HD ffmpeg loopback Loopback SVG EBU px ups Green Room Chromium Chrome Camera Microphone LibreOffice pdf pptx odp min'
  const german =
    'MP VP WebM Cube PNG JPEG WebP AVIF GIF JSON Terrazzo Webinar Imkerei Textmarker Radierer localhost Code Tab Umschalt Escape Strg Entf Vektorskop Look Spill Feed Mono Zip App Webcam Full magenta cyan Sepia ungespeicherte abgesoffene abgesoffen übersteuert Entrauschen Klatscher Szenenliste Eckenradius Konturfarbe Konturbreite Tiefenstreifen abwedeln nachbelichten Schlehe Moospaar LW'
  it.each([
    ['British English', 'dictionary-en-gb', en, `${names} webcam histogram waveform vectorscope keyed unpacked loupe denoise ungroup unmute ctrl ins`],
    ['German', 'dictionary-de', { ...de, refusals }, `${names} ${german}`],
  ])('are spelt as %s (Hunspell, %s), but for words of the trade', async (_, dictionary, catalogue, known) => {
    const folder = path.dirname(createRequire(import.meta.url).resolve(dictionary))
    const hunspell = await loadModule()
    const [affixes, words] = ['index.aff', 'index.dic'].map((file) => hunspell.mountBuffer(readFileSync(path.join(folder, file)), `${dictionary}-${file}`))
    const spelling = hunspell.create(affixes!, words!)
    const trade = new Set(known.toLowerCase().split(' '))
    const unknown = saidInAll(catalogue).flatMap((sentence) =>
      sentence
        .replace(/\{[^}]*\}|@\.?\w*:/g, ' ')
        .split(/[^\p{L}’']+/u)
        .map((word) => word.replace(/^[’']+|[’']+$/g, '').replaceAll('’', "'"))
        .filter((word) => word.length > 1 && !trade.has(word.toLowerCase()) && !spelling.spell(word)),
    )
    expect(spelling.spell('Kamrea') || spelling.spell('pictuer')).toBe(false)
    spelling.dispose()
    expect([...new Set(unknown)]).toEqual([])
  })
})

describe('German', () => {
  const german = new Map(sentences(de))

  it('has the texts of English, no more and no fewer', () => {
    expect([...german.keys()].sort()).toEqual([...keys].sort())
  })

  it('fills the same places, links the same texts and has the same forms of a plural', () => {
    const shape = (words: string) => ({
      places: [...new Set(words.match(/\{[^}]*\}/g))].sort(),
      links: words.match(/@(\.\w+)?:/g)?.length ?? 0,
      forms: words.split(' | ').length,
    })
    const differing = sentences(en).filter(([key, words]) => JSON.stringify(shape(words)) !== JSON.stringify(shape(german.get(key)!)))
    expect(differing.map(([key]) => key)).toEqual([])
  })

  it('is German: few texts are the same as in English', () => {
    const same = sentences(en).filter(([key, words]) => german.get(key) === words && /\p{L}{3}/u.test(words.replace(/\{[^}]*\}/g, '')))
    expect(same.length / keys.length).toBeLessThan(0.07)
  })
})
