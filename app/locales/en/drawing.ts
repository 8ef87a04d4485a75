/** Words of drawing over pages and scenes. */
export const drawingWords = {
  drawing: {
    area: 'Draw on the stage',
    areaKeys: 'Arrow keys move the pen, Space puts it down and lifts it, Escape ends drawing.',
    bar: 'Drawing',
    tools: 'Pens',
    tool: { pen: 'Pen', marker: 'Marker', line: 'Line', arrow: 'Arrow', rectangle: 'Box', ellipse: 'Ellipse', eraser: 'Eraser' },
    colour: 'Colour',
    colourOf: 'Colour {n}, {colour}',
    width: 'Width',
    widths: { fine: 'Fine', medium: 'Medium', broad: 'Broad' },
    fades: 'Fade strokes after 4 seconds',
    undo: 'Take back the last stroke',
    redo: 'Put the stroke back',
    done: 'Stop drawing',
    layer: 'Drawing',
    kept: 'The drawing is part of the show now.',
    full: 'This page holds no more strokes. Clear the drawing, or keep it and go on with a new page.',
    clearPage: 'Remove the drawing of this page',
    onPage: '1 stroke is kept on this page | {count} strokes are kept on this page',
  },
}
