// How scenes follow each other: which of three rules holds, and what becomes of it when scenes and inputs go.
import { describe, expect, it } from 'vitest'
import { testShow } from '../../tests/support/shows.ts'
import { usualTransitions, type Transition } from '../transitions/index.ts'
import { removeInput, removeScene, toggleFavourite } from './edits.ts'
import { bringInOneByOne } from './layer-set-edits.ts'
import { readShow } from './migrate.ts'
import { issueLines } from './schema.ts'
import { setPairTransition, setSceneTransition, setUsualTransition, transitionTo } from './show-transitions.ts'
import type { Show } from './show.ts'

const { cut, dissolve, push, wipe } = usualTransitions
const show = testShow()
const [one, two, three] = show.scenes.map(({ id }) => id) as [string, string, string]
const picture = show.inputs.find(({ kind }) => kind === 'picture')!
const byPicture: Transition = { ...dissolve, kind: 'pictureWipe', inputId: picture.id, softness: 0.2 }

describe('transitionTo', () => {
  it('the pair comes before the scene, the scene before the default', () => {
    expect(transitionTo(show, one, two)).toEqual(cut)
    const usual = setUsualTransition(show, dissolve)
    const own = setSceneTransition(usual, two, push)
    const pair = setPairTransition(own, one, two, wipe)
    expect([transitionTo(usual, one, two), transitionTo(own, one, two), transitionTo(pair, one, two)]).toEqual([dissolve, push, wipe])
    // A pair has a direction, and is of those two alone.
    expect([transitionTo(pair, two, one), transitionTo(pair, three, two), transitionTo(pair, null, two)]).toEqual([dissolve, push, push])
    expect(transitionTo(setPairTransition(pair, one, two, null), one, two)).toEqual(push)
    expect(transitionTo(setSceneTransition(own, two, null), one, two)).toEqual(dissolve)
  })

  it('a pair that is set twice is there once', () => {
    const twice = setPairTransition(setPairTransition(show, one, two, wipe), one, two, push)
    expect(twice.transitions.pairs).toEqual([{ fromId: one, toId: two, transition: push }])
  })
})

describe('what goes takes its transitions along', () => {
  const all = setUsualTransition(setSceneTransition(setPairTransition(show, one, two, byPicture), three, byPicture), byPicture)

  it('a scene its pairs, in both directions', () => {
    const both = setPairTransition(setPairTransition(setPairTransition(show, one, two, wipe), two, three, wipe), three, one, push)
    expect(removeScene(both, two).transitions.pairs).toEqual([{ fromId: three, toId: one, transition: push }])
  })

  it('an input those that need it: they dissolve, as long as before', () => {
    const without = removeInput(all, picture.id)
    for (const transition of [transitionTo(without, one, two), transitionTo(without, null, three), without.transitions.usual])
      expect(transition).toEqual(dissolve)
    expect(readShow(structuredClone(without))).toEqual(without)
  })

  it('and is no favourite any more', () => {
    const kept = toggleFavourite(toggleFavourite(show, { type: 'input', inputId: picture.id }), { type: 'drawn', name: 'folds' })
    expect(kept.favourites).toHaveLength(2)
    expect(removeInput(kept, picture.id).favourites).toEqual([{ type: 'drawn', name: 'folds' }])
    expect(toggleFavourite(kept, { type: 'drawn', name: 'folds' }).favourites).toEqual([{ type: 'input', inputId: picture.id }])
  })
})

describe('what is read', () => {
  const problems = (change: Partial<Show>): readonly string[] => {
    const checked = (() => {
      try {
        readShow({ ...structuredClone(show), ...change })
        return null
      } catch (error) {
        return error
      }
    })()
    return checked === null ? [] : issueLines(checked as Parameters<typeof issueLines>[0])
  }

  it('names the field of a transition that leads nowhere', () => {
    const pair = (part: object) => ({ usual: cut, pairs: [{ fromId: one, toId: two, transition: wipe, ...part }] })
    expect(problems({ transitions: pair({}) })).toEqual([])
    expect(problems({ transitions: pair({ fromId: 'gone' }) })[0]).toBe('transitions.pairs.0.fromId: must name a scene of the show, got "gone"')
    expect(problems({ transitions: pair({ toId: 'gone' }) })[0]).toContain('transitions.pairs.0.toId')
    const double = { usual: cut, pairs: [...pair({}).pairs, ...pair({ transition: push }).pairs] }
    expect(problems({ transitions: double })[0]).toContain('transitions.pairs.1: must be the only one')
    expect(problems({ transitions: { usual: { ...byPicture, inputId: 'gone' }, pairs: [] } })[0]).toContain('transitions.usual.inputId: must name an input')
    expect(problems({ favourites: [{ type: 'input', inputId: 'gone' }] })[0]).toContain('favourites.0.inputId: must name an input')
    expect(problems({ transitions: { usual: { ...dissolve, durationMs: 90_000 }, pairs: [] } })[0]).toContain('transitions.usual.durationMs')
    expect(problems({ transitions: { usual: { ...dissolve, kind: 'melt' } as never, pairs: [] } })[0]).toContain('transitions.usual.kind')
  })
})

describe('bringInOneByOne', () => {
  const scene = show.scenes.find(({ layers }) => layers.length >= 3)!
  const usual = { kind: 'fade', durationMs: 400, delayMs: 0, easing: { kind: 'linear' }, side: 'left' } as const
  const ids = scene.layers.map(({ id }) => id)
  const delaysOf = (after: Show) => new Map(after.scenes.find(({ id }) => id === scene.id)!.layers.map(({ id, entrance }) => [id, entrance?.delayMs]))

  it('delays each a little more than the one above it, whatever the order they were chosen in', () => {
    const down = [...scene.layers].sort((a, b) => a.placement.y - b.placement.y || a.placement.x - b.placement.x).map(({ id }) => id)
    for (const order of [ids, [...ids].reverse()]) {
      const delays = delaysOf(bringInOneByOne(show, scene.id, order, 250, usual))
      expect(down.map((id) => delays.get(id))).toEqual(down.map((_, index) => index * 250))
    }
  })

  it('ends at the longest delay there is, and changes no other layer or scene', () => {
    const after = bringInOneByOne(show, scene.id, ids.slice(0, 2), 1e9, usual)
    expect(Math.max(...[...delaysOf(after).values()].map((delay) => delay ?? 0))).toBe(20_000)
    expect(after.scenes.filter(({ id }) => id !== scene.id)).toEqual(show.scenes.filter(({ id }) => id !== scene.id))
    expect(bringInOneByOne(show, 'gone', ids, 10, usual)).toBe(show)
  })
})
