// Sends a file and tells how much of it has left: `fetch` cannot tell that.

export interface Sending {
  /** Hears how much of the file is sent, from 0 to 1. */
  readonly onShare?: (share: number) => void
  /** Gives the sending up. */
  readonly signal?: AbortSignal
}

export interface Answer {
  readonly status: number
  /** What the server said; null when it was no JSON. */
  readonly body: unknown
}

/** Posts a file. Rejects with a TypeError when the server cannot be reached, and with an AbortError when it is given up. */
export function sendFile(path: string, file: Blob, { onShare, signal }: Sending = {}): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    const abort = () => request.abort()
    const over = () => signal?.removeEventListener('abort', abort)
    request.open('POST', path)
    request.setRequestHeader('content-type', 'application/octet-stream')
    request.upload.onprogress = ({ loaded, total }) => onShare?.(total === 0 ? 1 : loaded / total)
    request.onload = () => {
      over()
      resolve({ status: request.status, body: parsed(request.responseText) })
    }
    request.onerror = () => {
      over()
      reject(new TypeError('The server cannot be reached.'))
    }
    request.onabort = () => {
      over()
      reject(new DOMException('Given up.', 'AbortError'))
    }
    if (signal?.aborted === true) return reject(new DOMException('Given up.', 'AbortError'))
    signal?.addEventListener('abort', abort)
    request.send(file)
  })
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    // What stands between may answer with a page; the status says enough.
    return null
  }
}
