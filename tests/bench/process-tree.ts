import { readdirSync, readFileSync } from 'node:fs'

/** Linux counts processor time in hundredths of a second. */
const TICKS_A_SECOND = 100

interface ProcessRow {
  readonly parent: number
  readonly ticks: number
}

/** All processes by their id: who started them, and their processor time in ticks. Linux only. */
function readProcesses(): Map<number, ProcessRow> {
  const rows = new Map<number, ProcessRow>()
  for (const name of readdirSync('/proc')) {
    if (!/^\d+$/.test(name)) continue
    try {
      // After the name in brackets: state, parent … user and system time.
      const fields = readFileSync(`/proc/${name}/stat`, 'utf8')
        .replace(/^.*\) /, '')
        .split(' ')
      rows.set(Number(name), { parent: Number(fields[1]), ticks: Number(fields[11]) + Number(fields[12]) })
    } catch {
      // It ended while the list was read.
    }
  }
  return rows
}

/** A process and all that it started, now. */
export function processesOf(rootPid: number): readonly number[] {
  return [...treeOf(readProcesses(), rootPid).keys()]
}

/** Processor seconds that a process and all it started have taken. */
export function cpuSecondsOf(rootPid: number): number {
  return [...treeOf(readProcesses(), rootPid).values()].reduce((sum, { ticks }) => sum + ticks, 0) / TICKS_A_SECOND
}

function treeOf(rows: ReadonlyMap<number, ProcessRow>, rootPid: number): Map<number, ProcessRow> {
  const isOurs = (pid: number): boolean => pid === rootPid || (pid > 1 && rows.has(pid) && isOurs(rows.get(pid)!.parent))
  return new Map([...rows].filter(([pid]) => isOurs(pid)))
}
