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
}
