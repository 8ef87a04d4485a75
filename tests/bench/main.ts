// npm run bench [-- --json] [--only NAME[,NAME]] [--minutes N]: figures for this machine, ratios in one run.
import { parseArgs } from 'node:util'
import { benchBlends, type BlendFigures } from './blends.ts'
import { benchChains, type ChainFigures } from './chains.ts'
import { benchDeck, type DeckFigures } from './deck.ts'
import { benchEdit, LARGE, type EditFigures } from './edit.ts'
import { benchFeed, benchRoomFeed, type FeedFigures, type RateFigures } from './feed.ts'
import { benchFeedBusy, type BusyFigures } from './feed-busy.ts'
import { benchFrame, type FrameFigures } from './frame.ts'
import { benchKeyFloor, type FloorFigures } from './key-floor.ts'
import { benchKey, type KeyBench } from './key.ts'
import { benchCost, type CostFigures } from './cost.ts'
import { benchGraphics, benchSwap, type GraphicsFigures, type SwapFigures } from './graphics.ts'
import { benchLibrary, type LibraryFigures } from './library.ts'
import { benchRasters, type RasterFigures } from './rasters.ts'
import { benchSync, type SyncFigures } from './sync.ts'
import { benchScene, type SceneFigures } from './scene.ts'
import { benchSoak, type SoakFigures } from './soak.ts'

interface BenchResult {
  frame?: Record<string, FrameFigures>
  chains?: ChainFigures
  blends?: BlendFigures
  scene?: SceneFigures
  edit?: EditFigures
  editLarge?: EditFigures
  feed?: FeedFigures
  feedExtension?: FeedFigures
  feedRoom?: RateFigures
  feedKey?: FeedFigures
  feedClip?: FeedFigures
  feedBusy?: BusyFigures
  key?: KeyBench
  keyFloor?: Record<string, FloorFigures>
  rasters?: RasterFigures
  graphics?: GraphicsFigures
  swap?: SwapFigures
  library?: LibraryFigures
  deck?: DeckFigures
  sync?: SyncFigures
  cost?: Record<string, CostFigures>
  soak?: SoakFigures
}

const NAMES = [
  'frame',
  'chains',
  'blends',
  'scene',
  'edit',
  'editLarge',
  'feed',
  'feedExtension',
  'feedRoom',
  'feedKey',
  'feedClip',
  'feedBusy',
  'rasters',
  'graphics',
  'swap',
  'library',
  'deck',
  'sync',
  'cost',
  'key',
  'keyFloor',
  'soak',
] as const
type Name = (typeof NAMES)[number]
/** The soak takes ten minutes (or --minutes), sync and the busy feed five, and the floor does not change with the code's speed: those run only when named. */
const USUAL: readonly Name[] = [
  'frame',
  'chains',
  'blends',
  'scene',
  'edit',
  'editLarge',
  'feed',
  'feedExtension',
  'feedRoom',
  'feedKey',
  'feedClip',
  'rasters',
  'graphics',
  'swap',
  'library',
  'deck',
  'cost',
  'key',
]

function readArguments(args: readonly string[]): { isJson: boolean; only: readonly Name[]; minutes: number } {
  const options = { json: { type: 'boolean', default: false }, only: { type: 'string' }, minutes: { type: 'string', default: '10' } } as const
  const { values } = parseArgs({ args: [...args], options })
  const minutes = Number(values.minutes)
  if (!(minutes >= 1)) throw new RangeError(`--minutes, how long the soak lasts, takes a number from 1 on, got "${values.minutes}"`)
  const names = values.only?.split(',') ?? USUAL
  const unknown = names.find((name) => !NAMES.includes(name as Name))
  if (unknown !== undefined) throw new RangeError(`--only takes ${NAMES.join(', ')}, got "${unknown}"`)
  return { isJson: values.json, only: names as Name[], minutes }
}

async function main(): Promise<void> {
  const { isJson, only, minutes } = readArguments(process.argv.slice(2))
  const say = (text: string) => process.stderr.write(`${text}\n`)
  const result: BenchResult = {}
  // The feed comes first: the frames that the others hold in memory would weigh on it.
  if (only.includes('feed')) result.feed = await benchFeed(say)
  if (only.includes('feedExtension')) result.feedExtension = await benchFeed(say, 'usual', 'extension')
  if (only.includes('sync')) result.sync = await benchSync(say)
  if (only.includes('cost')) result.cost = await benchCost(say)
  if (only.includes('feedRoom')) result.feedRoom = await benchRoomFeed(say)
  if (only.includes('feedKey')) result.feedKey = await benchFeed(say, 'foundKey')
  if (only.includes('feedClip')) result.feedClip = await benchFeed(say, 'clipAndScreen')
  if (only.includes('feedBusy')) result.feedBusy = await benchFeedBusy(say)
  if (only.includes('rasters')) result.rasters = await benchRasters(say)
  if (only.includes('graphics')) result.graphics = await benchGraphics(say)
  if (only.includes('swap')) result.swap = await benchSwap(say)
  if (only.includes('library')) result.library = await benchLibrary(say)
  if (only.includes('deck')) result.deck = await benchDeck(say)
  if (only.includes('edit')) result.edit = await benchEdit(say)
  if (only.includes('editLarge')) result.editLarge = await benchEdit(say, LARGE)
  if (only.includes('frame')) result.frame = await benchFrame(say)
  if (only.includes('chains')) result.chains = await benchChains(say)
  if (only.includes('blends')) result.blends = await benchBlends(say)
  if (only.includes('scene')) result.scene = await benchScene(say)
  if (only.includes('key')) result.key = await benchKey(say)
  if (only.includes('keyFloor')) result.keyFloor = await benchKeyFloor(say)
  if (only.includes('soak')) result.soak = await benchSoak(say, minutes)
  process.stdout.write(isJson ? `${JSON.stringify(result, null, 1)}\n` : tableOf(result))
}

/** Nested figures as lines "name  value". */
function tableOf(node: object, prefix = ''): string {
  return Object.entries(node)
    .map(([name, value]) => {
      if (Array.isArray(value)) return ''
      if (typeof value === 'object' && value !== null) return tableOf(value as object, `${prefix}${name} · `)
      const shown = typeof value === 'number' ? String(Number(value.toPrecision(5))) : String(value)
      return `${`${prefix}${name}`.padEnd(52)} ${shown}\n`
    })
    .join('')
}

await main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exitCode = error instanceof RangeError || error instanceof TypeError ? 2 : 1
})
