/** Words of how scenes follow each other. */
export const transitionWords = {
  transitions: {
    title: 'Transition',
    own: 'Into this scene',
    usual: 'Default for this show',
    asUsual: 'Default ({name})',
    after: 'After {name}',
    addPair: 'After a certain scene',
    noPair: 'Remove the transition after {name}',
    play: 'Play on the stage: {name}',
    picture: 'Picture',
    colour: 'Colour',
    direction: 'Direction',
    softness: 'Softness',
    kinds: {
      cut: 'Cut',
      dissolve: 'Dissolve',
      wipe: 'Wipe',
      push: 'Push',
      dip: 'Dip to colour',
      grow: 'Grow',
      pictureWipe: 'Picture wipe',
      glide: 'Glide',
    },
  },
}
