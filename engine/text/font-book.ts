// Loads the parts of typefaces that texts need, when they need them.
import { facesFor, type FaceFile } from '../../core/text/typefaces.ts'

const STACKS_KEPT = 300

export class FontBook {
  readonly #files: readonly FaceFile[]
  readonly #fonts: FontFaceSet
  readonly #loading = new Map<FaceFile, Promise<void>>()
  /** Files that are there, and those that cannot be had: nobody waits for these. */
  readonly #done = new Set<FaceFile>()
  /** Lists that were asked for: laying a text out asks many times. */
  readonly #stacks = new Map<string, string>()

  constructor(files: readonly FaceFile[], fonts: FontFaceSet) {
    this.#files = files
    this.#fonts = fonts
  }

  /** Whether a text can be drawn as it should be. */
  isReady(family: string, text: string): boolean {
    return facesFor(family, text, this.#files).every((file) => this.#done.has(file))
  }

  /**
   * The font-family list for a text: the files it needs, each a family of its own. Under one name with unicode ranges the browser at
   * times goes on with what it knew of that name before a file came.
   */
  stackFor(family: string, text: string): string {
    const key = `${family} ${text}`
    let stack = this.#stacks.get(key)
    if (stack === undefined) {
      stack = [...facesFor(family, text, this.#files).map((file) => `"${this.#nameOf(file)}"`), 'sans-serif'].join(', ')
      if (this.#stacks.size >= STACKS_KEPT) this.#stacks.clear()
      this.#stacks.set(key, stack)
    }
    return stack
  }

  /** Loads what a text needs. Never fails: what cannot be loaded is drawn in the next family, or the system's. */
  async load(family: string, text: string): Promise<void> {
    await Promise.all(facesFor(family, text, this.#files).map((file) => this.#loadFile(file)))
  }

  #nameOf(file: FaceFile): string {
    return `${file.family} ${this.#files.indexOf(file)}`
  }

  #loadFile(file: FaceFile): Promise<void> {
    const known = this.#loading.get(file)
    if (known !== undefined) return known
    const face = new FontFace(this.#nameOf(file), `url(${file.url})`, { weight: file.weights })
    const loading = face.load().then(
      (loaded) => {
        this.#fonts.add(loaded)
        this.#done.add(file)
      },
      () => {
        // Asked for again with the next text that needs it.
        this.#loading.delete(file)
        this.#done.add(file)
      },
    )
    this.#loading.set(file, loading)
    return loading
  }
}
