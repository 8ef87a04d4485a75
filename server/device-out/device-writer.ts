// Runs ffmpeg on one studio's frames: H.264 in, a loopback device or a YUV4MPEG2 file out.
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import path from 'node:path'
import type { DeviceOutStart } from '../../webcam/device-out.ts'
import { outFile } from './ways.ts'

/** A file ends after this long: a minute of 1280 × 720 is 2.5 GB. */
const MOST_FILE_SECONDS = 60
/** Bytes that may wait for the program; beyond that frames are dropped, since what waits is old. */
const MOST_WAITING_BYTES = 8_000_000
const ERROR_LENGTH = 400

export interface DeviceWriterEvents {
  /** The program has ended; `reason` says what was wrong, null when nothing was. */
  readonly onEnd: (reason: string | null) => void
}

/** The program's arguments: nothing is buffered on the way, since a meeting waits for it. */
export function ffmpegArguments({ target, frameRate }: DeviceOutStart, file: string): string[] {
  const input = ['-flags', 'low_delay', '-probesize', '32', '-analyzeduration', '0', '-f', 'h264', '-framerate', String(frameRate), '-i', 'pipe:0']
  const output = target.type === 'file' ? ['-t', String(MOST_FILE_SECONDS), '-f', 'yuv4mpegpipe', '-y', file] : ['-f', 'v4l2', target.path]
  return ['-hide_banner', '-loglevel', 'error', ...input, '-an', '-vsync', 'passthrough', '-pix_fmt', 'yuv420p', ...output]
}

export class DeviceWriter {
  readonly outPath: string
  readonly #child: ChildProcess
  #errors = ''
  #isEnding = false

  constructor(start: DeviceOutStart, dataDir: string, events: DeviceWriterEvents, program = 'ffmpeg') {
    const file = outFile(dataDir)
    if (start.target.type === 'file') mkdirSync(path.dirname(file), { recursive: true })
    this.outPath = start.target.type === 'file' ? file : start.target.path
    this.#child = spawn(program, ffmpegArguments(start, file), { stdio: ['pipe', 'ignore', 'pipe'] })
    this.#child.stderr!.on('data', (chunk: Buffer) => (this.#errors = (this.#errors + chunk.toString()).slice(-ERROR_LENGTH)))
    // The program may end while something is written to it; its end says why.
    this.#child.stdin!.on('error', () => undefined)
    let hasEnded = false
    const end = (reason: string | null) => {
      if (!hasEnded) events.onEnd(reason)
      hasEnded = true
    }
    this.#child.once('error', (error) => end(`${program} could not be started: ${error.message}`))
    this.#child.once('exit', (code) => end(this.#isEnding || code === 0 ? null : this.#errors.trim() || `${program} ended with ${code}`))
  }

  /** Takes the frames that follow; drops them while the program cannot keep up. */
  write(frames: Buffer): void {
    const { stdin } = this.#child
    if (stdin !== null && stdin.writable && stdin.writableLength < MOST_WAITING_BYTES) stdin.write(frames)
  }

  /** Lets the program finish what it has. Safe to call twice. */
  close(): void {
    if (this.#isEnding) return
    this.#isEnding = true
    this.#child.stdin?.end()
    const timer = setTimeout(() => this.#child.kill('SIGKILL'), 3000)
    this.#child.once('exit', () => clearTimeout(timer))
  }
}
