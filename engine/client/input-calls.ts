// Live pictures handed to the engine, by the input that they belong to.
import type { LiveSupply } from '../protocol.ts'
import type { EngineLink } from './engine-link.ts'

export class InputCalls {
  readonly #link: EngineLink

  constructor(link: EngineLink) {
    this.#link = link
  }

  /** Gives an input's pictures to the worker, which owns them from now on. `setsBeat`: whether the feed may follow them. */
  supply(inputId: string, supply: LiveSupply, setsBeat: boolean): void {
    this.#link.post({ type: 'supply', inputId, supply, setsBeat }, [supply.type === 'stream' ? supply.readable : supply.port])
  }

  drop(inputId: string): void {
    this.#link.post({ type: 'supplyGone', inputId })
  }

  /** Holds an input's picture still while true. */
  freeze(inputId: string, isFrozen: boolean): void {
    this.#link.post({ type: 'freeze', inputId, isFrozen })
  }
}
