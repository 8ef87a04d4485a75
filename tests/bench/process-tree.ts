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

/** Who used the processor: the studio's page, its workers, the browser's other processes, and pages that are not the studio. */
export type ThreadRole = 'page' | 'workers' | 'gpu' | 'devices' | 'rest' | 'otherPages'

/** Processor seconds of a process and all that it started, by what the threads are there for. Renderers in `studio` are the studio's. */
export function cpuSecondsByRole(rootPid: number, studio: readonly number[]): Readonly<Record<ThreadRole, number>> {
  const seconds: Record<ThreadRole, number> = { page: 0, workers: 0, gpu: 0, devices: 0, rest: 0, otherPages: 0 }
  for (const pid of processesOf(rootPid)) {
    try {
      const started = readFileSync(`/proc/${pid}/cmdline`, 'utf8')
      for (const thread of readdirSync(`/proc/${pid}/task`)) {
        const stat = readFileSync(`/proc/${pid}/task/${thread}/stat`, 'utf8')
        const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
        const name = /\((.*)\)/.exec(stat)?.[1] ?? ''
        const role = started.includes('--type=renderer') && !studio.includes(pid) ? 'otherPages' : roleOf(started, name, thread === String(pid))
        seconds[role] += (Number(fields[11]) + Number(fields[12])) / TICKS_A_SECOND
      }
    } catch {
      // It ended while the list was read.
    }
  }
  return seconds
}

/** Linux cuts the names of threads at 15 letters. */
function roleOf(started: string, thread: string, isFirst: boolean): ThreadRole {
  if (started.includes('--type=gpu-process')) return 'gpu'
  if (started.includes('VideoCaptureService')) return 'devices'
  if (!started.includes('--type=renderer')) return 'rest'
  if (isFirst) return 'page'
  return thread.startsWith('DedicatedWorker') ? 'workers' : 'rest'
}

function treeOf(rows: ReadonlyMap<number, ProcessRow>, rootPid: number): Map<number, ProcessRow> {
  const isOurs = (pid: number): boolean => pid === rootPid || (pid > 1 && rows.has(pid) && isOurs(rows.get(pid)!.parent))
  return new Map([...rows].filter(([pid]) => isOurs(pid)))
}
