// Live pictures handed to the engine, by the input that they belong to.
import type { LiveSupply } from '../protocol.ts'
import type { EngineLink } from './engine-link.ts'

export class InputCalls {
  readonly #link: EngineLink
  /** The number of each input's newest supply. */
  readonly #newest = new Map<string, number>()
  #supplies = 0

  constructor(link: EngineLink) {
    this.#link = link
  }

  /** Gives an input's pictures to the worker, which owns them from now on. `setsBeat`: whether the feed may follow them. */
  supply(inputId: string, supply: LiveSupply, setsBeat: boolean): void {
    const serial = (this.#supplies += 1)
    this.#newest.set(inputId, serial)
    this.#link.post({ type: 'supply', inputId, supply, serial, setsBeat }, [supply.type === 'stream' ? supply.readable : supply.port])
  }

  drop(inputId: string): void {
    this.#newest.delete(inputId)
    this.#link.post({ type: 'supplyGone', inputId })
  }

  /** Whether a supply is the one that its input has now: what is told of an earlier one may arrive after it. */
  isNewest(inputId: string, serial: number): boolean {
    return this.#newest.get(inputId) === serial
  }

  /** Holds an input's picture still while true. */
  freeze(inputId: string, isFrozen: boolean): void {
    this.#link.post({ type: 'freeze', inputId, isFrozen })
  }
}
