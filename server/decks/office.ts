// LibreOffice, where this computer has it: makes a PDF of slides, without a window, one file at a time.
import { spawn } from 'node:child_process'
import { accessSync, constants } from 'node:fs'
import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { constants as system, setPriority, tmpdir } from 'node:os'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import pLimit from 'p-limit'
import { HttpError } from '../http-error.ts'

/** Where it lies when it cannot be called by name. */
const USUAL_PLACES = ['/Applications/LibreOffice.app/Contents/MacOS/soffice', 'C:\\Program Files\\LibreOffice\\program\\soffice.exe']
/** Longer than the slowest deck that was tried, by far. */
const LONGEST_MS = 90_000

/** Macros never run, and what a file links to elsewhere is never fetched. */
const PROFILE = `<?xml version="1.0" encoding="UTF-8"?>
<oor:items xmlns:oor="http://openoffice.org/2001/registry">
${[
  ['/org.openoffice.Office.Common/Security/Scripting', 'MacroSecurityLevel', '3'],
  ['/org.openoffice.Office.Common/Security/Scripting', 'DisableMacrosExecution', 'true'],
  ['/org.openoffice.Office.Common/Security/Scripting', 'DisableActiveContent', 'true'],
  ['/org.openoffice.Office.Common/Security/Scripting', 'BlockUntrustedRefererLinks', 'true'],
  ['/org.openoffice.Office.Common/Misc', 'FirstRun', 'false'],
]
  .map(([at, name, value]) => `<item oor:path="${at}"><prop oor:name="${name}" oor:op="fuse"><value>${value}</value></prop></item>`)
  .join('\n')}
</oor:items>
`

/** The program that is LibreOffice; null where it is not installed. Nothing is started to find out. */
export function findOffice(): string | null {
  const folders = (process.env['PATH'] ?? '').split(path.delimiter).filter((folder) => folder !== '')
  const byName = folders.flatMap((folder) => ['soffice', 'libreoffice'].map((name) => path.join(folder, name)))
  return [...byName, ...USUAL_PLACES].find(isProgram) ?? null
}

function isProgram(file: string): boolean {
  try {
    accessSync(file, constants.X_OK)
    return true
  } catch {
    return false
  }
}

export interface OfficeOptions {
  /** Starts LibreOffice; null where there is none. */
  readonly command?: string | null
  readonly longestMs?: number
}

export class Office {
  readonly #given: string | null | undefined
  readonly #longestMs: number
  readonly #inTurn = pLimit(1)
  #found: string | null = null
  #profile: Promise<string> | null = null

  constructor({ command, longestMs = LONGEST_MS }: OfficeOptions = {}) {
    this.#given = command
    this.#longestMs = longestMs
  }

  /** Whether slides of other programs can be read. Looked for anew while it is not there, so that installing it is enough. */
  isThere(): boolean {
    this.#found ??= this.#given === undefined ? findOffice() : this.#given
    return this.#found !== null
  }

  /** The slides of `file`, whose name ends as its kind does, as a PDF. Throws an HttpError; an abort kills LibreOffice and throws an AbortError. */
  toPdf(file: string, name: string, signal: AbortSignal): Promise<Buffer> {
    return this.#inTurn(async () => {
      signal.throwIfAborted()
      if (!this.isThere()) throw officeMissing()
      const folder = await mkdtemp(path.join(tmpdir(), 'green-room-slides-'))
      try {
        const reason = await this.#run(this.#found!, await this.#profileUrl(), file, folder, signal)
        signal.throwIfAborted()
        const pdf = await readFile(path.join(folder, `${path.parse(file).name}.pdf`)).catch(() => null)
        if (reason === 'tooLong') {
          throw new HttpError(422, 'deck-slow', `"${name}" took longer than ${this.#longestMs / 1000} s to read. Save it as PDF and import that.`)
        }
        if (pdf === null) throw new HttpError(422, 'deck-unreadable', `LibreOffice could not read "${name}". Open it where it was made, and save it as PDF.`)
        return pdf
      } finally {
        await rm(folder, { recursive: true, force: true })
      }
    })
  }

  /** Takes its profile away. */
  async close(): Promise<void> {
    const profile = await this.#profile?.catch(() => null)
    if (profile != null) await rm(profile, { recursive: true, force: true })
  }

  async #profileUrl(): Promise<string> {
    this.#profile ??= newProfile()
    return pathToFileURL(await this.#profile).href
  }

  #run(command: string, profileUrl: string, file: string, folder: string, signal: AbortSignal): Promise<'ended' | 'tooLong'> {
    const options = ['--headless', '--norestore', '--nolockcheck', '--nodefault', '--nofirststartwizard', `-env:UserInstallation=${profileUrl}`]
    return new Promise((resolve, reject) => {
      // A group of its own: what it starts dies with it.
      const child = spawn(command, [...options, '--convert-to', 'pdf', '--outdir', folder, file], { stdio: 'ignore', detached: process.platform !== 'win32' })
      // The picture on air comes first.
      unlessEnded(() => child.pid !== undefined && setPriority(child.pid, system.priority.PRIORITY_LOW))
      let isTooLong = false
      const kill = () =>
        unlessEnded(() => {
          if (process.platform === 'win32') child.kill('SIGKILL')
          else if (child.pid !== undefined) process.kill(-child.pid, 'SIGKILL')
        })
      const timer = setTimeout(() => {
        isTooLong = true
        kill()
      }, this.#longestMs)
      signal.addEventListener('abort', kill)
      const over = () => {
        clearTimeout(timer)
        signal.removeEventListener('abort', kill)
      }
      child.once('error', (error) => {
        over()
        this.#found = null
        reject(officeMissing(error.message))
      })
      child.once('exit', () => {
        over()
        resolve(isTooLong ? 'tooLong' : 'ended')
      })
    })
  }
}

/** Does something to a process that may have ended by itself in the meantime. */
function unlessEnded(act: () => unknown): void {
  try {
    act()
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ESRCH') throw error
  }
}

async function newProfile(): Promise<string> {
  const folder = await mkdtemp(path.join(tmpdir(), 'green-room-office-'))
  await mkdir(path.join(folder, 'user'))
  await writeFile(path.join(folder, 'user', 'registrymodifications.xcu'), PROFILE)
  return folder
}

function officeMissing(why = ''): HttpError {
  const detail = why === '' ? '' : ` (${why})`
  return new HttpError(
    503,
    'office-missing',
    `LibreOffice is not installed on this computer${detail}. Save the slides as PDF, or install LibreOffice and try again.`,
  )
}
