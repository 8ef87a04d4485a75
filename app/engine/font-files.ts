// The shipped typefaces, file by file, with the letters each one holds.
import { faceFileName, shippedFaces } from '../../core/text/shipped-faces.ts'
import type { FaceFile } from '../../core/text/typefaces.ts'

const urls = import.meta.glob<string>(
  ['../../node_modules/@fontsource-variable/*/files/*-wght-normal.woff2', '../../node_modules/@fontsource/spline-sans-mono/files/*-400-normal.woff2'],
  { query: '?url', import: 'default', eager: true },
)
const ranges = import.meta.glob<Readonly<Record<string, string>>>(
  ['../../node_modules/@fontsource-variable/*/unicode.json', '../../node_modules/@fontsource/spline-sans-mono/unicode.json'],
  { import: 'default', eager: true },
)

export const fontFiles: readonly FaceFile[] = shippedFaces.flatMap((face) => {
  const root = `../../node_modules/${face.folder}`
  return Object.entries(ranges[`${root}/unicode.json`] ?? {}).flatMap(([subset, range]) => {
    const url = urls[`${root}/files/${faceFileName(face, subset)}`]
    return url === undefined ? [] : [{ family: face.family, url: new URL(url, location.href).href, weights: face.weights, range }]
  })
})
