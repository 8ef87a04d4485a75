// WCAG 2.2 AA for the colours of both themes: 4.5 for text, 3 for parts of controls (SC 1.4.3, 1.4.11).
import { readFileSync } from 'node:fs'
import path from 'node:path'
import { describe, expect, it } from 'vitest'
import { contrastRatio } from '../../tests/support/contrast.ts'

const css = readFileSync(path.resolve('app/styles/app.css'), 'utf8')

/** The tokens that a selector sets. */
function tokensOf(selector: string): Record<string, string> {
  const at = css.indexOf(`${selector} {`)
  const block = css.slice(at, css.indexOf('}', at))
  return Object.fromEntries([...block.matchAll(/--([\w-]+):\s*(#[0-9a-f]{6})/g)].map(([, name, value]) => [name!, value!]))
}

describe.each([
  ['Paper', ':root'],
  ['Blackout', ":root[data-theme='blackout']"],
])('the theme %s', (_name, selector) => {
  const tokens = tokensOf(selector)
  const grounds = ['paper', 'sunk', 'raised'] as const

  it('has all its colours', () => {
    for (const name of [...grounds, 'line', 'ink', 'soft', 'green', 'on-green', 'brass', 'wash', 'tally', 'well']) expect(tokens[name], name).toMatch(/^#/)
  })

  it.each(grounds)('can be read on %s', (ground) => {
    for (const text of ['ink', 'soft', 'green', 'brass', 'tally'])
      expect(contrastRatio(tokens[text]!, tokens[ground]!), `${text} on ${ground}`).toBeGreaterThanOrEqual(4.5)
  })

  it('can be read on the selection and on the primary button', () => {
    for (const text of ['ink', 'soft', 'brass']) expect(contrastRatio(tokens[text]!, tokens['wash']!), text).toBeGreaterThanOrEqual(4.5)
    expect(contrastRatio(tokens['on-green']!, tokens['green']!)).toBeGreaterThanOrEqual(4.5)
  })

  it('has a neutral well, since skin is judged against it', () => {
    const [, red, green, blue] = /^#(..)(..)(..)$/.exec(tokens['well']!)!
    expect(red).toBe(green)
    expect(green).toBe(blue)
  })
})
