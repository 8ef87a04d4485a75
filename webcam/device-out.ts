// What travels between a studio and the server when the feed goes to a device or a file of this computer. Frames are binary.
import { z } from 'zod'

/** First message of a studio: where to, and what comes. */
export const deviceOutStartSchema = z.strictObject({
  target: z.union([
    z.strictObject({ type: z.literal('file') }),
    z.strictObject({ type: z.literal('device'), path: z.string().regex(/^\/dev\/video\d{1,3}$/) }),
  ]),
  widthPx: z.number().int().min(16).max(3840),
  heightPx: z.number().int().min(16).max(2160),
  frameRate: z.number().int().min(1).max(60),
})
export type DeviceOutStart = z.infer<typeof deviceOutStartSchema>
export type DeviceOutTarget = DeviceOutStart['target']

/** To a studio. */
export type FromDeviceOut =
  | { readonly type: 'started'; readonly path: string }
  /** `reason`: what is wrong, in words. */
  | { readonly type: 'ended'; readonly reason: string | null }

/** What this computer has to send to. */
export interface DeviceOutWays {
  /** First line of what the program says of itself; null when it is not there. */
  readonly ffmpeg: string | null
  readonly devices: readonly { readonly path: string; readonly name: string }[]
  /** Where a file would be written. */
  readonly filePath: string
}
