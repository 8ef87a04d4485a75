/** The value below which `share` (0..1) of the numbers lie. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((first, second) => first - second)
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? Number.NaN
}
