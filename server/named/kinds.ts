// What is kept under names: chains of steps, and graphics.
import { readKeptGraphic, type KeptGraphic } from '../../core/show/kept-graphic.ts'
import { readChain } from '../../core/show/migrate.ts'
import type { ChainFile } from '../../core/show/schema.ts'
import { HttpError } from '../http-error.ts'
import type { NamedKind } from './named-store.ts'

const MOST = 200

export const presets: NamedKind<ChainFile> = {
  table: 'presets',
  most: MOST,
  read: (stored, name) => ({ ...readChain(stored), name }),
  full: () => new HttpError(409, 'presets-full', `There are ${MOST} presets already. Delete one first.`),
  missing: () => new HttpError(404, 'preset-not-found', 'This preset is not here any more.'),
}

export const keptGraphics: NamedKind<KeptGraphic> = {
  table: 'graphics',
  most: MOST,
  read: readKeptGraphic,
  full: () => new HttpError(409, 'graphics-full', `There are ${MOST} saved graphics already. Delete one first.`),
  missing: () => new HttpError(404, 'graphic-not-found', 'This graphic is not here any more.'),
}
