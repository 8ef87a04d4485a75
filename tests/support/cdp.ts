// A bare browser driven by the DevTools protocol alone: test tools keep every tab "visible", and
// what a hidden tab does is just what we want to see.
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { WebSocket } from 'ws'
import { CHROMIUM, CHROMIUM_FLAGS } from './chromium.ts'

interface Reply {
  readonly id?: number
  readonly result?: Record<string, unknown>
  readonly error?: { readonly message: string }
}

/** A page of a bare browser. */
export class BarePage {
  readonly targetId: string
  readonly #browser: BareBrowser
  readonly #sessionId: string

  constructor(browser: BareBrowser, targetId: string, sessionId: string) {
    this.#browser = browser
    this.targetId = targetId
    this.#sessionId = sessionId
  }

  /** The value of an expression, promises awaited. Throws what the page throws. */
  async evaluate<T>(expression: string): Promise<T> {
    const reply = await this.send('Runtime.evaluate', { expression, awaitPromise: true, returnByValue: true })
    const { result, exceptionDetails } = reply as { result: { value: T }; exceptionDetails?: { text: string; exception?: { description?: string } } }
    if (exceptionDetails !== undefined) throw new Error(exceptionDetails.exception?.description ?? exceptionDetails.text)
    return result.value
  }

  /** Waits until an expression is true, asking the page itself in each of its turns. */
  async until(expression: string, timeoutMs = 20_000): Promise<void> {
    const deadline = Date.now() + timeoutMs
    while (!(await this.#isTrue(expression))) {
      if (Date.now() > deadline) throw new Error(`never became true: ${expression}`)
    }
  }

  /** Asks the page once, after a tenth of a second of its own time. A page that is still loading says no. */
  async #isTrue(expression: string): Promise<boolean> {
    try {
      return await this.evaluate<boolean>(`new Promise((resolve) => setTimeout(() => resolve(Boolean(${expression})), 100))`)
    } catch (error) {
      if (error instanceof Error && /execution context|context was destroyed|navigated/i.test(error.message)) return false
      throw error
    }
  }

  /** Brings this tab to the front of its window, which hides the others. */
  async toFront(): Promise<void> {
    await this.#browser.send('Target.activateTarget', { targetId: this.targetId })
  }

  send(method: string, params: object = {}): Promise<Record<string, unknown>> {
    return this.#browser.send(method, params, this.#sessionId)
  }
}

export class BareBrowser {
  readonly #process: ChildProcess
  readonly #profile: string
  readonly #socket: WebSocket
  readonly #waiting = new Map<number, { resolve: (value: Record<string, unknown>) => void; reject: (error: Error) => void }>()
  #nextId = 1

  private constructor(child: ChildProcess, profile: string, socket: WebSocket) {
    this.#process = child
    this.#profile = profile
    this.#socket = socket
    socket.on('message', (data) => {
      const reply = JSON.parse(String(data)) as Reply
      const waiting = this.#waiting.get(reply.id ?? -1)
      if (waiting === undefined) return
      this.#waiting.delete(reply.id!)
      if (reply.error !== undefined) waiting.reject(new Error(reply.error.message))
      else waiting.resolve(reply.result ?? {})
    })
  }

  /** Of the process that started all its others. */
  get pid(): number {
    return this.#process.pid!
  }

  /** Starts a headless browser with a new profile. */
  static async launch(extraFlags: readonly string[] = []): Promise<BareBrowser> {
    const profile = mkdtempSync(path.join(tmpdir(), 'green-room-chromium-'))
    const child = spawn(
      CHROMIUM,
      ['--headless=new', '--remote-debugging-port=0', `--user-data-dir=${profile}`, '--window-size=1280,800', ...CHROMIUM_FLAGS, ...extraFlags, 'about:blank'],
      { stdio: ['ignore', 'ignore', 'pipe'] },
    )
    const url = await new Promise<string>((resolve, reject) => {
      let text = ''
      child.stderr!.on('data', (chunk: Buffer) => {
        text += chunk.toString()
        const found = /DevTools listening on (ws:\S+)/.exec(text)?.[1]
        if (found !== undefined) resolve(found)
      })
      child.once('exit', (code) => reject(new Error(`Chromium ended with ${code}: ${text.slice(-400)}`)))
    })
    const socket = new WebSocket(url, { perMessageDeflate: false })
    await new Promise<void>((resolve, reject) => socket.once('open', () => resolve()).once('error', reject))
    return new BareBrowser(child, profile, socket)
  }

  /** Opens a tab in front of the others. */
  async newPage(url: string): Promise<BarePage> {
    const { targetId } = (await this.send('Target.createTarget', { url })) as { targetId: string }
    const { sessionId } = (await this.send('Target.attachToTarget', { targetId, flatten: true })) as { sessionId: string }
    return new BarePage(this, targetId, sessionId)
  }

  send(method: string, params: object = {}, sessionId?: string): Promise<Record<string, unknown>> {
    const id = this.#nextId++
    this.#socket.send(JSON.stringify({ id, method, params, ...(sessionId === undefined ? {} : { sessionId }) }))
    return new Promise((resolve, reject) => this.#waiting.set(id, { resolve, reject }))
  }

  async close(): Promise<void> {
    const ended = new Promise((resolve) => this.#process.once('exit', resolve))
    await this.send('Browser.close').catch(() => this.#process.kill('SIGKILL'))
    await ended
    this.#socket.close()
    rmSync(this.#profile, { recursive: true, force: true, maxRetries: 5 })
  }
}
