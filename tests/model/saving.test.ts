// Saving, held against a model: tabs that edit, close, crash and take over from each other, a network that loses requests and
// answers, a browser without room, a server that restarts, in random order. Nothing that was typed may be lost, and "saved" may
// only be said when it is true.
import { describe, expect, it } from 'vitest'
import type { SaveState, SessionHostError } from './saving-world.ts'
import { World } from './saving-world.ts'

/** Every state that a tab said, with what it had typed and what the server had then. */
function expectTruth(world: World): void {
  for (const { state, typed, stored } of world.said.splice(0)) {
    if (state.kind !== 'saved') continue
    expect(typed.filter((token) => !stored.has(token))).toEqual([])
  }
}

const seeds = Array.from({ length: 300 }, (_, i) => i + 1)
const blocks = Array.from({ length: 10 }, (_, i) => seeds.slice(i * 30, i * 30 + 30))

describe('saving', () => {
  it.each(blocks.map((block) => [block[0], block.at(-1), block] as const))(
    'loses nothing and never says "saved" too early (seeds %i to %i)',
    async (_first, _last, block) => {
      for (const seed of block) {
        const world = new World(seed)
        await world.openTab()
        for (let step = 0; step < 120; step += 1) {
          await world.act()
          expectTruth(world)
        }
        await world.heal()
        expectTruth(world)
        const stored = world.storedTokens()
        const lost = world.typed.filter((token) => !stored.has(token) && !world.excusablyLost.has(token))
        // What may be lost is only what a tab said it could neither save nor keep.
        const untrue = world.statesAtLoss.filter((state) => state.kind === 'saved')
        // A patch is made of the state that its revision has.
        for (const { revision, tokens } of world.bases) expect({ seed, tokens }).toEqual({ seed, tokens: world.revisions.get(revision) })
        expect({ seed, lost, untrue, left: world.leftInStorage() }).toEqual({ seed, lost: [], untrue: [], left: [] })
      }
    },
  )

  it('explores what it claims to: every kind of state and event comes up', async () => {
    const states = new Set<SaveState['kind']>()
    const events = new Set<string>()
    for (const seed of seeds.slice(0, 40)) {
      const world = new World(seed)
      await world.openTab()
      for (let step = 0; step < 120; step += 1) await world.act()
      await world.heal()
      for (const { state } of world.said) states.add(state.kind)
      for (const event of world.events) events.add(event)
    }
    expect([...states].sort()).toEqual(['filing', 'offline', 'saved', 'saving', 'unkept'])
    expect([...events].sort()).toEqual(['caughtUp', 'crash', 'filed', 'lostAnswer', 'recovered', 'recoveredCopy', 'takeOver', 'yield'])
  })
})

describe('saving, case by case', () => {
  it('keeps unsaved work of a crashed tab until its copy is stored', async () => {
    const world = new World(1)
    const first = await world.openTab()
    world.network = 'down'
    await world.edit(first, 'a')
    await world.runTimers()
    world.crash(first)
    world.network = 'up'
    world.serverEdit('elsewhere')
    world.network = 'copiesFail'
    await world.openTab()
    await world.runTimers()
    expect(world.leftInStorage()).toHaveLength(1)
    world.network = 'up'
    await world.runTimers()
    expect(world.storedTokens()).toContain('a')
    expect(world.leftInStorage()).toEqual([])
  })

  it('leaves no show in the browser of a tab that crashed, once another is open; an open tab keeps its own', async () => {
    const world = new World(2)
    const first = await world.openTab()
    await world.edit(first, 'a')
    await world.runTimers()
    expect([world.leftInStorage(), world.anchoredTabs()]).toEqual([[], [first.id]])
    world.crash(first, 'now')
    const second = await world.openTab()
    await world.edit(second, 'b')
    await world.runTimers()
    expect(world.anchoredTabs()).toEqual([second.id])
    expect(world.main().tokens).toEqual(['a', 'b'])
  })

  it('knows its own save whose answer was lost when the line is back: no copy is made of it', async () => {
    const world = new World(3)
    const tab = await world.openTab()
    world.network = 'loseAnswers'
    await world.edit(tab, 'a')
    tab.session.saver.flush()
    await world.settle()
    expect(tab.session.saver.state.kind).toBe('offline')
    world.network = 'up'
    world.dropOrReconnect(tab)
    world.dropOrReconnect(tab)
    await world.settle()
    expect(tab.session.saver.state.kind).toBe('saved')
    await world.runTimers()
    expect(world.showCount()).toBe(1)
    expect(world.main().tokens).toEqual(['a'])
    expect(world.leftInStorage()).toEqual([])
  })

  it('leaves unsaved work of an open tab to that tab', async () => {
    const world = new World(2)
    const first = await world.openTab()
    world.network = 'down'
    await world.edit(first, 'a')
    world.network = 'up'
    const second = await world.openTab()
    expect(second.session.role).toBe('watching')
    expect(world.leftInStorage()).toHaveLength(1)
    await world.runTimers()
    expect(world.storedTokens()).toContain('a')
  })

  it('takes up the work of a tab whose end is noticed after another became the editor', async () => {
    const world = new World(2)
    const first = await world.openTab()
    const second = await world.openTab()
    world.network = 'down'
    await world.edit(first, 'a')
    world.network = 'up'
    world.crash(first, 'never')
    await world.settle()
    expect(second.session.role).toBe('editing')
    expect(world.storedTokens()).not.toContain('a')
    world.noticeEnd(first)
    await world.settle()
    await world.edit(second, 'b')
    await world.runTimers()
    expect(world.main().tokens).toEqual(['a', 'b'])
    expect(world.showCount()).toBe(1)
    expect(world.leftInStorage()).toEqual([])
  })

  it('files as a copy what is found late, when the show has gone on', async () => {
    const world = new World(2)
    const first = await world.openTab()
    const second = await world.openTab()
    world.network = 'down'
    await world.edit(first, 'a')
    world.network = 'up'
    world.crash(first, 'never')
    await world.settle()
    await world.edit(second, 'b')
    await world.runTimers()
    world.noticeEnd(first)
    await world.settle()
    await world.runTimers()
    expect(world.main().tokens).toEqual(['b'])
    expect(world.storedTokens()).toContain('a')
    expect(world.leftInStorage()).toEqual([])
  })

  it('says that an edit is not kept when the browser has no room, and saves it all the same', async () => {
    const world = new World(3)
    const tab = await world.openTab()
    world.isStorageFull = true
    world.network = 'down'
    await world.edit(tab, 'a')
    await world.runTimers()
    expect(tab.session.saver.state).toEqual({ kind: 'unkept' } satisfies SaveState)
    world.network = 'up'
    await world.runTimers()
    expect(tab.session.saver.state).toEqual({ kind: 'saved' })
    expect(world.storedTokens()).toContain('a')
  })

  it('takes a save whose answer was lost for what it is, and goes on', async () => {
    const world = new World(4)
    const tab = await world.openTab()
    world.network = 'loseAnswers'
    await world.edit(tab, 'a')
    await world.runTimers()
    expect(world.storedTokens()).toContain('a')
    world.network = 'up'
    await world.edit(tab, 'b')
    await world.runTimers()
    expect(tab.session.saver.state).toEqual({ kind: 'saved' })
    expect(world.main().tokens).toEqual(['a', 'b'])
    expect(world.events).not.toContain('filed')
  })

  it('gives a tab that takes over the newest state, with what was typed meanwhile on top', async () => {
    const world = new World(5)
    const first = await world.openTab()
    const second = await world.openTab()
    await world.edit(first, 'a')
    second.session.claim()
    second.session.whenEditing(() => world.type(second, 'b'))
    world.ask(second, true)
    await world.runTimers()
    await world.edit(second, 'c')
    await world.runTimers()
    expect(world.main().tokens).toEqual(['a', 'b', 'c'])
    expect([first.session.role, second.session.role]).toEqual(['watching', 'editing'])
  })

  it('does not send again what the server will not have, and says why', async () => {
    const world = new World(6)
    const tab = await world.openTab()
    world.refusal = { refused: 'too large' } satisfies SessionHostError
    await world.edit(tab, 'a')
    await world.runTimers()
    expect(tab.session.saver.state).toEqual({ kind: 'refused', why: 'too large' })
    const puts = world.puts
    await world.runTimers()
    expect(world.puts).toBe(puts)
    world.refusal = null
    await world.edit(tab, 'b')
    await world.runTimers()
    expect(world.main().tokens).toEqual(['a', 'b'])
  })
})
