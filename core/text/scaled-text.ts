import type { TextContent } from './text-content.ts'

type TextLength = 'textSizePx' | 'outlinePx' | 'shadowOffsetPx' | 'blurPx' | 'platePaddingPx'

/** A text of another size; `at` is given each length and the range it must stay in. */
export function scaledText(content: TextContent, at: (px: number, range: TextLength) => number): TextContent {
  const { outline, shadow, plate } = content
  return {
    ...content,
    blocks: content.blocks.map((block) => ({ ...block, sizePx: at(block.sizePx, 'textSizePx') })),
    outline: outline === null ? null : { ...outline, widthPx: at(outline.widthPx, 'outlinePx') },
    shadow:
      shadow === null ? null : { ...shadow, dx: at(shadow.dx, 'shadowOffsetPx'), dy: at(shadow.dy, 'shadowOffsetPx'), blurPx: at(shadow.blurPx, 'blurPx') },
    plate: plate === null ? null : { ...plate, paddingPx: at(plate.paddingPx, 'platePaddingPx') },
  }
}
