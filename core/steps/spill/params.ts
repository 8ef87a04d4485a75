import type { ParamSpecs } from '../step.ts'

/**
 * - colour: the backdrop whose light falls on the presenter
 * - amount: how much of that light is taken off
 * - reach: how far from the backdrop's colour a colour may be and still count as lit by it
 * - replace: what comes in its place: grey, the light of the new backdrop, or the presenter's own colour near by
 * - light: the new backdrop's colour
 * - keepLuma: whether brightness stays
 */
export const spillParams = {
  colour: { type: 'colour', default: '#00b140' },
  amount: { type: 'number', min: 0, max: 1, step: 0.01, default: 1, unit: 'share' },
  reach: { type: 'number', min: 0, max: 1, step: 0.01, default: 0.5, unit: 'share' },
  replace: { type: 'choice', options: ['neutral', 'backdrop', 'edge'], default: 'neutral' },
  light: { type: 'colour', default: '#c9d2cc' },
  keepLuma: { type: 'choice', options: ['on', 'off'], default: 'on' },
} as const satisfies ParamSpecs
