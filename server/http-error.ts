/** A failure the caller can act on: what went wrong and how to put it right. */
export class HttpError extends Error {
  readonly status: number
  /** A short word for programs, such as "show-not-found". */
  readonly code: string
  /** One line for each field at fault. */
  readonly details: readonly string[]

  constructor(status: number, code: string, message: string, details: readonly string[] = []) {
    super(message)
    this.status = status
    this.code = code
    this.details = details
  }
}
