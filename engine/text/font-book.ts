// Loads the parts of typefaces that texts need, when they need them.
import { facesFor, type FaceFile } from '../../core/text/typefaces.ts'

export class FontBook {
  readonly #files: readonly FaceFile[]
  readonly #fonts: FontFaceSet
  readonly #loading = new Map<FaceFile, Promise<void>>()
  /** Files that are there, and those that cannot be had: nobody waits for these. */
  readonly #done = new Set<FaceFile>()

  constructor(files: readonly FaceFile[], fonts: FontFaceSet) {
    this.#files = files
    this.#fonts = fonts
  }

  /** Whether a text can be drawn as it should be. */
  isReady(family: string, text: string): boolean {
    return facesFor(family, text, this.#files).every((file) => this.#done.has(file))
  }

  /** Loads what a text needs. Never fails: what cannot be loaded is drawn in the next family, or the system's. */
  async load(family: string, text: string): Promise<void> {
    await Promise.all(facesFor(family, text, this.#files).map((file) => this.#loadFile(file)))
  }

  #loadFile(file: FaceFile): Promise<void> {
    const known = this.#loading.get(file)
    if (known !== undefined) return known
    const face = new FontFace(file.family, `url(${file.url})`, { weight: file.weights, unicodeRange: file.range })
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
