/** A span of time as "4:05", from an hour on as "1:04:05"; nothing below zero. */
export function minutesAndSeconds(ms: number): string {
  const seconds = Math.max(0, Math.floor(ms / 1000))
  const two = (value: number) => String(value).padStart(2, '0')
  const minutes = Math.floor(seconds / 60)
  return minutes < 60 ? `${minutes}:${two(seconds % 60)}` : `${Math.floor(minutes / 60)}:${two(minutes % 60)}:${two(seconds % 60)}`
}
