import type { LiveState } from '../../engine/live/live-state.ts'
import type { LiveSupply } from '../../engine/protocol.ts'

/** Where live inputs put their pictures and their states. */
export interface LiveSink {
  /** `setsBeat`: whether the feed may follow these pictures. */
  readonly supply: (inputId: string, supply: LiveSupply, setsBeat: boolean) => void
  readonly drop: (inputId: string) => void
  readonly tell: (inputId: string, state: LiveState) => void
}
