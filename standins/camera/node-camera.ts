// The stand-in camera outside a browser.
import { readFile } from 'node:fs/promises'
import { nodeSheet } from '../drawing/node-sheet.ts'
import { DrawnCamera, type DrawnCameraOptions } from './drawn-camera.ts'

/** The seed of the stand-in in the studio, so that a still shows the same presenter. */
export const STANDIN_SEED = 7

/** A drawn camera; 1280 × 720 at thirty a second with the studio's seed unless it is said otherwise. */
export async function nodeCamera(options: Partial<DrawnCameraOptions> = {}): Promise<DrawnCamera> {
  const mix = await readFile(new URL('./kernels/mix.wasm', import.meta.url))
  return DrawnCamera.create(nodeSheet, mix, { widthPx: 1280, heightPx: 720, frameRate: 30, seed: STANDIN_SEED, ...options })
}
