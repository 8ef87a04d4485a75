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

/** Ours and the tool take turns in short blocks, so that a slow minute of the machine weighs on both. */
const BLOCKS = 5
const BLOCK_FRAMES = 60
const WARM_UP = 30

interface PerThreads<T = number> {
  readonly one: T
  readonly two: T
}

/** Of the blocks' milliseconds a frame. */
interface Blocks {
  readonly best: number
  readonly median: number
}

export interface FrameFigures {
  readonly frames: number
  readonly medianMs: number
  readonly p95Ms: number
  /** The medians of our blocks. */
  readonly blockMs: Blocks
  readonly ffmpegMs: PerThreads<Blocks>
  /** The tool's median block to ours. */
  readonly speedup: PerThreads
}

/** Measures both sizes. */
export async function benchFrame(say: (text: string) => void): Promise<Record<string, FrameFigures>> {
  const result: Record<string, FrameFigures> = {}
  for (const [widthPx, heightPx] of [
    [1280, 720],
    [1920, 1080],
  ] as const) {
    say(`frame: ${widthPx}x${heightPx}, ${BLOCKS} blocks of ${BLOCK_FRAMES} frames, in turns with ffmpeg`)
    const scene = await referenceScene(widthPx)
    const frames = await cameraFrames(widthPx, heightPx, BLOCK_FRAMES)
    result[`${widthPx}x${heightPx}`] = await inTurns(scene, frames)
  }
  return result
}

async function inTurns(scene: ReferenceScene, frames: readonly I420Picture[]): Promise<FrameFigures> {
  const times: number[] = []
  const ours: number[] = []
  const tool = { one: [] as number[], two: [] as number[] }
  const timeBlock = await ourBlocks(scene, frames)
  const ffmpeg = await toolBlocks(scene, frames)
  try {
    for (let block = 0; block < BLOCKS; block += 1) {
      const taken = timeBlock()
      times.push(...taken)
      ours.push(quantile(taken, 0.5))
      tool.one.push(ffmpeg.timeBlock(1))
      tool.two.push(ffmpeg.timeBlock(2))
    }
  } finally {
    ffmpeg.close()
  }
  const blockMs = blocksOf(ours)
  const ffmpegMs = { one: blocksOf(tool.one), two: blocksOf(tool.two) }
  return {
    frames: times.length,
    medianMs: quantile(times, 0.5),
    p95Ms: quantile(times, 0.95),
    blockMs,
    ffmpegMs,
    speedup: { one: ffmpegMs.one.median / blockMs.median, two: ffmpegMs.two.median / blockMs.median },
  }
}

function blocksOf(ms: readonly number[]): Blocks {
  return { best: Math.min(...ms), median: quantile(ms, 0.5) }
}

/** Warmed up; each call renders every frame once and gives the milliseconds of each. */
async function ourBlocks(scene: ReferenceScene, frames: readonly I420Picture[]): Promise<() => number[]> {
  const executor = new CpuExecutor(new Treatments(await nodeHeap()))
  const sources = new Map<string, SourceFrame>([...scene.stills].map(([id, picture]) => [id, { picture, version: 1, isLive: false }]))
  let version = 0
  const render = (index: number) => {
    sources.set(scene.cameraId, { picture: frames[index]!, version: (version += 1), isLive: true })
    const started = performance.now()
    executor.render(scene.plan, sources)
    return performance.now() - started
  }
  for (let i = 0; i < WARM_UP; i += 1) render(i)
  return () => frames.map((_, index) => render(index))
}

/**
 * Milliseconds a frame of a graph that makes the same picture: crop, eq, chromakey, despill and three
 * overlays; less what only reading the frames costs. The rounded corners are left out, in its favour.
 */
async function toolBlocks(scene: ReferenceScene, frames: readonly I420Picture[]): Promise<{ timeBlock: (threads: number) => number; close: () => void }> {
  const folder = mkdtempSync(path.join(tmpdir(), 'green-room-bench-'))
  const close = () => rmSync(folder, { recursive: true, force: true })
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
    const timeBlock = (threads: number) => {
      const run = (filter: string, maps: string[]) =>
        runFfmpeg(threads, [...inputs, '-filter_complex', filter, ...maps, '-frames:v', String(frames.length), '-f', 'null', '-'])
      return (run(graph, ['-map', '[out]']) - run('[0:v]null[out]', ['-map', '[out]'])) / frames.length
    }
    return { timeBlock, close }
  } catch (error) {
    close()
    throw error
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
