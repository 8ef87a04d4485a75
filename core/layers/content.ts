import type { Content, LayerContext } from './layer.ts'

const byContents = new WeakMap<readonly Content[], ReadonlyMap<string, Content>>()

/** A content of a show; undefined for an unknown id. */
export function contentOf({ contents }: Pick<LayerContext, 'contents'>, contentId: string): Content | undefined {
  let byId = byContents.get(contents)
  if (byId === undefined) byContents.set(contents, (byId = new Map(contents.map((content) => [content.id, content]))))
  return byId.get(contentId)
}
