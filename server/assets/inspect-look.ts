import { CubeError, parseCube } from '../../core/lut/cube.ts'
import { HttpError } from '../http-error.ts'
import type { PictureFacts } from './inspect-picture.ts'

/** The media type that look tables are served under. */
const CUBE_MIME_TYPE = 'application/x-cube'
const MAX_LOOK_BYTES = 40 * 1024 * 1024

/** Whether a file says of itself, or by its name, that it is a .cube table. */
export function isLookFile(bytes: Buffer, fileName: string): boolean {
  return /\.cube$/i.test(fileName) || /^\s*(#[^\n]*\n\s*)*(TITLE|LUT_[13]D_SIZE|DOMAIN_M)/.test(bytes.subarray(0, 4096).toString('latin1'))
}

/** Reads a .cube table. Throws an HttpError with the line and the reason; the size stands for width and height. */
export function inspectLook(bytes: Buffer, fileName: string): PictureFacts {
  if (bytes.length > MAX_LOOK_BYTES) throw new HttpError(413, 'look-size', `"${fileName}" is larger than 40 MB. Export the look with fewer points.`)
  try {
    const { size } = parseCube(bytes.toString('utf8'))
    return { mimeType: CUBE_MIME_TYPE, widthPx: size, heightPx: size, isMoving: false }
  } catch (error) {
    if (error instanceof CubeError) throw new HttpError(400, 'look-malformed', `"${fileName}" is no look that can be used: ${error.message}.`)
    throw error
  }
}
