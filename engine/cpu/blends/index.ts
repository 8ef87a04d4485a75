// Which pixel loop blends by which mode.
import type { BlendName } from '../../../core/blend/index.ts'
import type { Kernels } from '../heap.ts'

/** Puts `count` pixels of `line` over `base` into `out`. */
export type BlendRow = (line: number, base: number, out: number, count: number) => void

/** The loop of each mode, by name. */
export function blendRows(kernels: Kernels): Readonly<Record<BlendName, BlendRow>> {
  return {
    normal: kernels.blendRow,
    multiply: kernels.blendMultiplyRow,
    screen: kernels.blendScreenRow,
    overlay: kernels.blendOverlayRow,
    darken: kernels.blendDarkenRow,
    lighten: kernels.blendLightenRow,
    'color-dodge': kernels.blendColorDodgeRow,
    'color-burn': kernels.blendColorBurnRow,
    'hard-light': kernels.blendHardLightRow,
    'soft-light': kernels.blendSoftLightRow,
    difference: kernels.blendDifferenceRow,
    exclusion: kernels.blendExclusionRow,
    hue: kernels.blendHueRow,
    saturation: kernels.blendSaturationRow,
    color: kernels.blendColorRow,
    luminosity: kernels.blendLuminosityRow,
    'plus-lighter': kernels.blendPlusLighterRow,
  }
}
