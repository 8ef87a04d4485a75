// Documents that are made from the code: the JSON Schemas and the table of steps. `--check` only
// compares, and ends with 1 when a document is out of date.
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { chainJsonSchema, showJsonSchema } from '../core/show/json-schema.ts'
import { steps } from '../core/steps/index.ts'
import type { ParamSpec } from '../core/steps/step.ts'

const rootDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..')

/** Text of every made document, by path. */
export function madeDocuments(): Map<string, string> {
  return new Map([
    ['docs/schema/show.schema.json', showJsonSchema()],
    ['docs/schema/chain.schema.json', chainJsonSchema()],
    ['docs/steps.md', stepsTable()],
  ])
}

function stepsTable(): string {
  const rows = steps.flatMap((step) =>
    Object.entries(step.params as Readonly<Record<string, ParamSpec>>).map(
      ([name, spec]) => `| ${step.kind} | ${name} | ${rangeOf(spec)} | ${String(spec.default) || '–'} | ${spec.type === 'number' ? spec.unit : ''} |`,
    ),
  )
  return [
    '# Steps of a treatment',
    '',
    'Made from core/steps by `npm run docs`.',
    '',
    '| step | value | range | usual | unit |',
    '| --- | --- | --- | --- | --- |',
    ...rows,
    '',
  ].join('\n')
}

function rangeOf(spec: ParamSpec): string {
  switch (spec.type) {
    case 'number':
      return `${spec.min} … ${spec.max}`
    case 'colour':
      return '#rrggbb'
    case 'choice':
      return spec.options.join(', ')
    case 'reference':
      return spec.to === 'look' ? 'a look of our own, or the SHA-256 of a table' : spec.to === 'plate' ? 'the SHA-256 of a picture' : 'the id of an input'
    case 'numbers':
      return `none or ${spec.length} numbers`
  }
}

const isCheck = process.argv.includes('--check')
const stale: string[] = []
for (const [file, text] of madeDocuments()) {
  const target = path.join(rootDir, file)
  if (existsSync(target) && readFileSync(target, 'utf8') === text) continue
  if (isCheck) stale.push(file)
  else writeFileSync(target, text)
}
if (stale.length > 0) {
  process.stderr.write(`out of date: ${stale.join(', ')}. Run npm run docs.\n`)
  process.exitCode = 1
}
