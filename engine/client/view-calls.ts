// Canvases that the engine draws into.
import type { ViewRequest } from '../protocol.ts'
import type { EngineLink } from './engine-link.ts'

export class ViewCalls {
  readonly #link: EngineLink

  constructor(link: EngineLink) {
    this.#link = link
  }

  /** Lets the engine draw into a canvas. Returns the view's id. */
  open(canvas: OffscreenCanvas, request: ViewRequest): string {
    const viewId = `view-${this.#link.nextId()}`
    this.#link.post({ type: 'openView', viewId, canvas, request }, [canvas])
    return viewId
  }

  change(viewId: string, request: ViewRequest): void {
    this.#link.post({ type: 'changeView', viewId, request })
  }

  close(viewId: string): void {
    this.#link.post({ type: 'closeView', viewId })
  }

  /** Nothing is drawn for a hidden page. */
  setPageHidden(isHidden: boolean): void {
    this.#link.post({ type: 'pageHidden', isHidden })
  }
}
