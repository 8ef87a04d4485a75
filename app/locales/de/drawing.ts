/** Words of drawing over pages and scenes. */
export const drawingWords = {
  drawing: {
    area: 'Auf der Bühne zeichnen',
    areaKeys: 'Pfeiltasten bewegen den Stift, die Leertaste setzt ihn auf und hebt ihn ab, Escape beendet das Zeichnen.',
    bar: 'Zeichnen',
    tools: 'Stifte',
    tool: { pen: 'Stift', marker: 'Textmarker', line: 'Linie', arrow: 'Pfeil', rectangle: 'Kasten', ellipse: 'Ellipse', eraser: 'Radierer' },
    colour: 'Farbe',
    colourOf: 'Farbe {n}, {colour}',
    width: 'Breite',
    widths: { fine: 'Fein', medium: 'Mittel', broad: 'Breit' },
    fades: 'Striche nach 4 Sekunden verblassen lassen',
    undo: 'Letzten Strich zurücknehmen',
    redo: 'Strich wiederherstellen',
    done: 'Zeichnen beenden',
    layer: 'Zeichnung',
    kept: 'Die Zeichnung gehört jetzt zur Show.',
    full: 'Auf diese Seite passen keine weiteren Striche. Löschen Sie die Zeichnung, oder behalten Sie sie und nehmen Sie eine neue Seite.',
    clearPage: 'Zeichnung dieser Seite entfernen',
    onPage: '1 Strich gehört zu dieser Seite | {count} Striche gehören zu dieser Seite',
  },
}
