// Looks, plates and pictures that steps name. A chain is never run without one that it names: the result would look done and be wrong.
import { inputKindOf } from '../../core/inputs/index.ts'
import path from 'node:path'
import { parseHex } from '../../core/colour/hex.ts'
import { CubeError, parseCube } from '../../core/lut/cube.ts'
import type { Lut } from '../../core/lut/lut.ts'
import { isOwnLook } from '../../core/lut/own-looks.ts'
import { lutFromPicture } from '../../core/lut/picture-lut.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Input } from '../../core/show/show.ts'
import type { StepCall } from '../../core/steps/index.ts'
import type { StepContext } from '../../core/steps/step.ts'
import { isLookFile } from '../assets/inspect-look.ts'
import { InputError } from './arguments.ts'
import { readInput, readPicture } from './files.ts'

export type Resources = Pick<StepContext, 'lut' | 'picture'>

/** Reads a look from a .cube file or a look picture, whatever the file's name is. */
export async function readLook(file: string, option: string): Promise<Lut> {
  try {
    const bytes = await readInput(file, option)
    if (isLookFile(bytes, file)) return parseCube(bytes.toString('utf8'))
    return lutFromPicture(await readPicture(file, option))
  } catch (error) {
    if (error instanceof CubeError || error instanceof RangeError) throw new InputError(`--${option}: "${file}": ${error.message}.`)
    throw error
  }
}

/** Throws an InputError for a step that names a look, a plate or a picture that was not given, or that needs a person found. */
export function requireAll(calls: readonly StepCall[], { lut, picture }: Resources, howToGive: Readonly<Record<'look' | 'plate' | 'input', string>>): void {
  for (const call of calls) {
    if (call.kind === 'look' && !isOwnLook(call.params.look) && call.params.look !== '' && lut(call.params.look) === null) {
      throw new InputError(`The step "look" names the look "${call.params.look}". ${howToGive.look}`)
    }
    if (call.kind === 'chromaKey' && call.params.backdrop === 'plate' && call.params.plate !== '' && picture(call.params.plate) === null) {
      throw new InputError(`The step "chromaKey" names a picture of the empty cloth. ${howToGive.plate}`)
    }
    if (call.kind !== 'room' || call.params.effect === 'asIs') continue
    if (call.params.effect === 'replaced' && call.params.input !== '' && picture(call.params.input) === null) {
      throw new InputError(`The step "room" names the input "${call.params.input}". ${howToGive.input}`)
    }
    throw new InputError('The step "room" needs to know where the person is, which only the studio finds. Switch it off in the chain.')
  }
}

/** What the steps of a show name, from the folder that holds its files by SHA-256. */
export async function showResources(calls: readonly StepCall[], inputs: readonly Input[], assetDir: string | undefined): Promise<Resources> {
  const luts = new Map<string, Lut>()
  const pictures = new Map<string, RgbaPicture>()
  const fileOf = (asset: string) => path.join(assetDir!, asset)
  if (assetDir !== undefined) {
    for (const call of calls) {
      if (call.kind === 'look' && call.params.look !== '' && !isOwnLook(call.params.look))
        luts.set(call.params.look, await readLook(fileOf(call.params.look), 'asset-dir'))
      if (call.kind === 'chromaKey' && call.params.backdrop === 'plate' && call.params.plate !== '') {
        pictures.set(call.params.plate, await readPicture(fileOf(call.params.plate), 'asset-dir'))
      }
    }
  }
  for (const input of inputs) {
    const still = inputKindOf(input).still(input)
    if (still?.type === 'colour') pictures.set(input.id, onePixel(still.colour))
  }
  return { lut: (reference) => luts.get(reference) ?? null, picture: (reference) => pictures.get(reference) ?? null }
}

/** One pixel of a colour. */
export function onePixel(hex: string): RgbaPicture {
  const [red, green, blue] = parseHex(hex)
  return { format: 'rgba', widthPx: 1, heightPx: 1, data: Uint8Array.of(red * 255, green * 255, blue * 255, 255) }
}
