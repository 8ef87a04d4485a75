// What this computer has to send a feed to: the program that writes, and loopback devices that read like cameras.
import { execFile } from 'node:child_process'
import { readdir, readFile } from 'node:fs/promises'
import path from 'node:path'
import type { DeviceOutWays } from '../../webcam/device-out.ts'

/** Where Linux lists video devices that are no hardware. */
const VIRTUAL_DEVICES = '/sys/devices/virtual/video4linux'

/** Where a feed is written as a file. */
export function outFile(dataDir: string): string {
  return path.join(dataDir, 'out', 'green-room.y4m')
}

/** Looks anew each time: programs are installed and devices made while the server runs. */
export async function findWays(dataDir: string, program = 'ffmpeg', devicesDir = VIRTUAL_DEVICES): Promise<DeviceOutWays> {
  const [ffmpeg, devices] = await Promise.all([versionOf(program), loopbacks(devicesDir)])
  return { ffmpeg, devices, filePath: outFile(dataDir) }
}

function versionOf(program: string): Promise<string | null> {
  return new Promise((resolve) => {
    execFile(program, ['-version'], { timeout: 5000 }, (error, stdout) => resolve(error === null ? (stdout.split('\n')[0] ?? program) : null))
  })
}

async function loopbacks(folder: string): Promise<DeviceOutWays['devices']> {
  const names = await readdir(folder).catch(() => [])
  return Promise.all(
    names.sort().map(async (name) => ({ path: `/dev/${name}`, name: (await readFile(path.join(folder, name, 'name'), 'utf8').catch(() => name)).trim() })),
  )
}
