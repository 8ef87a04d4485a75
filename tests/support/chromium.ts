/** The browser that tests drive. */
export const CHROMIUM = process.env['GREEN_ROOM_CHROMIUM'] ?? '/usr/bin/chromium'

/** Flags without which a browser without network and monitor is noisy or refuses to start. */
export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-quic',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
  '--autoplay-policy=no-user-gesture-required',
] as const
