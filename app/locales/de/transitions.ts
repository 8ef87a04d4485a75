import type { transitionWords as english } from '../en/transitions.ts'
import type { Words } from '../words.ts'

export const transitionWords: Words<typeof english> = {
  transitions: {
    title: 'Übergang',
    own: 'In diese Szene',
    usual: 'Standard dieser Show',
    asUsual: 'Standard ({name})',
    after: 'Nach {name}',
    addPair: 'Nach einer bestimmten Szene',
    noPair: 'Übergang nach {name} entfernen',
    play: 'Auf der Bühne abspielen: {name}',
    picture: 'Bild',
    colour: 'Farbe',
    direction: 'Richtung',
    softness: 'Weichheit',
    kinds: {
      cut: 'Schnitt',
      dissolve: 'Überblenden',
      wipe: 'Wischen',
      push: 'Schieben',
      dip: 'Über eine Farbe',
      grow: 'Aufziehen',
      pictureWipe: 'Wischen nach Bild',
      glide: 'Gleiten',
    },
  },
}
