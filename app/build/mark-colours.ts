import type { SceneMark } from '../../core/show/show.ts'

/** Colours of scene marks, told apart on paper and in the dark, by their brightness too. */
export const markColours: Readonly<Record<SceneMark, string>> = { brass: '#d9a441', leaf: '#4f9b6e', slate: '#5b7690', clay: '#b9694a', plum: '#8d5a88' }
