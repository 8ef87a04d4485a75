declare module 'linebreak' {
  /** Unicode Standard Annex 14, break by break. */
  export default class LineBreaker {
    constructor(text: string)
    nextBreak(): { readonly position: number; readonly required: boolean } | null
  }
}
