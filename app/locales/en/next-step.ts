/** Words of what the inspector suggests to do next. */
export const nextStepWords = {
  nextStep: {
    dismiss: 'Do not suggest this again',
    title: {
      cleanUp: 'Clean up {name}',
      text: 'Add your name or a title',
      scene: 'Add a second scene',
      feed: 'Go on air',
    },
    why: {
      cleanUp: 'Remove the background, crop, and fix the light.',
      text: 'Viewers see who is speaking.',
      scene: 'Switch between scenes while you speak.',
      feed: 'Press Start feed, then choose Green Room Camera in your meeting.',
    },
    act: { cleanUp: 'Open in Bench', text: 'Add text', scene: 'Add scene' },
  },
}
