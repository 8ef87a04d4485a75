import { execFile } from 'node:child_process'
import { promisify } from 'node:util'

const call = promisify(execFile)

/** Of some families, those that this computer does not have; null where it cannot tell. */
export async function missingFamilies(families: readonly string[]): Promise<readonly string[] | null> {
  if (families.length === 0) return []
  try {
    const { stdout } = await call('fc-list', ['--format', '%{family}\n'], { timeout: 10_000, maxBuffer: 16 * 1024 * 1024 })
    const known = new Set(stdout.split(/[\n,]/).map((family) => family.trim().toLowerCase()))
    return families.filter((family) => !known.has(family.toLowerCase()))
  } catch {
    // Only systems with fontconfig have it.
    return null
  }
}
