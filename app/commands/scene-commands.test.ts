import { expect, it } from 'vitest'
import { sceneCommands } from './scene-commands.ts'
import type { SceneTarget } from './scene-target.ts'
import { commandList, type CommandEntry, type Studio } from './list.ts'

const done: string[] = []
const note = (name: string) => (how?: number) => void done.push(how === undefined ? name : `${name} ${how}`)

const middle: SceneTarget = {
  sceneId: 'middle',
  isLocked: false,
  isOnAir: false,
  isOnly: false,
  isTop: false,
  isBottom: false,
  isStart: false,
  isFeedOn: false,
  makeStart: note('start'),
  duplicate: note('duplicate'),
  rename: note('rename'),
  toggleLock: note('lock'),
  showDetails: note('details'),
  move: note('move'),
  remove: note('remove'),
}

const entries = Object.entries(sceneCommands) as [keyof typeof sceneCommands, CommandEntry][]
const studio = (scene: SceneTarget | null) => ({ scene }) as unknown as Studio
const reasons = (id: keyof typeof sceneCommands, scene: SceneTarget | null) => (sceneCommands[id] as CommandEntry).whyNot(studio(scene)).filter(Boolean)

it('each does one thing of its own with the scene, and none without Build', () => {
  for (const [, { run }] of entries) run(studio(middle))
  expect(new Set(done).size).toBe(entries.length)
  const before = done.length
  for (const [id, { run, isFor }] of entries) {
    expect(isFor!(studio(null))).toBe(false)
    expect(reasons(id, null)).toEqual(['notInBuild'])
    run(studio(null))
  }
  expect(done).toHaveLength(before)
})

it('cannot be moved beyond the ends of the list', () => {
  expect(reasons('sceneUp', { ...middle, isTop: true })).toEqual(['isTop'])
  expect(reasons('sceneDown', { ...middle, isTop: true })).toEqual([])
  expect(reasons('sceneDown', { ...middle, isBottom: true })).toEqual(['isBottom'])
})

it('is not deleted when it is the only one, or on air', () => {
  expect(reasons('removeScene', middle)).toEqual([])
  expect(reasons('removeScene', { ...middle, isOnly: true })).toEqual(['onlyScene'])
  expect(reasons('removeScene', { ...middle, isOnAir: true })).toEqual(['onAirStays'])
})

it('is chosen as the start only before the feed runs', () => {
  const offers = (scene: SceneTarget) => (sceneCommands.startWithScene as CommandEntry).isFor!(studio(scene))
  expect([offers(middle), offers({ ...middle, isFeedOn: true })]).toEqual([true, false])
  expect(reasons('startWithScene', { ...middle, isStart: true })).toEqual(['startsAlready'])
})

it('is put on air by the menu of its own, whichever scene is on the stage', () => {
  const taken: string[] = []
  const air = { isFeedOn: true, onAirId: 'other', takeOnAir: (id: string) => taken.push(id) }
  const from = (scene: SceneTarget | null) => ({ scene, air, show: { sceneId: 'on the stage', isEditor: true } }) as unknown as Studio
  commandList.takeScene.run(from(middle))
  commandList.takeScene.run(from(null))
  expect(taken).toEqual(['middle', 'on the stage'])
  expect(commandList.takeScene.whyNot(from({ ...middle, sceneId: 'other' })).filter(Boolean)).toEqual(['onAirAlready'])
})
