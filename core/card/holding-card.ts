// The still that the audience sees when there is no live picture: the same in the studio's feed and
// in the meeting's driver, so that nobody notices which of them shows it.

/** The pen calls the card needs; every 2-D canvas context has them. */
export interface CardPen {
  fillStyle: unknown
  font: string
  textAlign: string
  fillRect(x: number, y: number, width: number, height: number): void
  createRadialGradient(x0: number, y0: number, r0: number, x1: number, y1: number, r1: number): { addColorStop(offset: number, colour: string): void }
  beginPath(): void
  arc(x: number, y: number, radius: number, from: number, to: number): void
  fill(): void
  fillText(text: string, x: number, y: number, maxWidth: number): void
}

/** Draws the card over the whole canvas. Long lines are squeezed, never cut. */
export function drawHoldingCard(pen: CardPen, widthPx: number, heightPx: number, title: string, detail: string, family: string): void {
  const middle = widthPx / 2
  const unit = heightPx / 720
  pen.fillStyle = '#1d2a26'
  pen.fillRect(0, 0, widthPx, heightPx)
  const glow = pen.createRadialGradient(middle, heightPx * 0.2, 0, middle, heightPx * 0.2, heightPx)
  glow.addColorStop(0, 'rgba(224,176,75,0.20)')
  glow.addColorStop(1, 'rgba(224,176,75,0)')
  pen.fillStyle = glow
  pen.fillRect(0, 0, widthPx, heightPx)
  pen.fillStyle = '#e0b04b'
  pen.beginPath()
  pen.arc(middle, heightPx * 0.36, 26 * unit, 0, Math.PI * 2)
  pen.fill()
  pen.textAlign = 'center'
  pen.fillStyle = '#f5f1e8'
  pen.font = `700 ${Math.round(58 * unit)}px ${family}`
  pen.fillText(title, middle, heightPx * 0.56, widthPx * 0.86)
  pen.fillStyle = '#b9c4bd'
  pen.font = `400 ${Math.round(28 * unit)}px ${family}`
  pen.fillText(detail, middle, heightPx * 0.63, widthPx * 0.86)
}
