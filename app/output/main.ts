// The output window: the feed and nothing else, for "share a window" or a second screen; the holding card while there is none.
import '@fontsource-variable/bricolage-grotesque'
import '@fontsource-variable/instrument-sans'
import { drawHoldingCard } from '../../core/card/holding-card.ts'
import { languageFor, languageOf, type Catalogue } from '../locales/languages.ts'
import en from '../locales/en/index.ts'
import type {} from '../outputs/outputs.store.ts'

const LOOK_EVERY_MS = 250
const STILL_AFTER_MS = 2500

const video = document.querySelector<HTMLVideoElement>('#feed')!
const card = document.querySelector<HTMLCanvasElement>('#card')!
let shown: MediaStreamTrack | null = null
let stillTimer = 0

/** Words in the language of the studio that opened this window; in English where that cannot be loaded. */
async function say(): Promise<void> {
  const tag = languageFor(localStorage.getItem('green-room:language') ?? 'auto', navigator.languages)
  const { load, direction } = languageOf(tag)
  document.documentElement.lang = tag
  document.documentElement.dir = direction
  write(await load().catch(() => en))
}

function write({ outputs }: Catalogue): void {
  document.title = outputs.windowTitle
  // A picture from the moment on in which it has a name.
  card.role = 'img'
  card.setAttribute('aria-label', outputs.card)
  video.setAttribute('aria-label', outputs.feed)
  document.querySelector('#hint')!.textContent = outputs.fullScreen
}

function drawCard(): void {
  card.width = 1280
  card.height = 720
  drawHoldingCard(
    card.getContext('2d', { willReadFrequently: true })!,
    card.width,
    card.height,
    'Back in a moment',
    '',
    "'Bricolage Grotesque Variable', sans-serif",
  )
}

/** The studio's feed; null when it does not run, or the studio is gone. */
function feedTrack(): MediaStreamTrack | null {
  try {
    return (window.opener as Window | null)?.greenRoomFeed?.() ?? null
  } catch {
    return null
  }
}

/** Follows the studio, which may stop, start, or be loaded anew. */
function follow(): void {
  const track = feedTrack()
  const live = track?.readyState === 'live' ? track : null
  if (live === shown) return
  for (const old of (video.srcObject as MediaStream | null)?.getTracks() ?? []) old.stop()
  shown = live
  video.srcObject = live === null ? null : new MediaStream([live.clone()])
  video.hidden = live === null
}

function stir(): void {
  document.body.classList.remove('is-still')
  window.clearTimeout(stillTimer)
  stillTimer = window.setTimeout(() => document.body.classList.add('is-still'), STILL_AFTER_MS)
}

function toggleFullScreen(): void {
  void (document.fullscreenElement === null ? document.documentElement.requestFullscreen() : document.exitFullscreen())
}

document.addEventListener('mousemove', stir)
document.addEventListener('dblclick', toggleFullScreen)
document.addEventListener('keydown', ({ key }) => {
  if (key === 'f') toggleFullScreen()
})
void document.fonts.load("700 58px 'Bricolage Grotesque Variable'").then(drawCard, drawCard)
drawCard()
write(en)
void say()
video.hidden = true
stir()
follow()
window.setInterval(follow, LOOK_EVERY_MS)
