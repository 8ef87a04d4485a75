// Moving backgrounds, drawn in the colours of a show when somebody wants one. The same colours make the same file.
import { Router, json } from 'express'
import pLimit from 'p-limit'
import sharp from 'sharp'
import { z } from 'zod'
import { drawMoving, MOVING_PICTURES, MOVING_RATE, MOVING_SIZE, type MovingColours } from '../../core/backgrounds/moving.ts'
import { movingBackgrounds, type MovingBackground } from '../../core/inputs/clip.ts'
import { colour } from '../../core/schema/values.ts'
import type { AssetStore } from '../assets/asset-store.ts'

const body = z.strictObject({ name: z.enum(movingBackgrounds), colours: z.strictObject({ ground: colour, panel: colour, accent: colour }) })

/** /api/backgrounds: draws a moving background as an animated WebP file, and keeps it among the files of shows. */
export function backgroundRoutes(assets: AssetStore): Router {
  const oneAtATime = pLimit(1)
  const router = Router()
  router.use(json())
  router.post('/', async (request, response) => {
    const { name, colours } = body.parse(request.body)
    const file = await oneAtATime(() => (response.closed ? null : movingFile(name, colours)))
    if (file !== null) response.status(201).json(await assets.add(file, `${name}.webp`))
  })
  return router
}

/** Picture by picture, so that the server answers others meanwhile. */
async function movingFile(name: MovingBackground, colours: MovingColours): Promise<Buffer> {
  const pictures: Uint8Array[] = []
  for (let index = 0; index < MOVING_PICTURES; index += 1) {
    pictures.push(drawMoving(name, colours, index / MOVING_PICTURES))
    await new Promise((resolve) => setImmediate(resolve))
  }
  const { widthPx: width, heightPx } = MOVING_SIZE
  return sharp(Buffer.concat(pictures), { raw: { width, height: heightPx * MOVING_PICTURES, channels: 3, pageHeight: heightPx } })
    .webp({ quality: 88, effort: 2, loop: 0, delay: pictures.map(() => Math.round(1000 / MOVING_RATE)) })
    .toBuffer()
}
