// A camera's own controls, as its driver offers them through the browser (W3C Image Capture).

/** A number that the camera can be set to. */
export interface RangeControl {
  readonly name: RangeName
  readonly min: number
  readonly max: number
  readonly step: number
  readonly value: number
  /** The control that says whether the camera sets this number itself; null when nothing does. */
  readonly mode: ModeName | null
}

/** What the camera can do by itself or hold. */
export interface ModeControl {
  readonly name: ModeName
  readonly options: readonly string[]
  readonly value: string
}

export interface CameraControls {
  readonly ranges: readonly RangeControl[]
  readonly modes: readonly ModeControl[]
  /** Controls that were to be held at a value and stand at another: the camera refused. */
  readonly refused: readonly string[]
}

const MODES = ['exposureMode', 'focusMode', 'whiteBalanceMode', 'powerLineFrequency'] as const
/** In the order to try them: light first, then focus and colour, then framing. */
const RANGES = ['exposureTime', 'iso', 'exposureCompensation', 'focusDistance', 'colorTemperature', 'zoom', 'pan', 'tilt'] as const
export type ModeName = (typeof MODES)[number]
export type RangeName = (typeof RANGES)[number]

const MODE_OF: Readonly<Partial<Record<RangeName, ModeName>>> = {
  exposureTime: 'exposureMode',
  iso: 'exposureMode',
  focusDistance: 'focusMode',
  colorTemperature: 'whiteBalanceMode',
}

type Loose = Readonly<Record<string, unknown>>

/** The controls a track offers; empty lists for a camera without. */
export function controlsOf(capabilities: object, settings: object): CameraControls {
  const can = capabilities as Loose
  const now = settings as Loose
  const modes = MODES.flatMap((name): ModeControl[] => {
    const options = can[name]
    if (!Array.isArray(options) || options.length < 2) return []
    return [{ name, options: options.map(String), value: String(now[name] ?? options[0]) }]
  })
  const ranges = RANGES.flatMap((name): RangeControl[] => {
    const range = can[name] as { min?: unknown; max?: unknown; step?: unknown } | undefined
    if (typeof range?.min !== 'number' || typeof range.max !== 'number' || range.max <= range.min) return []
    const step = typeof range.step === 'number' && range.step > 0 ? range.step : (range.max - range.min) / 100
    const value = typeof now[name] === 'number' ? now[name] : range.min
    const mode = MODE_OF[name]
    return [{ name, min: range.min, max: range.max, step, value, mode: modes.some((control) => control.name === mode) ? mode! : null }]
  })
  return { ranges, modes, refused: [] }
}

/** Which of the `held` values a camera that offers and stands as `now` did not take. Values that it does not offer are none of them. */
export function refusedOf(held: Readonly<Record<string, number | string>>, now: CameraControls): string[] {
  const modes = now.modes.filter(({ name, value }) => typeof held[name] === 'string' && held[name] !== value)
  const ranges = now.ranges.filter(({ name, min, max, step, value }) => {
    const wanted = held[name]
    // Cameras take steps.
    return typeof wanted === 'number' && Math.abs(Math.min(max, Math.max(min, wanted)) - value) > step
  })
  return [...modes, ...ranges].map(({ name }) => name)
}

/**
 * Constraints that hold the given values. Modes come first: a camera refuses a number while it sets it itself. Values
 * the camera doesn't offer any more are left out.
 */
export function constraintsFor(held: Readonly<Record<string, number | string>>, offered: CameraControls): MediaTrackConstraints {
  const modes = offered.modes
    .filter(({ name, options }) => typeof held[name] === 'string' && options.includes(held[name]))
    .map(({ name }) => ({ [name]: held[name] }))
  const ranges = offered.ranges
    .filter(({ name }) => typeof held[name] === 'number')
    .map(({ name, min, max }) => ({ [name]: Math.min(max, Math.max(min, held[name] as number)) }))
  return { advanced: [...modes, ...ranges] as MediaTrackConstraintSet[] }
}
