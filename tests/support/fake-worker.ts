// A worker that only notes what it is sent; tests answer in its place.

/** A message as it was sent. */
export type Sent = { readonly type: string } & Readonly<Record<string, unknown>>

export class FakeWorker {
  /** All that were made, oldest first. */
  static made: FakeWorker[] = []
  readonly sent: Sent[] = []
  readonly name: string
  isTerminated = false
  onmessage: ((event: { data: unknown }) => void) | null = null
  onerror: ((event: { message: string }) => void) | null = null

  constructor(_url?: URL | string, options: { name?: string } = {}) {
    this.name = options.name ?? ''
    FakeWorker.made.push(this)
  }

  postMessage(message: Sent): void {
    this.sent.push(message)
  }

  terminate(): void {
    this.isTerminated = true
  }

  /** Answers as the worker would. */
  say(data: unknown): void {
    this.onmessage?.({ data })
  }

  /** What was sent of one type, oldest first. */
  all(type: string): Sent[] {
    return this.sent.filter((message) => message.type === type)
  }

  /** Types in the order in which they were sent. */
  get types(): string[] {
    return this.sent.map(({ type }) => type)
  }
}
