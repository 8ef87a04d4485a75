// The shipped typefaces, file by file, with the letters each one holds.
import arabic from '@fontsource-variable/noto-sans-arabic/unicode.json'
import bricolage from '@fontsource-variable/bricolage-grotesque/unicode.json'
import hebrew from '@fontsource-variable/noto-sans-hebrew/unicode.json'
import instrument from '@fontsource-variable/instrument-sans/unicode.json'
import japanese from '@fontsource-variable/noto-sans-jp/unicode.json'
import korean from '@fontsource-variable/noto-sans-kr/unicode.json'
import noto from '@fontsource-variable/noto-sans/unicode.json'
import chinese from '@fontsource-variable/noto-sans-sc/unicode.json'
import spline from '@fontsource/spline-sans-mono/unicode.json'
import thai from '@fontsource-variable/noto-sans-thai/unicode.json'
import type { FaceFile } from '../../core/text/typefaces.ts'

const urls = import.meta.glob<string>(
  [
    '../../node_modules/@fontsource-variable/{bricolage-grotesque,instrument-sans,noto-sans,noto-sans-arabic,noto-sans-hebrew,noto-sans-thai,noto-sans-jp,noto-sans-kr,noto-sans-sc}/files/*-wght-normal.woff2',
    '../../node_modules/@fontsource/spline-sans-mono/files/*-400-normal.woff2',
  ],
  { query: '?url', import: 'default', eager: true },
)

function filesOf(family: string, name: string, weights: string, ranges: Readonly<Record<string, string>>, ending = 'wght-normal'): FaceFile[] {
  return Object.entries(ranges).flatMap(([subset, range]) => {
    const file = `/${name}-${subset.replace(/[[\]]/g, '')}-${ending}.woff2`
    const url = Object.entries(urls).find(([path]) => path.endsWith(file))?.[1]
    return url === undefined ? [] : [{ family, url: new URL(url, location.href).href, weights, range }]
  })
}

export const fontFiles: readonly FaceFile[] = [
  ...filesOf('Bricolage Grotesque', 'bricolage-grotesque', '200 800', bricolage),
  ...filesOf('Instrument Sans', 'instrument-sans', '400 700', instrument),
  ...filesOf('Spline Sans Mono', 'spline-sans-mono', '400', spline, '400-normal'),
  ...filesOf('Noto Sans', 'noto-sans', '100 900', noto),
  ...filesOf('Noto Sans Arabic', 'noto-sans-arabic', '100 900', arabic),
  ...filesOf('Noto Sans Hebrew', 'noto-sans-hebrew', '100 900', hebrew),
  ...filesOf('Noto Sans Thai', 'noto-sans-thai', '100 900', thai),
  ...filesOf('Noto Sans SC', 'noto-sans-sc', '100 900', chinese),
  ...filesOf('Noto Sans JP', 'noto-sans-jp', '100 900', japanese),
  ...filesOf('Noto Sans KR', 'noto-sans-kr', '100 900', korean),
]
