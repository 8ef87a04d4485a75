// Reading the command line: --name value pairs, each known and each complained about by name.
import { parseArgs } from 'node:util'

/** Bad input: printed on stderr, exit code 2. */
export class InputError extends Error {}

export interface OptionSpec {
  readonly isRequired: boolean
  /** What a value looks like, for messages. */
  readonly hint: string
}

/** Reads `--name value` pairs. Throws an InputError that names the option and the fix. */
export function readOptions<Name extends string>(argv: readonly string[], specs: Readonly<Record<Name, OptionSpec>>): Partial<Record<Name, string>> {
  const names = Object.keys(specs) as Name[]
  const options = Object.fromEntries(names.map((name) => [name, { type: 'string' } as const]))
  // Not strict: our own messages name the option, the rule and the fix.
  const { tokens } = parseArgs({ args: [...argv], options, strict: false, allowPositionals: true, tokens: true })
  const found: Partial<Record<Name, string>> = {}
  for (const token of tokens) {
    if (token.kind === 'option-terminator') continue
    const given = token.kind === 'option' ? token.rawName : token.value
    const name = names.find((candidate) => given === `--${candidate}`)
    if (token.kind !== 'option' || name === undefined) throw new InputError(`"${given}" is not known here. Use ${names.map((each) => `--${each}`).join(', ')}.`)
    if (token.value === undefined || token.value.startsWith('--')) throw new InputError(`--${name} needs a value: ${specs[name].hint}.`)
    found[name] = token.value
  }
  for (const name of names) {
    if (specs[name].isRequired && found[name] === undefined) throw new InputError(`--${name} is missing: ${specs[name].hint}.`)
  }
  return found
}

/** "reference" or "cpu". */
export function readExecutor(value: string | undefined): 'reference' | 'cpu' {
  if (value === undefined || value === 'reference') return 'reference'
  if (value === 'cpu') return 'cpu'
  throw new InputError(`--executor must be reference or cpu, got "${value}".`)
}

/** Runs a command: its errors go to stderr; bad input ends with 2, anything unexpected with 1. */
export async function runCommand(command: (argv: readonly string[]) => Promise<void>): Promise<void> {
  try {
    await command(process.argv.slice(2))
  } catch (error) {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
    process.exitCode = error instanceof InputError ? 2 : 1
  }
}
