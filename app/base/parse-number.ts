// What a person types into a field of numbers: a number, alone or with a unit.

/** Spellings of each unit, and its factor to the base unit of its kind. */
const UNITS: Readonly<Record<string, readonly [kind: string, size: number]>> = {
  '%': ['share', 0.01],
  px: ['length', 1],
  '°': ['angle', 1],
  deg: ['angle', 1],
  rad: ['angle', 180 / Math.PI],
  ms: ['time', 1],
  s: ['time', 1000],
  min: ['time', 60_000],
  db: ['level', 1],
  k: ['temperature', 1],
  em: ['em', 1],
}

/**
 * The number that `text` means in a field of `unit` ("" for a share or a count); null for what is no number, or has a unit that the field
 * cannot turn into its own: 50 % of a length is not known here. Commas are decimal points.
 */
export function parseNumber(text: string, unit = ''): number | null {
  // Marks of direction stand before a sign in text that runs from right to left.
  const found = /^\s*([-+−]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*([^\d\s]*)\s*$/.exec(text.replace(/[\u200e\u200f\u061c]/g, ''))
  if (found === null) return null
  const value = Number(found[1]!.replace(',', '.').replace('−', '-'))
  const typed = found[2]!.toLowerCase()
  const own = unit.trim().toLowerCase()
  if (typed === '' || typed === own) return value
  const from = UNITS[typed]
  const to = own === '' ? (['share', 1] as const) : UNITS[own]
  if (from === undefined || to === undefined || from[0] !== to[0]) return null
  return (value * from[1]) / to[1]
}
