// The typefaces that ship, by the packages they come in. All under the SIL Open Font License 1.1.
import { textFamilies } from './text-content.ts'

export interface ShippedFace {
  readonly family: string
  /** Folder of its package. */
  readonly folder: string
  /** Its files are called NAME-SUBSET-ENDING.woff2; which letters a subset has says unicode.json beside them. */
  readonly name: string
  readonly ending: string
  /** CSS weight range. */
  readonly weights: string
}

/** What is not as it is with most: a variable face of 100 to 900. */
const special: Readonly<Record<string, Partial<ShippedFace>>> = {
  'Bricolage Grotesque': { weights: '200 800' },
  'Instrument Sans': { weights: '400 700' },
  'Atkinson Hyperlegible Next': { weights: '200 800' },
  Figtree: { weights: '300 900' },
  'Source Serif 4': { weights: '200 900' },
  Literata: { weights: '200 900' },
  'Spline Sans Mono': { weights: '400', ending: '400-normal', folder: '@fontsource/spline-sans-mono' },
}

const scripts = ['', ' Arabic', ' Hebrew', ' Thai', ' SC', ' JP', ' KR']

export const shippedFaces: readonly ShippedFace[] = [...textFamilies, ...scripts.map((script) => `Noto Sans${script}`)].map((family) => {
  const name = family.toLowerCase().replaceAll(' ', '-')
  return { family, name, folder: `@fontsource-variable/${name}`, ending: 'wght-normal', weights: '100 900', ...special[family] }
})

/** The file of a face that holds a subset. */
export function faceFileName({ name, ending }: ShippedFace, subset: string): string {
  return `${name}-${subset.replace(/[[\]]/g, '')}-${ending}.woff2`
}
