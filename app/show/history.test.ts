import { describe, expect, it } from 'vitest'
import { renameShow } from '../../core/show/edits.ts'
import { testShow } from '../../tests/support/shows.ts'
import { History } from './history.ts'

const show = testShow()
const named = (name: string) => renameShow(show, name)

describe('History', () => {
  it('goes back and forth through edits, and names them', () => {
    const history = new History(() => 0)
    history.note(named('A'), 'first', null)
    history.note(named('B'), 'second', null)
    expect(history.undoLabel).toBe('second')
    expect(history.undo(named('C'))?.name).toBe('B')
    expect(history.redoLabel).toBe('second')
    expect(history.undo(named('B'))?.name).toBe('A')
    expect(history.undo(named('A'))).toBeNull()
    expect(history.redo(named('A'))?.name).toBe('B')
    expect(history.redo(named('B'))?.name).toBe('C')
    expect(history.redo(named('C'))).toBeNull()
  })

  it('joins one drag into one step, but not two drags', () => {
    let now = 0
    const history = new History(() => now)
    history.note(named('start'), 'placement', 'drag-1')
    for (let i = 0; i < 20; i += 1) {
      now += 30
      history.note(named(`mid ${i}`), 'placement', 'drag-1')
    }
    history.note(named('end'), 'placement', 'drag-2')
    expect(history.undo(named('now'))?.name).toBe('end')
    expect(history.undo(named('end'))?.name).toBe('start')
  })

  it('starts a new step after a pause', () => {
    let now = 0
    const history = new History(() => now)
    history.note(named('a'), 'tone', 'slider')
    now = 5000
    history.note(named('b'), 'tone', 'slider')
    expect(history.undo(named('c'))?.name).toBe('b')
  })

  it('forgets what was undone once something new is done', () => {
    const history = new History(() => 0)
    history.note(named('A'), 'one', null)
    history.undo(named('B'))
    history.note(named('A'), 'other', null)
    expect(history.redo(named('X'))).toBeNull()
  })
})
