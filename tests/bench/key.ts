// How good the key is with its usual values and a picked backdrop colour, as numbers.
import { matteErrors, type Matte, type MatteErrors } from '../../core/matte/metrics.ts'
import { readFileSync } from 'node:fs'
import { toRgba8 } from '../../core/render/render-reference.ts'
import { treatReference } from '../../core/render/treat-reference.ts'
import { chromaKey } from '../../core/steps/chroma-key/index.ts'
import { defaultParams } from '../../core/steps/step.ts'
import type { StepCall } from '../../core/steps/index.ts'
import { ClothCamera, CLOTH_PICK } from '../../standins/camera/cloth-camera.ts'
import { nodeSheet } from '../../standins/drawing/node-sheet.ts'
import { loadMatte, loadPicture } from '../references/cases.ts'
import { matteOf, pickMean } from '../support/pictures.ts'

export interface KeyErrors extends MatteErrors {
  /** Share of truly opaque pixels that came out below 0.97. */
  readonly seeThrough: number
}

export interface KeyFigures {
  readonly greenscreen: KeyErrors
  /** Means over the frames below. */
  readonly standin: KeyErrors
  readonly standinFrames: readonly (KeyErrors & { readonly timeMs: number })[]
}

const FRAMES = 10
const FRAME_EVERY_MS = 1100

export async function benchKey(say: (text: string) => void): Promise<KeyFigures> {
  say('key: greenscreen.png')
  const picture = await loadPicture('greenscreen.png')
  const key = (colour: string): StepCall => ({ kind: 'chromaKey', params: { ...defaultParams(chromaKey.params), colour } })
  const greenscreen = errorsOf(matteOf(toRgba8(treatReference(picture, [key(pickMean(picture, 12, 12, 6))]))), await loadMatte('greenscreen_alpha.png'))

  say(`key: ${FRAMES} stand-in frames`)
  const mix = readFileSync(new URL('../../standins/camera/kernels/mix.wasm', import.meta.url))
  const camera = await ClothCamera.create(nodeSheet, mix, { widthPx: 1280, heightPx: 720, frameRate: 30, seed: 7 })
  const standinFrames = Array.from({ length: FRAMES }, (_, i) => {
    const timeMs = i * FRAME_EVERY_MS
    const frame = camera.picture(timeMs)
    const colour = pickMean(toRgba8(treatReference(frame, [])), 1280 * CLOTH_PICK.x, 720 * CLOTH_PICK.y, 6)
    const crop: StepCall = { kind: 'crop', params: { left: 13, top: 0, right: 10, bottom: 0 } }
    const treated = toRgba8(treatReference(frame, [crop, key(colour)]))
    return { timeMs, ...errorsOf(matteOf(treated), { widthPx: 1280, heightPx: 720, data: camera.matte(timeMs) }) }
  })
  const mean = (name: keyof KeyErrors) => standinFrames.reduce((sum, frame) => sum + frame[name], 0) / FRAMES
  return { greenscreen, standin: { sad: mean('sad'), mse: mean('mse'), gradient: mean('gradient'), seeThrough: mean('seeThrough') }, standinFrames }
}

function errorsOf(matte: Matte, truth: Matte): KeyErrors {
  let opaque = 0
  let low = 0
  truth.data.forEach((alpha, i) => {
    if (alpha !== 255) return
    opaque += 1
    if (matte.data[i]! < 0.97 * 255) low += 1
  })
  return { ...matteErrors(matte, truth), seeThrough: low / opaque }
}
