// What one frame of the reference scene costs, and what a general tool needs for the same picture.
import { spawnSync } from 'node:child_process'
import { closeSync, mkdtempSync, openSync, rmSync, writeSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import type { I420Picture, RgbaPicture } from '../../core/picture/picture.ts'
import { CpuExecutor } from '../../engine/cpu/cpu-executor.ts'
import { Treatments } from '../../engine/cpu/treatments.ts'
import type { SourceFrame } from '../../engine/executor.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { cameraFrames, CROP_PERCENT, referenceScene, type ReferenceScene } from './reference-scene.ts'
import { quantile } from './statistics.ts'

const FRAMES = 300
const WARM_UP = 30
/** ffmpeg gets fewer: its cost per frame does not change. */
const TOOL_FRAMES = 90
const TOOL_RUNS = 3

interface PerThreads {
  readonly one: number
  readonly two: number
}

export interface FrameFigures {
  readonly frames: number
  readonly medianMs: number
  readonly p95Ms: number
  readonly ffmpegMs: PerThreads
  readonly speedup: PerThreads
}

/** Measures both sizes. */
export async function benchFrame(say: (text: string) => void): Promise<Record<string, FrameFigures>> {
  const result: Record<string, FrameFigures> = {}
  for (const [widthPx, heightPx] of [
    [1280, 720],
    [1920, 1080],
  ] as const) {
    say(`frame: ${widthPx}x${heightPx}, ${FRAMES} frames`)
    const scene = await referenceScene(widthPx)
    const frames = await cameraFrames(widthPx, heightPx, FRAMES)
    const times = await timeExecutor(scene, frames)
    say(`frame: ${widthPx}x${heightPx}, ffmpeg`)
    const ffmpegMs = await timeFfmpeg(scene, frames.slice(0, TOOL_FRAMES))
    const medianMs = quantile(times, 0.5)
    result[`${widthPx}x${heightPx}`] = {
      frames: times.length,
      medianMs,
      p95Ms: quantile(times, 0.95),
      ffmpegMs,
      speedup: { one: ffmpegMs.one / medianMs, two: ffmpegMs.two / medianMs },
    }
  }
  return result
}

async function timeExecutor(scene: ReferenceScene, frames: readonly I420Picture[]): Promise<number[]> {
  const executor = new CpuExecutor(new Treatments(await nodeHeap()))
  const sources = new Map<string, SourceFrame>([...scene.stills].map(([id, picture]) => [id, { picture, version: 1, isLive: false }]))
  const render = (index: number, version: number) => {
    sources.set(scene.cameraId, { picture: frames[index]!, version, isLive: true })
    const started = performance.now()
    executor.render(scene.plan, sources)
    return performance.now() - started
  }
  for (let i = 0; i < WARM_UP; i += 1) render(i, i)
  return frames.map((_, index) => render(index, WARM_UP + index))
}

/**
 * Milliseconds a frame of a graph that makes the same picture: crop, eq, chromakey, despill and three
 * overlays; less what only reading the frames costs. The rounded corners are left out, in its favour.
 */
async function timeFfmpeg(scene: ReferenceScene, frames: readonly I420Picture[]): Promise<PerThreads> {
  const folder = mkdtempSync(path.join(tmpdir(), 'green-room-bench-'))
  try {
    const camera = path.join(folder, 'camera.y4m')
    writeY4m(camera, frames)
    await Promise.all([
      writePicture(path.join(folder, 'wall.png'), scene.wall),
      writePicture(path.join(folder, 'title.png'), scene.title.picture),
      writePicture(path.join(folder, 'mark.png'), scene.mark.picture, scene.mark.sizePx),
    ])
    const inputs = ['camera.y4m', 'wall.png', 'title.png', 'mark.png'].flatMap((name) => ['-i', path.join(folder, name)])
    const { widthPx, heightPx } = frames[0]!
    const left = Math.round((CROP_PERCENT.left / 100) * widthPx)
    const width = widthPx - left - Math.round((CROP_PERCENT.right / 100) * widthPx)
    const still = (input: number, format: string) => `[${input}:v]format=${format},loop=-1:1:0,setpts=N/30/TB[still${input}]`
    const graph = [
      still(1, 'yuv420p'),
      still(2, 'yuva420p'),
      still(3, 'yuva420p'),
      `[0:v]crop=${width}:${heightPx}:${left}:0,eq=contrast=1.04:gamma=1.05:saturation=1.05,chromakey=0x2BB552:0.12:0.10,despill=type=green,format=yuva420p[camera]`,
      `[still1][camera]overlay=${left}:0:shortest=1[a]`,
      `[a][still2]overlay=${scene.title.x}:${scene.title.y}[b]`,
      `[b][still3]overlay=${scene.mark.x}:${scene.mark.y}[out]`,
    ].join(';')
    const perFrame = (threads: number) => {
      const run = (filter: string, maps: string[]) =>
        runFfmpeg(threads, [...inputs, '-filter_complex', filter, ...maps, '-frames:v', String(frames.length), '-f', 'null', '-'])
      const graphMs = Math.min(...Array.from({ length: TOOL_RUNS }, () => run(graph, ['-map', '[out]'])))
      const nullMs = Math.min(...Array.from({ length: TOOL_RUNS }, () => run('[0:v]null[out]', ['-map', '[out]'])))
      return (graphMs - nullMs) / frames.length
    }
    return { one: perFrame(1), two: perFrame(2) }
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

function runFfmpeg(threads: number, options: readonly string[]): number {
  const cores = threads === 1 ? '0' : '0,1'
  const limits = ['-threads', String(threads), '-filter_threads', String(threads), '-filter_complex_threads', String(threads)]
  const started = performance.now()
  const { status, stderr } = spawnSync('taskset', ['-c', cores, 'ffmpeg', '-hide_banner', '-loglevel', 'error', '-nostdin', ...limits, ...options], {
    encoding: 'utf8',
  })
  if (status !== 0) throw new Error(`ffmpeg ended with ${status}: ${stderr}`)
  return performance.now() - started
}

function writeY4m(file: string, frames: readonly I420Picture[]): void {
  const handle = openSync(file, 'w')
  writeSync(handle, `YUV4MPEG2 W${frames[0]!.widthPx} H${frames[0]!.heightPx} F30:1 Ip A1:1 C420jpeg\n`)
  for (const frame of frames) {
    writeSync(handle, 'FRAME\n')
    writeSync(handle, frame.data)
  }
  closeSync(handle)
}

async function writePicture(file: string, picture: RgbaPicture, sizePx = picture.widthPx): Promise<void> {
  const raw = { width: picture.widthPx, height: picture.heightPx, channels: 4 as const }
  await sharp(Buffer.from(picture.data), { raw }).resize(sizePx).png({ compressionLevel: 1 }).toFile(file)
}
