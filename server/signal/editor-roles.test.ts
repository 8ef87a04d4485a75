import { describe, expect, it } from 'vitest'
import { seededRandom } from '../../core/random/seeded.ts'
import { EditorRoles } from './editor-roles.ts'

const PLAIN = { takeOver: false, isAgain: false }
const TAKE_OVER = { takeOver: true, isAgain: false }
const AGAIN = { takeOver: false, isAgain: true }

function setUp() {
  const told: string[] = []
  const timers = new Set<() => void>()
  const roles = new EditorRoles<string>({
    tell: (tab, _showId, isEditor) => told.push(`${tab} ${isEditor ? 'edits' : 'watches'}`),
    setTimer: (run) => (timers.add(run), run),
    clearTimer: (timer) => timers.delete(timer as () => void),
  })
  const heard = () => told.splice(0)
  const expire = () => [...timers].forEach((run) => (timers.delete(run), run()))
  return { roles, heard, expire }
}

describe('EditorRoles', () => {
  it('lets a tab take over only when the other has saved and yielded', () => {
    const { roles, heard } = setUp()
    roles.ask('a', 's', PLAIN)
    roles.ask('b', 's', PLAIN)
    expect(heard()).toEqual(['a edits', 'b watches'])
    roles.ask('b', 's', TAKE_OVER)
    expect(heard()).toEqual(['a watches'])
    roles.yield('a', 's')
    expect(heard()).toEqual(['b edits'])
  })

  it('does not wait for ever for a tab that hangs', () => {
    const { roles, heard, expire } = setUp()
    roles.ask('a', 's', PLAIN)
    roles.ask('b', 's', TAKE_OVER)
    heard()
    expire()
    expect(heard()).toEqual(['b edits'])
    roles.yield('a', 's')
    expect(heard()).toEqual([])
  })

  it('gives the show back when the tab that was to take over goes', () => {
    const { roles, heard, expire } = setUp()
    roles.ask('a', 's', PLAIN)
    roles.ask('b', 's', TAKE_OVER)
    roles.leave('b')
    expire()
    expect(heard()).toEqual(['a edits', 'a watches', 'a edits'])
  })

  it('hands over at once when the tab that was to yield goes', () => {
    const { roles, heard } = setUp()
    roles.ask('a', 's', PLAIN)
    roles.ask('b', 's', TAKE_OVER)
    roles.ask('c', 's', PLAIN)
    heard()
    roles.leave('a')
    expect(heard()).toEqual(['b edits'])
  })

  it('after a restart prefers the tab that edited to the one that merely came first', () => {
    const { roles, heard } = setUp()
    roles.ask('watcher', 's', PLAIN)
    roles.ask('editor', 's', AGAIN)
    roles.yield('watcher', 's')
    expect(heard()).toEqual(['watcher edits', 'watcher watches', 'editor edits'])
    roles.ask('late', 's', AGAIN)
    expect(heard()).toEqual(['late watches'])
  })

  it('never has two editors of one show, whatever happens (seed 3)', () => {
    const random = seededRandom(3)
    const tabs = ['a', 'b', 'c']
    const edits = new Map<string, boolean>()
    const timers = new Set<() => void>()
    const roles = new EditorRoles<string>({
      tell: (tab, _showId, isEditor) => edits.set(tab, isEditor),
      setTimer: (run) => (timers.add(run), run),
      clearTimer: (timer) => timers.delete(timer as () => void),
    })
    for (let step = 0; step < 5000; step += 1) {
      const tab = tabs[Math.floor(random() * 3)]!
      const dice = random()
      if (dice < 0.5) roles.ask(tab, 's', { takeOver: random() < 0.4, isAgain: random() < 0.3 })
      else if (dice < 0.7) roles.yield(tab, 's')
      else if (dice < 0.85) [...timers].forEach((run) => (timers.delete(run), run()))
      else {
        roles.leave(tab)
        edits.delete(tab)
      }
      const editors = tabs.filter((each) => edits.get(each) === true)
      expect(editors.length).toBeLessThanOrEqual(1)
      // Somebody edits, unless nobody is there or a hand-over is under way.
      if (editors.length === 0 && edits.size > 0) expect(timers.size).toBe(1)
    }
  })
})
