// Random values for any step, from its description.
import { ownLooks } from '../../core/lut/own-looks.ts'
import { SURFACE_NUMBERS, SURFACE_TERMS } from '../../core/matte/backdrop.ts'
import type { AnyStep, StepCall } from '../../core/steps/index.ts'
import type { ParamSpec, ParamValue } from '../../core/steps/step.ts'

/** A value within the bounds of a parameter. */
function randomValue(spec: ParamSpec, random: () => number): ParamValue {
  switch (spec.type) {
    case 'number':
      return spec.min + random() * (spec.max - spec.min)
    case 'colour':
      return `#${Math.floor(random() * 0xffffff)
        .toString(16)
        .padStart(6, '0')}`
    case 'choice':
      return spec.options[Math.floor(random() * spec.options.length)]!
    case 'reference':
      return spec.to === 'look' ? ownLooks[Math.floor(random() * ownLooks.length)]! : ''
    case 'numbers':
      return spec.length === SURFACE_NUMBERS ? greenSurface(random) : []
  }
}

/** A call of a step with random values. */
export function randomCall(step: AnyStep, random: () => number): StepCall {
  const specs = Object.entries(step.params as Readonly<Record<string, ParamSpec>>)
  return { kind: step.kind, params: Object.fromEntries(specs.map(([name, spec]) => [name, randomValue(spec, random)])) } as unknown as StepCall
}

/** A green cloth brighter at one side, as a fitted surface. */
function greenSurface(random: () => number): number[] {
  const surface = Array.from({ length: SURFACE_NUMBERS }, () => 0)
  ;[0.17, 0.7, 0.32].forEach((value, channel) => {
    surface[channel * SURFACE_TERMS] = value
    surface[channel * SURFACE_TERMS + 1] = value * (random() - 0.5) * 0.6
    surface[channel * SURFACE_TERMS + 2] = value * (random() - 0.5) * 0.3
    surface[SURFACE_TERMS * 3 + channel] = value * 0.5
    surface[SURFACE_TERMS * 3 + 3 + channel] = value * 1.5
  })
  return surface
}
