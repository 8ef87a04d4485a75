import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { found, type Findable } from './find.ts'
import { areSameKey, belongsToPage, bindingOf, defaultKeys, isSingleKey, keyWords } from './keys.ts'
import { type CommandId } from './list.ts'
import { useKeysStore } from './keys.store.ts'

const press = (key: string, code: string, mods: Partial<KeyboardEventInit> = {}) => new KeyboardEvent('keydown', { key, code, ...mods })

describe('a key', () => {
  it('is read from a press: letters and digits by their place, signs by what they are', () => {
    expect(bindingOf(press('z', 'KeyZ', { ctrlKey: true }))).toBe('$mod+KeyZ')
    expect(bindingOf(press('Z', 'KeyZ', { metaKey: true, shiftKey: true }))).toBe('$mod+Shift+KeyZ')
    expect(bindingOf(press('?', 'Slash', { shiftKey: true }))).toBe('Shift+?')
    expect(bindingOf(press(' ', 'Space'))).toBe('Space')
    expect(bindingOf(press('+', 'BracketRight', { ctrlKey: true }))).toBe('$mod+BracketRight')
    expect(bindingOf(press('F4', 'F4', { altKey: true }))).toBe('Alt+F4')
    expect(bindingOf(press('Shift', 'ShiftLeft', { shiftKey: true }))).toBeNull()
  })

  it('is said in words', () => {
    expect(keyWords('$mod+Shift+KeyZ')).toBe('Ctrl Shift Z')
    expect(keyWords('Digit0')).toBe('0')
  })

  it('is single where no modifier is held: a letter may be spoken by accident, Control and a letter not', () => {
    expect(['KeyM', 'Digit0', 'Shift+KeyX'].every(isSingleKey)).toBe(true)
    expect(['$mod+KeyK', 'Alt+KeyN', 'F4', '?', 'Shift+?'].some(isSingleKey)).toBe(false)
  })

  it('belongs to the page where browsers and controls need it, or scenes are put on air by it', () => {
    expect(['Tab', 'Shift+Tab', 'Enter', 'Space', 'ArrowLeft', 'Escape', 'Digit1', 'Digit9', '$mod+KeyC', '$mod+KeyA', 'F2'].every(belongsToPage)).toBe(true)
    expect(['Digit0', 'KeyA', '$mod+Enter', '$mod+Shift+KeyC', 'F4'].some(belongsToPage)).toBe(false)
  })

  it('is one for one command by default, and none belongs to the page but those that turn pages', () => {
    const all = Object.entries(defaultKeys).flatMap(([id, keys]) => keys.map((key) => ({ id, key })))
    const doubled = all.filter(({ id, key }) => all.some((other) => other.id !== id && areSameKey(other.key, key)))
    expect(doubled).toEqual([])
    expect(all.filter(({ id, key }) => belongsToPage(key) && id !== 'nextPage' && id !== 'previousPage')).toEqual([])
  })
})

describe('keys that are changed', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  it('take the place of the defaults, and are kept', () => {
    const keys = useKeysStore()
    expect(keys.give('mute', '$mod+KeyJ')).toBeNull()
    expect(keys.keysOf('mute')).toEqual(['$mod+KeyJ'])
    expect(keys.isChanged).toBe(true)
    keys.reset()
    expect(keys.keysOf('mute')).toEqual(defaultKeys.mute)
    expect(keys.isChanged).toBe(false)
  })

  it('are refused where another command has them, also by its second key, and changed nothing then', () => {
    const keys = useKeysStore()
    expect(keys.give('mute', '$mod+KeyZ')).toEqual({ type: 'taken', by: 'undo' })
    expect(keys.give('mute', '$mod+KeyY')).toEqual({ type: 'taken', by: 'redo' })
    expect(keys.give('mute', 'Digit3')).toEqual({ type: 'page' })
    expect(keys.keysOf('mute')).toEqual(defaultKeys.mute)
  })

  it.each(['null', '{"undo":5}', '{"undo":[7]}', '[]', 'spoiled'])('are the defaults where what is stored is %s', (stored) => {
    localStorage.setItem('green-room:keys', stored)
    setActivePinia(createPinia())
    const keys = useKeysStore()
    expect(keys.keysOf('undo')).toEqual(defaultKeys.undo)
    expect(keys.give('undo', '$mod+KeyU')).toBeNull()
    expect(keys.keysOf('undo')).toEqual(['$mod+KeyU'])
  })

  it('are free again once their command has another one; a command may get the key that it has', () => {
    const keys = useKeysStore()
    expect(keys.give('mute', 'KeyM')).toBeNull()
    expect(keys.give('mute', 'KeyN')).toBeNull()
    expect(keys.give('card', 'KeyM')).toBeNull()
    expect(keys.give('mute', 'KeyM')).toEqual({ type: 'taken', by: 'card' satisfies CommandId })
  })
})

describe('finding by typing', () => {
  const thing = (title: string, group = 'Everywhere', whyNot: string | null = null): Findable => ({ id: title, title, group, whyNot })
  const all = [
    thing('Undo', 'Everywhere', 'nothing to undo'),
    thing('Start feed', 'On air'),
    thing('Key points', 'Scene'),
    thing('Show keyboard shortcuts'),
    thing('Ünder the hood', 'Scene'),
  ]
  const titles = (typed: string) => found(all, typed).map(({ title }) => title)

  it('lists everything without words, what cannot run last', () => {
    expect(titles('')).toEqual(['Start feed', 'Key points', 'Show keyboard shortcuts', 'Ünder the hood', 'Undo'])
  })

  it('puts what begins with the word first, whatever its case and accents', () => {
    expect(titles('KEY')).toEqual(['Key points', 'Show keyboard shortcuts'])
    expect(titles('under')).toEqual(['Ünder the hood'])
  })

  it('takes several words in any order, those of the group too', () => {
    expect(titles('feed start')).toEqual(['Start feed'])
    expect(titles('scene poi')).toEqual(['Key points'])
    expect(titles('zebra')).toEqual([])
  })
})
