/** Words of the devices page, of the extension, and of the sites that ask for the feed. */
export const deviceWords = {
  sites: {
    ask: '{site} wants your picture and sound',
    wants: 'opened the Green Room devices. May it have your picture and sound? Until you answer it shows the holding card.',
    more: 'One more page waits. | {count} more pages wait.',
    once: 'This time',
    always: 'Always',
    notNow: 'Not now',
    never: 'Never',
  },
  voice: {
    level: 'Level of your voice',
    levelText: '{db} dBFS',
    clipped: 'Too loud: it clipped',
    aim: 'Speak as you will: between −18 and −6 is good.',
    mute: 'Mute your voice (M)',
    unmute: 'You are muted. Press M to speak.',
    muted: 'Muted',
    trouble: 'No sound: {what}',
    states: {
      off: 'none chosen',
      starting: 'starting',
      live: 'live',
      refused: 'not allowed',
      busy: 'held by another program',
      missing: 'missing',
      unplugged: 'unplugged',
      failed: 'it does not answer',
      resting: 'at rest',
    },
  },
}
