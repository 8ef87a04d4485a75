// What the documents promise is there: links, pictures, commands, steps.
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import { describe, expect, it } from 'vitest'
import { stepWords } from '../../app/locales/en/steps.ts'
import { steps } from '../../core/steps/index.ts'

const root = path.resolve(import.meta.dirname, '../..')
const documents = [
  'README.md',
  'CONTRIBUTING.md',
  ...readdirSync(path.join(root, 'docs'), { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.md'))
    .map((name) => `docs/${name}`),
]
const textOf = (name: string) => readFileSync(path.join(root, name), 'utf8')

/** Every match of a pattern in every document: what was found, and where. */
function found(pattern: RegExp): { readonly name: string; readonly target: string }[] {
  return documents.flatMap((name) => [...textOf(name).matchAll(pattern)].map(([, target]) => ({ name, target: target! })))
}

describe('the documents', () => {
  it('link to files that are there', () => {
    const links = found(/\]\(([^)#]+)[^)]*\)/g).filter(({ target }) => !/^https?:/.test(target))
    expect(links.length).toBeGreaterThan(20)
    expect(links.filter(({ name, target }) => !existsSync(path.resolve(root, path.dirname(name), target)))).toEqual([])
  })

  it('name source files that are there', () => {
    const files = found(/`((?:app|core|engine|server|standins|tests|scripts)\/[\w./-]+\.(?:ts|vue|mjs))`/g).filter(({ target }) => !target.includes('NAME'))
    expect(files.length).toBeGreaterThan(5)
    expect(files.filter(({ target }) => !existsSync(path.join(root, target)))).toEqual([])
  })
})

describe('the guide', () => {
  const guide = textOf('docs/guide-camera.md')

  it('speaks of every step by its name on screen', () => {
    for (const { kind } of steps) expect(guide, kind).toContain(stepWords[kind].name)
  })

  it('takes the steps in the order of the chain', () => {
    const order = ['framing', 'denoise', 'balance', 'tone', 'chromaKey', 'matteEdge', 'spill', 'room', 'look', 'sharpen'] as const
    const places = order.map((kind) => guide.indexOf(`**${stepWords[kind].name}**`))
    expect(places.every((place) => place >= 0)).toBe(true)
    expect(places).toEqual([...places].sort((a, b) => a - b))
  })
})

describe('screenshots', () => {
  it('are fewer than twenty and each is shown somewhere', () => {
    const shots = readdirSync(path.join(root, 'docs/screenshots'))
    expect(shots.length).toBeLessThan(20)
    const all = documents.map(textOf).join('\n')
    for (const shot of shots) expect(all, shot).toContain(`screenshots/${shot}`)
  })
})

describe('the commands of the README', () => {
  it('exist', () => {
    const scripts = Object.keys((JSON.parse(textOf('package.json')) as { scripts: Record<string, string> }).scripts)
    const named = [...textOf('README.md').matchAll(/^npm run (?:-s )?(\w+)/gm)].map(([, script]) => script!)
    expect(named.length).toBeGreaterThan(2)
    expect(scripts).toEqual(expect.arrayContaining(named))
    expect(scripts).toEqual(expect.arrayContaining(['start', 'test']))
  })
})
