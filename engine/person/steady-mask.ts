// Steadies masks over time without trailing behind movement.

/** Share of the newest mask where it hardly differs from the last, and where it differs much. */
const CALM = 0.25
const MOVING = 1
/** Differences up to here are flicker, from there on movement. */
const FLICKER = 0.12
const MOVEMENT = 0.4

/** Moves `steady` towards `newest`, in place: slowly where they nearly agree, at once where something moved. */
export function steadyMask(steady: Float32Array, newest: Float32Array): void {
  for (let i = 0; i < steady.length; i += 1) {
    const difference = newest[i]! - steady[i]!
    const size = Math.abs(difference)
    const share = size <= FLICKER ? CALM : size >= MOVEMENT ? MOVING : CALM + ((MOVING - CALM) * (size - FLICKER)) / (MOVEMENT - FLICKER)
    steady[i]! += difference * share
  }
}
