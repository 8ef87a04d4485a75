import { colour } from './modes/color.ts'
import { colourBurn } from './modes/color-burn.ts'
import { colourDodge } from './modes/color-dodge.ts'
import { darken } from './modes/darken.ts'
import { difference } from './modes/difference.ts'
import { exclusion } from './modes/exclusion.ts'
import { hardLight } from './modes/hard-light.ts'
import { hue } from './modes/hue.ts'
import { lighten } from './modes/lighten.ts'
import { luminosity } from './modes/luminosity.ts'
import { multiply } from './modes/multiply.ts'
import { normal } from './modes/normal.ts'
import { overlay } from './modes/overlay.ts'
import { plusLighter } from './modes/plus-lighter.ts'
import { saturation } from './modes/saturation.ts'
import { screen } from './modes/screen.ts'
import { softLight } from './modes/soft-light.ts'

/** Every mode, in the order of the standard. */
export const blendModes = [
  normal,
  multiply,
  screen,
  overlay,
  darken,
  lighten,
  colourDodge,
  colourBurn,
  hardLight,
  softLight,
  difference,
  exclusion,
  hue,
  saturation,
  colour,
  luminosity,
  plusLighter,
] as const

export type BlendName = (typeof blendModes)[number]['name']

/** The mode of a name. */
export function blendModeOf(name: BlendName): (typeof blendModes)[number] {
  const found = blendModes.find((mode) => mode.name === name)
  if (found === undefined) throw new RangeError(`no blend mode is called "${name}"`)
  return found
}
