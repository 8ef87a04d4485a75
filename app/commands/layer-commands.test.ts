import { expect, it } from 'vitest'
import { layerCommands } from './layer-commands.ts'
import type { LayerTarget } from './layer-target.ts'
import type { CommandEntry, Studio } from './list.ts'

const done: string[] = []
const note =
  (name: string) =>
  (how?: string): void =>
    void done.push(how === undefined ? name : `${name} ${how}`)

const one: LayerTarget = {
  count: 1,
  isLocked: false,
  isLayerLocked: false,
  isGroup: false,
  hasCopied: false,
  canShare: false,
  hasOwnSize: false,
  canStandIn: false,
  canBeInOtherScenes: false,
  inOtherScenes: 0,
  behindName: null,
  isTooDeepWithBehind: false,
  isTooDeep: false,
  copy: note('copy'),
  cut: note('cut'),
  paste: note('paste'),
  duplicate: note('duplicate'),
  order: note('order'),
  fillCanvas: note('fill'),
  resetSize: note('reset'),
  standInside: note('stand'),
  putInAllScenes: note('everywhere'),
  placeAlike: note('alike'),
  groupWithBehind: note('group behind'),
  group: note('group'),
  openGroup: note('open'),
  ungroup: note('ungroup'),
  remove: note('remove'),
}

const entries = Object.entries(layerCommands) as [keyof typeof layerCommands, CommandEntry][]
const studio = (layers: LayerTarget | null) => ({ layers }) as unknown as Studio
const offered = (layers: LayerTarget) => entries.filter(([, { isFor }]) => isFor!(studio(layers))).map(([id]) => id)
const reasons = (id: keyof typeof layerCommands, layers: LayerTarget | null) => (layerCommands[id] as CommandEntry).whyNot(studio(layers)).filter(Boolean)

it('each does one thing of its own with what is selected, and none without Build', () => {
  for (const [, { run }] of entries) run(studio(one))
  expect(new Set(done).size).toBe(entries.length)
  done.length = 0
  for (const [id, { run }] of entries) {
    run(studio(null))
    expect(reasons(id, null)).toEqual(['notInBuild'])
  }
  expect(done).toEqual([])
})

it('menus offer what is for one layer, for several, for a group, and pasting where nothing is selected', () => {
  expect(offered({ ...one, count: 0 })).toEqual(['pasteOwn'])
  expect(offered(one)).not.toContain('groupLayers')
  expect(offered({ ...one, behindName: 'Wall' })).toContain('groupWithBehind')
  const many = offered({ ...one, count: 2, behindName: 'Wall', hasOwnSize: true })
  expect(many).toContain('groupLayers')
  for (const id of ['fillCanvas', 'resetSize', 'groupWithBehind', 'openGroup'] as const) expect(many).not.toContain(id)
  expect(offered({ ...one, isGroup: true })).toEqual(expect.arrayContaining(['openGroup', 'ungroupLayers']))
  expect(offered({ ...one, canBeInOtherScenes: true })).not.toContain('placeAlike')
  expect(offered({ ...one, canBeInOtherScenes: true, inOtherScenes: 2 })).toContain('placeAlike')
})

it('a locked scene lets look and copy, and says why no more', () => {
  const locked = { ...one, isLocked: true, hasCopied: true, isGroup: true, canBeInOtherScenes: true }
  const free = offered(locked).filter((id) => reasons(id, locked).length === 0)
  expect(free).toEqual(['copyLayers', 'putInAllScenes', 'openGroup'])
  expect(reasons('removeLayers', locked)).toEqual(['locked'])
  expect(reasons('fillCanvas', { ...one, isLayerLocked: true })).toEqual(['locked'])
})

it('say why they cannot run by key, where no menu would offer them', () => {
  expect(reasons('pasteOwn', one)).toEqual(['nothingCopied'])
  expect(reasons('groupLayers', one)).toEqual(['nothingSelected'])
  expect(reasons('groupLayers', { ...one, count: 2, isTooDeep: true })).toEqual(['tooDeep'])
  expect(reasons('copyLayers', { ...one, count: 0 })).toEqual(['nothingSelected'])
})
