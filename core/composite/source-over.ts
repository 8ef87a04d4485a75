// Porter–Duff source-over as in W3C Compositing and Blending Level 1 §9.1.4, on sRGB-encoded values.

/**
 * Puts premultiplied `source` over premultiplied `backdrop`, in place: co = cs + cb·(1 − αs).
 * Both hold red, green, blue, alpha, 0..1, from index `at`; `scale` (0..1) thins the source first.
 */
export function sourceOver(backdrop: Float64Array, at: number, source: Float64Array, sourceAt: number, scale: number): void {
  const rest = 1 - source[sourceAt + 3]! * scale
  for (let channel = 0; channel < 4; channel += 1) {
    backdrop[at + channel] = source[sourceAt + channel]! * scale + backdrop[at + channel]! * rest
  }
}
