// The older form of constraints, `{ mandatory: {…}, optional: [{…}] }`, which old adapters still use: read as the standard's.

type LegacySet = Readonly<Record<string, unknown>>

const RANGES: Readonly<Record<string, readonly [string, 'min' | 'max']>> = {
  minWidth: ['width', 'min'],
  maxWidth: ['width', 'max'],
  minHeight: ['height', 'min'],
  maxHeight: ['height', 'max'],
  minFrameRate: ['frameRate', 'min'],
  maxFrameRate: ['frameRate', 'max'],
  minAspectRatio: ['aspectRatio', 'min'],
  maxAspectRatio: ['aspectRatio', 'max'],
}

/** The constraints in the standard's form; those that have it already come back unchanged. */
export function standardConstraints<Part extends boolean | MediaTrackConstraints | undefined>(part: Part): Part | MediaTrackConstraints {
  if (typeof part !== 'object' || part === null || !('mandatory' in part || 'optional' in part)) return part
  const { mandatory, optional } = part as { mandatory?: LegacySet; optional?: readonly LegacySet[] }
  return { ...setOf(mandatory ?? {}), ...(Array.isArray(optional) ? { advanced: optional.map(setOf) } : {}) }
}

function setOf(legacy: LegacySet): MediaTrackConstraints {
  const set: Record<string, Record<string, unknown>> = {}
  for (const [name, value] of Object.entries(legacy)) {
    const range = RANGES[name]
    if (range !== undefined) set[range[0]] = { ...set[range[0]], [range[1]]: value }
    else if (name === 'sourceId') set['deviceId'] = { exact: value }
  }
  return set as MediaTrackConstraints
}
