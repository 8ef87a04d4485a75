import type { backgroundWords as english } from '../en/backgrounds.ts'
import type { Words } from '../words.ts'

export const backgroundWords: Words<typeof english> = {
  backgrounds: {
    title: 'Hintergrund',
    choose: 'Hintergrund wählen',
    favourites: 'Lieblingshintergründe',
    none: 'Einen Hintergrund mit dem Stern markieren, dann ist er hier mit einem Druck da.',
    drawnTitle: 'In Ihren Farben gezeichnet',
    movingTitle: 'Bewegt',
    ownTitle: 'In dieser Show',
    styleHint: 'Alle gezeichneten Hintergründe folgen ihnen.',
    making: 'Er wird in Ihren Farben gezeichnet. Das dauert einige Sekunden.',
    favour: '{name} merken',
    unfavour: '{name} nicht mehr merken',
    drawn: {
      dusk: 'Dämmerung',
      glow: 'Schein',
      dunes: 'Dünen',
      folds: 'Falten',
      panes: 'Fensterlicht',
      shelf: 'Bücherregal',
      chips: 'Terrazzo',
      arches: 'Bögen',
      hills: 'Hügel',
      graph: 'Kariertes Papier',
      slats: 'Lamellen',
      ripples: 'Wellenringe',
      leaves: 'Blätter',
      skyline: 'Häuser am Abend',
    },
    moving: { drift: 'Wanderndes Licht', tide: 'Gezeiten', motes: 'Schwebende Lichter' },
  },
}
