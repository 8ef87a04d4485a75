import type { nextStepWords as english } from '../en/next-step.ts'
import type { Words } from '../words.ts'

export const nextStepWords: Words<typeof english> = {
  nextStep: {
    dismiss: 'Nicht mehr vorschlagen',
    title: {
      cleanUp: '{name} bearbeiten',
      text: 'Namen oder Titel hinzufügen',
      scene: 'Eine zweite Szene hinzufügen',
      feed: 'Auf Sendung gehen',
    },
    why: {
      cleanUp: 'Hintergrund entfernen, zuschneiden, Licht richten.',
      text: 'So sehen alle, wer spricht.',
      scene: 'Beim Sprechen zwischen Szenen wechseln.',
      feed: '„Feed starten“ drücken, dann im Meeting „Green Room Camera“ wählen.',
    },
    act: { cleanUp: 'In der Werkbank öffnen', text: 'Text hinzufügen', scene: 'Szene hinzufügen' },
  },
}
