/** Encoded red, green and blue, 0..1. */
export type Rgb = readonly [red: number, green: number, blue: number]

const HEX_COLOUR = /^#([0-9a-f]{6})$/i

/** Encoded RGB (0..1) of "#rrggbb". Throws a RangeError that names what came. */
export function parseHex(hex: string): Rgb {
  const digits = HEX_COLOUR.exec(hex)?.[1]
  if (digits === undefined) throw new RangeError(`a colour must be written #rrggbb, got "${hex}"`)
  const code = Number.parseInt(digits, 16)
  return [(code >>> 16) / 255, ((code >>> 8) & 255) / 255, (code & 255) / 255]
}

/** "#rrggbb" of encoded RGB, clipped to 0..1. */
export function formatHex([red, green, blue]: Rgb): string {
  const byte = (value: number) =>
    Math.round(Math.min(1, Math.max(0, value)) * 255)
      .toString(16)
      .padStart(2, '0')
  return `#${byte(red)}${byte(green)}${byte(blue)}`
}
