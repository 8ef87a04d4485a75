// Show files made to harm: small ones that are deep, wide, or show themselves many times over. Each is refused in words, or taken, and the
// server answers others meanwhile.
import { newSceneLayer } from '../../core/layers/scene.ts'
import { newInputLayer } from '../../core/layers/input.ts'
import { newGroupLayer } from '../../core/layers/group.ts'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seededRandom } from '../../core/random/seeded.ts'
import { BARE_SCENE } from '../../core/show/create.ts'
import { readShow } from '../../core/show/migrate.ts'
import type { Layer, Scene, Show } from '../../core/show/show.ts'
import { tryRead } from '../try-read.ts'
import { testShow } from '../../tests/support/shows.ts'
import { callJson, startTestServer, type TestServer } from '../../tests/support/test-server.ts'

const show = testShow()
let count = 0
const makeId = () => `h${(count += 1)}`
let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const withLayers = (layers: readonly unknown[]): unknown => ({ ...show, scenes: [{ ...show.scenes[0]!, layers }, ...show.scenes.slice(1)] })

/** Groups in groups, made without recursion. */
function nested(depth: number): unknown {
  let inner: Layer = newInputLayer(show.inputs[0]!, show.canvas, makeId)
  for (let i = 0; i < depth; i += 1) inner = newGroupLayer('Group', [inner], show.canvas, makeId)
  return withLayers([inner])
}

/** Each scene shows the next `times` over. */
function tower(scenes: number, times: number): Show {
  const made: Scene[] = Array.from({ length: scenes }, (_, i) => ({ ...BARE_SCENE, id: `s${i}`, name: `Scene ${i}`, layers: [] }))
  const filled = made.map((scene, i) => ({
    ...scene,
    layers:
      i + 1 < scenes
        ? Array.from({ length: times }, () => newSceneLayer(made[i + 1]!, show.canvas, makeId))
        : [newInputLayer(show.inputs[0]!, show.canvas, makeId)],
  }))
  return { ...show, scenes: filled }
}

const outline = (characters: number) => ({
  id: makeId(),
  kind: 'shape',
  fill: { kind: 'plain', colour: '#000000', opacity: 1 },
  outline: { path: `M0 0${'c9 9 9 9 9 9'.repeat(Math.floor(characters / 12))}`, width: 100, height: 100, stroke: null },
})

const hostile: readonly (readonly [string, unknown, RegExp])[] = [
  ['groups a hundred deep', nested(100), /must not lie in more than 40 others|must not be a group inside more than 4 others/],
  ['groups seventeen deep', nested(17), /must not be a group inside more than 4 others/],
  ['twenty scenes that each show the next twice', tower(20, 2), /must not come to more than 2000 layers/],
  ['sixty scenes that each show the next forty times', tower(60, 40), /must not come to more than 2000 layers/],
  ['eighty huge outlines', { ...show, contents: Array.from({ length: 80 }, () => outline(19_900)) }, /at most 400000 characters of path data/],
  ['a hundred thousand layers', withLayers(Array.from({ length: 100_000 }, () => 0)), /at most 4000 entries/],
  ['a name with a NUL', { ...show, name: 'An even\0ing' }, /must not hold the character NUL/],
  [
    'version 4 with one id for all',
    { ...show, version: 4, scenes: [{ id: 'a', name: 'A', layers: Array.from({ length: 3900 }, () => ({ id: 'x', kind: 'text' })) }] },
    /contents/,
  ],
]

describe('a show made to harm', () => {
  it.each(hostile)('%s: is refused with the place and the rule, and the next request is answered', async (_, document, words) => {
    const answer = await callJson(`${server.studioUrl}/api/shows`, 'POST', { show: document })
    expect(answer.status).toBe(400)
    expect(answer.body.error.message).toMatch(words)
    expect((await callJson(`${server.studioUrl}/api/shows`)).status).toBe(200)
  })

  it('of groups thirty thousand deep, in a file of a few hundred kilobytes, is refused too', async () => {
    // Written as text: what makes JSON of an object goes down as deep as it is.
    const deep = JSON.stringify({ show: withLayers(['HERE']) }).replace('"HERE"', `${'{"kind":"group","layers":['.repeat(30_000)}${']}'.repeat(30_000)}`)
    const answer = await fetch(`${server.studioUrl}/api/shows`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: deep })
    expect(answer.status).toBe(400)
    expect(((await answer.json()) as { error: { message: string } }).error.message).toMatch(/must not lie in more than 40 others/)
  })

  it('with as many outlines as may be is checked without following their curves', () => {
    const contents = Array.from({ length: 20 }, () => outline(19_900))
    expect(readShow({ ...show, contents: [...show.contents, ...contents] }).contents).toHaveLength(show.contents.length + 20)
  })

  it('that is taken can always be saved again: its size counts with all that may be left out', async () => {
    const bare = { kind: 'tone', on: true, params: {} }
    const steps = () => Array.from({ length: 24 }, () => ({ ...bare, id: makeId() }))
    const layers = () => Array.from({ length: 40 }, () => ({ ...newInputLayer(show.inputs[0]!, show.canvas, makeId), treatment: steps() }))
    const scenes = (many: number) => Array.from({ length: many }, (_, i) => ({ ...BARE_SCENE, id: `f${i}`, name: `Full ${i}`, layers: layers() }))
    const taken = await callJson(`${server.studioUrl}/api/shows`, 'POST', { show: { ...show, scenes: scenes(12) } })
    expect(taken.status).toBe(201)
    const again = await callJson(`${server.studioUrl}/api/shows/${taken.body.id}`, 'PUT', { baseRevision: 1, show: taken.body.show })
    expect(again.status).toBe(200)
    const tooLarge = await callJson(`${server.studioUrl}/api/shows`, 'POST', { show: { ...show, scenes: scenes(56) } })
    expect([tooLarge.status, tooLarge.body.error.code]).toEqual([413, 'too-large'])
    expect(tooLarge.body.error.message).toMatch(/at most 4\.0 MB|too large/)
  })

  it.each([1, 2, 3, 4])('seed %i: two and a half thousand documents with harm done to their structure are read or refused in words', (seed) => {
    const random = seededRandom(seed)
    const pick = <T>(values: readonly T[]): T => values[Math.floor(random() * values.length)]!
    const absurd = [
      null,
      -1,
      1e308,
      -1e308,
      0.1,
      '',
      '\0',
      '💥'.repeat(50),
      [],
      {},
      true,
      'constructor',
      '__proto__',
      Array.from({ length: 50 }, () => ({})),
      { layers: [{}] },
    ]
    const harmed = (): unknown => {
      const document = structuredClone(show) as unknown as Record<string, unknown>
      for (let harms = 1 + Math.floor(random() * 3); harms > 0; harms -= 1) {
        let at: Record<string, unknown> = document
        for (let steps = Math.floor(random() * 9); steps > 0; steps -= 1) {
          const inner = Object.values(at).filter((value): value is Record<string, unknown> => typeof value === 'object' && value !== null)
          if (inner.length === 0) break
          at = pick(inner)
        }
        const key = pick([...Object.keys(at), 'layers', 'kind', 'extra'])
        const way = random()
        if (way < 0.2) delete at[key]
        else if (way < 0.7) at[key] = pick(absurd)
        else if (way < 0.85) at[key] = structuredClone(pick(Object.values(document)))
        else if (Array.isArray(at)) at.push(...Array.from({ length: 60 }, () => structuredClone(pick(at as unknown[]) ?? null)))
      }
      return document
    }
    for (let i = 0; i < 2500; i += 1) {
      const outcome = tryRead(() => readShow(harmed()))
      if (!outcome.isReadable) expect(outcome.reason, `document ${i}`).toMatch(/\w{3}/)
      if (!outcome.isReadable) expect(outcome.reason, `document ${i}`).not.toMatch(/is not a function|Cannot read|stack/)
    }
  })
})
