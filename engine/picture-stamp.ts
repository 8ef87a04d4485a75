import type { Picture } from '../core/picture/picture.ts'
import type { SourceFrame } from './executor.ts'

const numbers = new WeakMap<Picture, number>()
let count = 0
/** Versions of one picture that are told apart. */
const VERSIONS = 2 ** 31

/** A number that no other picture has had: a source that comes back begins its versions anew. −1 without a picture. */
export function pictureStamp(frame: SourceFrame | undefined): number {
  if (frame === undefined) return -1
  let number = numbers.get(frame.picture)
  if (number === undefined) numbers.set(frame.picture, (number = count += 1))
  return number * VERSIONS + (frame.version % VERSIONS)
}
