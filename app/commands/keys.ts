// Keys as they are written for tinykeys ("$mod+Shift+KeyZ"): read from a press, said in words, compared.
import { i18n } from '../i18n.ts'
import { commandIds, commandList, type CommandId } from './list.ts'

/** The keys that a command has unless the presenter changes them; the first is the one that is shown. */
export const defaultKeys = Object.fromEntries(commandIds.map((id) => [id, commandList[id].keys])) as unknown as Readonly<Record<CommandId, readonly string[]>>

/** Keys of the page that no command can have: they put scenes on air, or are what browsers and controls need. */
const PAGE_KEYS = /^(Shift\+)?(Tab|Enter|Space|Escape|Arrow(Left|Right|Up|Down)|Home|End|PageUp|PageDown|Delete|Backspace|F10|ContextMenu)$/
const SCENE_KEYS = /^Digit[1-9]$/
/** Select all, copy, paste, cut, duplicate, rename. */
const EDIT_KEYS = /^(\$mod\+Key[ACVXD]|F2)$/
/** Keys that are named in the language of the keyboard. */
const KEY_NAMES: Readonly<Record<string, string>> = {
  $mod: 'control',
  Control: 'control',
  Shift: 'shift',
  Delete: 'delete',
  PageUp: 'pageUp',
  PageDown: 'pageDown',
  ArrowLeft: 'left',
  ArrowRight: 'right',
}
const MODIFIER_KEYS = new Set(['Control', 'Shift', 'Alt', 'Meta', 'AltGraph', 'CapsLock', 'Dead'])

/** What was pressed, as a binding; null while only modifiers are down. */
export function bindingOf({ key, code, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): string | null {
  if (MODIFIER_KEYS.has(key)) return null
  const mods = [ctrlKey || metaKey ? '$mod' : '', altKey ? 'Alt' : '', shiftKey ? 'Shift' : ''].filter((mod) => mod !== '')
  // A sign that needs Shift on some keyboards is known by what it is.
  const isPlain = /^(Key[A-Z]|Digit\d|F\d+|Space)$/.test(code) || key.length !== 1 || key === '+'
  return [...mods, isPlain ? code : key].join('+')
}

/** Whether a single letter, digit or sign: those can be switched off for who speaks to the machine (WCAG 2.1.4). */
export function isSingleKey(binding: string): boolean {
  return !/\$mod|Control|Alt|Meta|Arrow|Page/.test(binding) && !/^F\d+$/.test(binding) && binding.replace('Shift+', '') !== '?'
}

/** Whether a binding is one that the page needs itself. */
export function belongsToPage(binding: string): boolean {
  return PAGE_KEYS.test(binding) || SCENE_KEYS.test(binding) || EDIT_KEYS.test(binding)
}

/** Whether two bindings are the same press; `$mod` is Control, or Command on a Mac. */
export function areSameKey(one: string, other: string): boolean {
  const plain = (binding: string) => binding.replace('$mod', 'Control').replace('Shift+?', '?').toLowerCase()
  return plain(one) === plain(other)
}

/** A binding in words of the interface's language: "Ctrl Shift Z". */
export function keyWords(binding: string): string {
  return binding
    .split('+')
    .map((part) => (part in KEY_NAMES ? i18n.global.t(`commands.keyNames.${KEY_NAMES[part]!}`) : part.replace(/^(Key|Digit)/, '')))
    .join(' ')
}
