// Which camera a page asks for, by the rules of W3C Media Capture and Streams §5 and §11.

/** What the virtual camera can be asked about. */
export interface CameraFacts {
  readonly deviceId: string
  readonly groupId: string
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
}

/** 'ours', 'other' (a real camera), or 'any' when the page does not say. */
export type Wish = 'ours' | 'other' | 'any'

/** Reads the wish from the video part of getUserMedia's argument. */
export function wishOf(video: boolean | MediaTrackConstraints | undefined, deviceId: string): Wish | 'none' {
  if (video === undefined || video === false) return 'none'
  if (video === true) return 'any'
  const sets: MediaTrackConstraintSet[] = [video, ...(video.advanced ?? [])]
  const ids = sets.flatMap((set) => deviceIdsOf(set.deviceId))
  if (ids.length === 0) return 'any'
  return ids.includes(deviceId) ? 'ours' : 'other'
}

function deviceIdsOf(wish: ConstrainDOMString | undefined): string[] {
  if (wish === undefined) return []
  if (typeof wish === 'string') return [wish]
  if (Array.isArray(wish)) return wish
  return [wish.exact, wish.ideal].flatMap((part) => (part === undefined ? [] : part))
}

/** The first required constraint that the camera cannot meet; null when it meets all. */
export function unmetConstraint(video: MediaTrackConstraints, facts: CameraFacts): string | null {
  const numbers = { width: facts.widthPx, height: facts.heightPx, frameRate: facts.frameRate, aspectRatio: facts.widthPx / facts.heightPx }
  for (const [name, value] of Object.entries(numbers)) {
    const range = video[name as keyof typeof numbers]
    if (typeof range !== 'object' || range === null) continue
    if (range.exact !== undefined && Math.abs(range.exact - value) > 0.01) return name
    // A page may ask for less than we send, never for more.
    if (range.min !== undefined && range.min > value + 0.01) return name
    if (name === 'frameRate' && range.max !== undefined && range.max < value - 0.01) return name
  }
  const facing = video.facingMode
  if (typeof facing === 'object' && !Array.isArray(facing) && facing.exact !== undefined) return 'facingMode'
  const device = video.deviceId
  if (typeof device === 'object' && !Array.isArray(device) && device.exact !== undefined) {
    const exact = Array.isArray(device.exact) ? device.exact : [device.exact]
    if (!exact.includes(facts.deviceId)) return 'deviceId'
  }
  return null
}
