/** Names a picture that an executor is given: "input:ID", "page:ID:PAGE", "text:KEY", "outline:KEY" or "colour:#rrggbb". */
export type SourceId = string

/** Size of a source that has a picture, and whether every pixel of it is opaque. */
export interface SourceInfo {
  readonly widthPx: number
  readonly heightPx: number
  readonly isOpaque: boolean
}

/** Sizes of the sources that have a picture now. */
export type SourceInfos = ReadonlyMap<SourceId, SourceInfo>
