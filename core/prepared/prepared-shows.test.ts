import { describe, expect, it } from 'vitest'
import en from '../../app/locales/en/index.ts'
import { graphicWordsForTests } from '../../tests/support/graphic-words.ts'
import { backgroundOf } from '../backgrounds/set-background.ts'
import { inputIdOf } from '../layers/index.ts'
import { layersOf } from '../layers/tree.ts'
import { firstScenes, standinShowDevices, type FirstWords } from '../layout/arrange/first-show.ts'
import { palettes } from '../palette/palettes.ts'
import { graphicsOf, ownScenesOf } from '../show/edits.ts'
import { readShow } from '../show/migrate.ts'
import { transitionTo } from '../show/show-transitions.ts'
import { USUAL_STYLE } from '../show/style.ts'
import { occasions, preparedShow, type PreparedWords } from './prepared-shows.ts'

const first: FirstWords = {
  ...{ camera: 'Camera', wall: 'Wall', screen: 'Screen', table: 'Table', text: 'Text', divider: 'Divider', ink: 'Ink', yourName: 'Your name' },
  ...{ backSoon: 'Back in a moment', thanks: 'Thank you' },
  scenes: Object.fromEntries(firstScenes.map((name) => [name, `Scene ${name}`])) as FirstWords['scenes'],
}
const words: PreparedWords = { first, graphics: graphicWordsForTests, backgrounds: en.backgrounds.drawn }
const style = { ...USUAL_STYLE, colours: palettes.plum }

describe.each(occasions)('a show for %s', (occasion) => {
  let count = 0
  const made = preparedShow(
    occasion,
    occasion,
    words,
    { devices: standinShowDevices, style, presenter: { name: 'Iva Kovač', title: 'Beekeeper' } },
    () => `p${(count += 1)}`,
  )

  it('is a show like any other, with nothing in it that is not used', () => {
    expect(readShow(structuredClone(made))).toEqual(made)
    const used = new Set(made.scenes.flatMap(layersOf).map(inputIdOf))
    expect(made.inputs.filter(({ id }) => !used.has(id))).toEqual([])
    const ids = [...made.inputs, ...made.scenes, ...made.scenes.flatMap(layersOf)].map(({ id }) => id)
    expect(new Set(ids).size).toBe(ids.length)
  })

  it('has scenes with the presenter, graphics with keys of their own, and the presenter’s colours and name', () => {
    expect(ownScenesOf(made).length).toBeGreaterThanOrEqual(2)
    expect(ownScenesOf(made).some(({ layers }) => layers.some((layer) => inputIdOf(layer) === made.inputs.find(({ kind }) => kind === 'camera')!.id))).toBe(
      true,
    )
    const keys = graphicsOf(made).map(({ graphic }) => graphic!.key)
    expect(keys.length).toBeGreaterThanOrEqual(3)
    expect(new Set(keys).size).toBe(keys.length)
    expect([made.style.colours, made.presenter.name]).toEqual([palettes.plum, 'Iva Kovač'])
  })

  it('stands in front of drawn backgrounds, which are its favourites', () => {
    const behind = ownScenesOf(made).flatMap((scene) => backgroundOf(made, scene) ?? [])
    expect(behind.length).toBeGreaterThanOrEqual(2)
    for (const layer of behind) expect(layer.part).toBe('background')
    const names = new Set(behind.map(({ name }) => name))
    expect(new Set(made.favourites.map((favourite) => (favourite.type === 'drawn' ? en.backgrounds.drawn[favourite.name as 'hills'] : '')))).toEqual(names)
  })
})

it('the shows differ in how scenes follow each other', () => {
  let count = 0
  const kinds = occasions.map((occasion) => {
    const show = preparedShow(occasion, occasion, words, { devices: standinShowDevices, style, presenter: {} }, () => `q${(count += 1)}`)
    return transitionTo(show, show.scenes[0]!.id, show.scenes[1]!.id).kind
  })
  expect(new Set(kinds).size).toBeGreaterThanOrEqual(4)
})
