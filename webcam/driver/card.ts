/** Draws the still that a meeting sees while no live picture arrives. */
export function drawCard(widthPx: number, heightPx: number, title: string): HTMLCanvasElement {
  const canvas = document.createElement('canvas')
  canvas.width = widthPx
  canvas.height = heightPx
  const pen = canvas.getContext('2d')
  if (pen === null) return canvas
  pen.fillStyle = '#1d2a26'
  pen.fillRect(0, 0, widthPx, heightPx)
  const glow = pen.createRadialGradient(widthPx / 2, heightPx * 0.2, 0, widthPx / 2, heightPx * 0.2, heightPx)
  glow.addColorStop(0, 'rgba(224,176,75,0.20)')
  glow.addColorStop(1, 'rgba(224,176,75,0)')
  pen.fillStyle = glow
  pen.fillRect(0, 0, widthPx, heightPx)
  pen.fillStyle = '#e0b04b'
  pen.beginPath()
  pen.arc(widthPx / 2, heightPx * 0.36, heightPx * 0.036, 0, Math.PI * 2)
  pen.fill()
  pen.fillStyle = '#f5f1e8'
  pen.textAlign = 'center'
  pen.font = `600 ${Math.round(heightPx * 0.075)}px system-ui, sans-serif`
  pen.fillText(title, widthPx / 2, heightPx * 0.56)
  return canvas
}
