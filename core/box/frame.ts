// What a layer is seen through, and what goes round it.
import type { Shape } from '../composite/shape.ts'

export const frameForms = ['box', 'ellipse', 'softSquare'] as const
export type FrameForm = (typeof frameForms)[number]
export const borderSides = ['inside', 'outside'] as const

export interface Border {
  readonly widthPx: number
  readonly colour: string
  /** 0..1 */
  readonly opacity: number
  /** On which side of the frame's edge it runs. */
  readonly side: (typeof borderSides)[number]
}

export interface Shadow {
  /** How far it lies from its layer, in the layer's own directions; right and down are positive. */
  readonly dx: number
  readonly dy: number
  /** As CSS has it: twice the gaussian's deviation. */
  readonly blurPx: number
  readonly colour: string
  /** 0..1 */
  readonly opacity: number
}

export interface Frame {
  readonly form: FrameForm
  /** Of a box. */
  readonly cornerRadiusPx: number
  readonly border: Border | null
  readonly shadow: Shadow | null
}

/** A sharp box with nothing round it. */
export const PLAIN_FRAME: Frame = { form: 'box', cornerRadiusPx: 0, border: null, shadow: null }

/** How full a soft square is: between an ellipse (2) and a box. */
const SOFT_SQUARE_EXPONENT = 4

/** The form that a frame has at a size; `scale` is that of its corners. */
export function frameShape({ form, cornerRadiusPx }: Frame, width: number, height: number, scale: number): Shape {
  if (form === 'box') return { kind: 'roundedRect', width, height, cornerRadius: cornerRadiusPx * scale }
  return { kind: 'superellipse', width, height, exponent: form === 'ellipse' ? 2 : SOFT_SQUARE_EXPONENT }
}

/** A frame of another size; `at` is given each length and the range it must stay in. */
export function scaledFrame(frame: Frame, at: (px: number, range: 'cornerRadiusPx' | 'borderPx' | 'shadowOffsetPx' | 'blurPx') => number): Frame {
  const { border, shadow } = frame
  return {
    ...frame,
    cornerRadiusPx: at(frame.cornerRadiusPx, 'cornerRadiusPx'),
    border: border === null ? null : { ...border, widthPx: at(border.widthPx, 'borderPx') },
    shadow:
      shadow === null ? null : { ...shadow, dx: at(shadow.dx, 'shadowOffsetPx'), dy: at(shadow.dy, 'shadowOffsetPx'), blurPx: at(shadow.blurPx, 'blurPx') },
  }
}
