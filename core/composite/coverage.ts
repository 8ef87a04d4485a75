/**
 * How much (0..1) of the pixel centred at (x, y) a rounded rectangle covers. The rectangle spans
 * 0..width × 0..height in the same pixels; the edge is one pixel soft, from its signed distance.
 */
export function roundedRectCoverage(x: number, y: number, width: number, height: number, radius: number): number {
  const r = Math.min(radius, width / 2, height / 2)
  const dx = Math.abs(x - width / 2) - (width / 2 - r)
  const dy = Math.abs(y - height / 2) - (height / 2 - r)
  const distance = dx > 0 && dy > 0 ? Math.hypot(dx, dy) - r : Math.max(dx, dy) - r
  const coverage = 0.5 - distance
  // A shape narrower than a pixel never covers more of one than its own area.
  const most = Math.min(1, width) * Math.min(1, height)
  return coverage < 0 ? 0 : coverage > most ? most : coverage
}
