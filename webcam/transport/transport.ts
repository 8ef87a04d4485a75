/** Carries signalling messages as plain data; where they go is the transport's business. */
export interface Transport<Out, In> {
  send(message: Out): void
  /** Called for every message. One listener. */
  onMessage: ((message: In) => void) | null
  /** Called when the other side can be reached, or no longer can. */
  onState: ((isOpen: boolean) => void) | null
  close(): void
}
