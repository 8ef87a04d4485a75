import type { ParamSpecs } from '../step.ts'

/**
 * - zoom: how much of the picture is enlarged; 1 shows it whole
 * - panX, panY: which part, −100..100 % of the room that zooming leaves
 * - angle: turns the picture clockwise; it is enlarged just enough to fill the corners
 * - mirror: left for right
 */
export const framingParams = {
  zoom: { type: 'number', min: 1, max: 4, step: 0.01, default: 1, unit: 'times' },
  panX: { type: 'number', min: -100, max: 100, step: 1, default: 0, unit: 'percent' },
  panY: { type: 'number', min: -100, max: 100, step: 1, default: 0, unit: 'percent' },
  angle: { type: 'number', min: -15, max: 15, step: 0.1, default: 0, unit: 'degrees' },
  mirror: { type: 'choice', options: ['off', 'on'], default: 'off' },
} as const satisfies ParamSpecs
