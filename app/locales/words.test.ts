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
