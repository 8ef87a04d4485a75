// Compiles the program with some files changed or added, without touching them, to learn what the compiler says.
import path from 'node:path'
import ts from 'typescript'

/** Files by their path from the root: new ones by their text, changed ones by what becomes of theirs. */
export type Change = Readonly<Record<string, string | ((text: string) => string)>>

const VUE_SHIM = 'tests/growth/vue-shim.d.ts'

/** Compiles some root files; `errors` are what the compiler says of a change, each "path: message". */
export class Compiled {
  readonly #options: ts.CompilerOptions
  readonly #roots: readonly string[]
  readonly #texts = new Map<string, ts.SourceFile>()
  #before: ts.Program | undefined

  constructor(roots: readonly string[]) {
    this.#roots = [...roots, VUE_SHIM].map((file) => path.resolve(file))
    const config = ts.getParsedCommandLineOfConfigFile('app/tsconfig.json', {}, { ...ts.sys, onUnRecoverableConfigFileDiagnostic: () => undefined })
    this.#options = { ...config!.options, noEmit: true, incremental: false, composite: false, noUnusedLocals: false }
  }

  /** What the compiler says of a change. */
  errors(change: Change): readonly string[] {
    return [...this.#found(change)]
  }

  /** The first thing that the compiler says of a change; null when it has nothing to say. */
  firstError(change: Change): string | null {
    for (const error of this.#found(change)) return error
    return null
  }

  *#found(change: Change): Generator<string> {
    const host = ts.createCompilerHost(this.#options)
    const changed = new Map(Object.entries(change).map(([file, what]) => [path.resolve(file), typeof what === 'string' ? what : what(ts.sys.readFile(file)!)]))
    const { fileExists, directoryExists } = host
    host.directoryExists = (folder) => [...changed.keys()].some((file) => file.startsWith(`${path.resolve(folder)}/`)) || directoryExists!(folder)
    host.fileExists = (file) => changed.has(path.resolve(file)) || fileExists(file)
    host.getSourceFile = (file, languageVersion) => {
      const text = changed.get(path.resolve(file)) ?? (path.resolve(file) === path.resolve(VUE_SHIM) ? SHIM : undefined)
      if (text !== undefined) return ts.createSourceFile(file, text, languageVersion, true)
      let known = this.#texts.get(file)
      const read = known === undefined ? ts.sys.readFile(file) : undefined
      if (known === undefined && read !== undefined) this.#texts.set(file, (known = ts.createSourceFile(file, read, languageVersion, true)))
      return known
    }
    const added = [...changed.keys()].filter((file) => !file.endsWith('.vue'))
    const program = ts.createProgram({
      rootNames: [...this.#roots, ...added],
      options: this.#options,
      host,
      ...(this.#before === undefined ? {} : { oldProgram: this.#before }),
    })
    this.#before = program
    // Files that the change is about come first: what is wrong is said there.
    const near = (file: ts.SourceFile) => (changed.has(path.resolve(file.fileName)) ? 0 : this.#roots.includes(path.resolve(file.fileName)) ? 1 : 2)
    const own = program.getSourceFiles().filter((file) => !program.isSourceFileFromExternalLibrary(file) && !program.isSourceFileDefaultLibrary(file))
    for (const file of own.toSorted((one, other) => near(one) - near(other))) {
      for (const { messageText } of [...program.getSyntacticDiagnostics(file), ...program.getSemanticDiagnostics(file)]) {
        yield `${path.relative('.', file.fileName)}: ${ts.flattenDiagnosticMessageText(messageText, ' ')}`
      }
    }
  }
}

const SHIM = `declare module '*.vue' {
  import type { Component } from 'vue'
  const component: Component
  export default component
}
`
