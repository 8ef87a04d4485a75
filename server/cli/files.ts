import { readFile, writeFile } from 'node:fs/promises'
import sharp from 'sharp'
import { z } from 'zod'
import { issueLines } from '../../core/show/schema.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { inspectPicture } from '../assets/inspect-picture.ts'
import { HttpError } from '../http-error.ts'
import { InputError } from './arguments.ts'

/** Reads a file; a missing one is bad input. */
export async function readInput(file: string, option: string): Promise<Buffer> {
  return readFile(file).catch((error: NodeJS.ErrnoException) => {
    throw new InputError(`--${option}: "${file}" could not be read (${error.code ?? error.message}). Check the path.`)
  })
}

/** Decodes a picture file to straight RGBA. */
export async function readPicture(file: string, option: string): Promise<RgbaPicture> {
  const bytes = await readInput(file, option)
  await inspectPicture(bytes, file).catch((error: unknown) => {
    throw error instanceof HttpError ? new InputError(`--${option}: ${error.message}`) : error
  })
  const { data, info } = await sharp(bytes).rotate().toColourspace('srgb').ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  return { format: 'rgba', widthPx: info.width, heightPx: info.height, data: new Uint8Array(data.buffer, data.byteOffset, data.length) }
}

/** Reads and checks a JSON file. */
export async function readJson<T>(file: string, option: string, read: (value: unknown) => T): Promise<T> {
  const text = (await readInput(file, option)).toString('utf8')
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch (error) {
    throw new InputError(`--${option}: "${file}" is not valid JSON: ${error instanceof Error ? error.message : String(error)}`)
  }
  try {
    return read(value)
  } catch (error) {
    if (error instanceof z.ZodError) throw new InputError(`--${option}: "${file}" is out of bounds.\n  ${issueLines(error).join('\n  ')}`)
    throw new InputError(`--${option}: ${error instanceof Error ? error.message : String(error)}`)
  }
}

/** Writes straight RGBA as a PNG file. */
export async function writePng(file: string, picture: RgbaPicture): Promise<void> {
  const raw = { width: picture.widthPx, height: picture.heightPx, channels: 4 as const }
  await writeFile(file, await sharp(Buffer.from(picture.data), { raw }).png().toBuffer())
}

/** Writes the opacity of a picture as a grey PNG file, white opaque. */
export async function writeMatte(file: string, picture: RgbaPicture): Promise<void> {
  const grey = new Uint8Array(picture.widthPx * picture.heightPx)
  for (let i = 0; i < grey.length; i += 1) grey[i] = picture.data[i * 4 + 3]!
  const raw = { width: picture.widthPx, height: picture.heightPx, channels: 1 as const }
  await writeFile(file, await sharp(Buffer.from(grey), { raw }).toColourspace('b-w').png().toBuffer())
}
