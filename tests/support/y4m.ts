import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import type { I420Picture } from '../../core/picture/picture.ts'
import type { StandinCamera } from '../../core/show/show.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { nodeCamera } from '../../standins/camera/node-camera.ts'

/** Writes one picture, with grain that differs from frame to frame, as a YUV4MPEG2 file. `deviation` is in 8-bit codes. */
export function writeStillY4m(picture: I420Picture, frames: number, deviation: number): string {
  const random = seededRandom(5)
  const parts: Uint8Array[] = [Buffer.from(`YUV4MPEG2 W${picture.widthPx} H${picture.heightPx} F30:1 Ip A1:1 C420jpeg\n`)]
  for (let frame = 0; frame < frames; frame += 1) {
    // The sum of three even draws is near enough to a bell.
    const noise = () => (random() + random() + random() - 1.5) * 2 * deviation
    parts.push(
      Buffer.from('FRAME\n'),
      picture.data.map((code) => Math.min(240, Math.max(16, Math.round(code + noise())))),
    )
  }
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'green-room-y4m-')), 'still.y4m')
  writeFileSync(file, Buffer.concat(parts))
  return file
}

/** Writes seconds of the stand-in camera as a YUV4MPEG2 file, which a browser can take for a device. */
export async function writeStandinY4m(seconds: number, standin: StandinCamera = 'cloth', heightPx = 720): Promise<string> {
  const widthPx = (heightPx * 16) / 9
  const camera = await nodeCamera({ standin, widthPx, heightPx })
  const parts: Uint8Array[] = [Buffer.from(`YUV4MPEG2 W${widthPx} H${heightPx} F30:1 Ip A1:1 C420jpeg\n`)]
  for (let frame = 0; frame < seconds * 30; frame += 1) parts.push(Buffer.from('FRAME\n'), camera.picture((frame * 1000) / 30 + 1).data)
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'green-room-y4m-')), 'camera.y4m')
  writeFileSync(file, Buffer.concat(parts))
  return file
}
