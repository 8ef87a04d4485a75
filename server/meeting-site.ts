import { readFileSync } from 'node:fs'
import path from 'node:path'
import express, { type Express } from 'express'

/** The stand-in meeting's own site. It shares nothing with the studio but one script tag. */
export function createMeetingSite(distDir: string, studioOrigin: () => string): Express {
  const site = express()
  const folder = path.join(distDir, 'meeting')
  site.get('/', (_request, response) => {
    const page = readFileSync(path.join(folder, 'index.html'), 'utf8')
    response.type('html').send(page.replaceAll('%STUDIO_ORIGIN%', studioOrigin()))
  })
  site.use(express.static(folder, { index: false }))
  return site
}
