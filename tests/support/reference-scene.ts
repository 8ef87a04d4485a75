// A scene of a stored show as the reference renderer makes it, with the stand-ins as they are at a time. Node only.
import { inputSourceId, plainSourceId } from '../../core/inputs/source-ids.ts'
import type { SourceId } from '../../core/picture/source.ts'
import { readFile } from 'node:fs/promises'
import path from 'node:path'
import sharp from 'sharp'
import { parseHex } from '../../core/colour/hex.ts'
import type { Picture, RgbaPicture } from '../../core/picture/picture.ts'
import { renderReference, toRgba8 } from '../../core/render/render-reference.ts'
import type { Input, Show } from '../../core/show/show.ts'
import { loadFonts } from '../../server/cli/node-engine.ts'
import { nodeCamera } from '../../standins/camera/node-camera.ts'
import { nodeScreen } from '../../standins/screen/node-screen.ts'
import { sceneCase } from './scene-cases.ts'

/** Pictures that no stand-in and no file gives: by the input's id. */
export type GivenPictures = ReadonlyMap<string, Picture>

/** The scene at a share of its size; `timeMs` on the wall clock. */
export async function referenceScene(show: Show, sceneId: string, timeMs: number, dataDir: string, factor: number, given: GivenPictures): Promise<RgbaPicture> {
  loadFonts()
  const scene = show.scenes.find(({ id }) => id === sceneId)!
  const pictures = new Map<SourceId, Picture>()
  for (const input of show.inputs) {
    const picture = given.get(input.id) ?? (await pictureOf(input, timeMs, dataDir))
    if (picture !== null) pictures.set(input.kind === 'colour' ? plainSourceId(input.colour) : inputSourceId(input.id), picture)
  }
  const { plan, pictures: all } = sceneCase(show, scene, pictures, factor)
  return toRgba8(renderReference(plan, all))
}

const cameras = new Map<string, ReturnType<typeof nodeCamera>>()

/** A stand-in camera is drawn in parts that it keeps: once for all pictures of it. */
function cameraOf(options: NonNullable<Parameters<typeof nodeCamera>[0]>): ReturnType<typeof nodeCamera> {
  const key = JSON.stringify(options)
  const camera = cameras.get(key) ?? nodeCamera(options)
  cameras.set(key, camera)
  return camera
}

async function pictureOf(input: Input, timeMs: number, dataDir: string): Promise<Picture | null> {
  if (input.kind === 'colour') {
    const [red, green, blue] = parseHex(input.colour)
    return { format: 'rgba', widthPx: 1, heightPx: 1, data: Uint8Array.of(red * 255, green * 255, blue * 255, 255) }
  }
  if (input.kind === 'camera') {
    if (input.device.type !== 'standin') return null
    const { widthPx, heightPx, frameRate } = input
    return (await cameraOf({ widthPx, heightPx, frameRate, standin: input.device.standin })).picture(timeMs)
  }
  if (input.kind === 'screen') return input.source.type === 'standin' ? nodeScreen(timeMs) : null
  if (input.kind !== 'picture') return null
  const { data, info } = await sharp(await readFile(path.join(dataDir, 'assets', input.asset)))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return { format: 'rgba', widthPx: info.width, heightPx: info.height, data: new Uint8Array(data) }
}

/** How far two pictures of one size are apart: the mean over all codes, and the share of pixels with a code that is more than `most` away. */
export function apart(
  one: Uint8Array | Uint8ClampedArray,
  other: Uint8Array | Uint8ClampedArray,
  most = 28,
): { readonly mean: number; readonly beyond: number } {
  let sum = 0
  let beyond = 0
  for (let at = 0; at < one.length; at += 4) {
    let largest = 0
    for (let channel = 0; channel < 3; channel += 1) {
      const difference = Math.abs(one[at + channel]! - other[at + channel]!)
      sum += difference
      largest = Math.max(largest, difference)
    }
    if (largest > most) beyond += 1
  }
  return { mean: sum / ((one.length / 4) * 3), beyond: beyond / (one.length / 4) }
}
