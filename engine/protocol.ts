// What the page and the engine's worker say to each other. One union each way, switched exhaustively.
import type { Transition } from '../core/transitions/index.ts'
import type { DocumentChange } from '../core/patch/document-sync.ts'
import type { ProgrammeMessage } from '../core/programme/programme.ts'
import type { SourceId, SourceInfo } from '../core/picture/source.ts'
import type { YcbcrMatrix } from '../core/colour/ycbcr.ts'
import type { KeyFigures } from '../core/matte/figures.ts'
import type { SeenPicture } from '../core/sync/clap-picture.ts'
import type { RgbaPicture } from '../core/picture/picture.ts'
import type { Clipping, CountGrid, Histogram } from '../core/scopes/scopes.ts'
import type { Content, Scene, Show } from '../core/show/show.ts'
import type { FaceFile } from '../core/text/typefaces.ts'
import type { OutputId } from '../core/plan/frame-plan.ts'
import type { ExecutorPin, ExecutorState } from './executors.ts'
import type { OutputOrder } from './output-order.ts'
import type { OutputStats } from './worker/output.ts'

/** A layer of a scene. */
export interface LayerPlace {
  readonly sceneId: string
  readonly layerId: string
}

/** What a view plays: how a scene's layers come in or leave, and how it follows another. */
export interface ViewCue {
  /** Another number plays it again. */
  readonly number: number
  readonly way: 'enter' | 'leave'
  /** The scene that it follows, and how; without: it is the only one. */
  readonly from?: { readonly sceneId: string; readonly transition: Transition }
  /** This moment is held, in ms from the beginning; without: it plays. */
  readonly atMs?: number
}

/** A picture that the page wants to see, drawn into a canvas it handed over. */
export type ViewRequest =
  /** A whole scene. `isSmall` views are drawn a few times a second. `under`: another scene that it is laid over, as graphics are.
   *  With a `cue` it plays. */
  | { readonly kind: 'scene'; readonly sceneId: string; readonly isSmall: boolean; readonly under?: string; readonly cue?: ViewCue }
  /** One layer of a scene where it stands, the rest clear. Always small. */
  | { readonly kind: 'layer'; readonly sceneId: string; readonly layerId: string }
  /** One input: as it comes, treated (over nothing), or its matte. */
  | {
      readonly kind: 'input'
      readonly inputId: string
      readonly stage: 'before' | 'after' | 'matte'
      readonly isSmall: boolean
      /** A layer whose own treatment is added, as its scene shows it. */
      readonly layer?: LayerPlace | null
      /** Whether pixels at the ends of the scale are painted over. */
      readonly showsClipping?: boolean
    }
  /** A scene of the open show as it would be, and contents that it would have besides. Always small. */
  | { readonly kind: 'draft'; readonly scene: Scene; readonly contents: readonly Content[] }
  /** What the audience is being sent. */
  | { readonly kind: 'air' }

/** Where the files of the person model lie. */
export interface PersonFiles {
  /** Folder of the vision runtime. */
  readonly runtimeUrl: string
  readonly modelUrl: string
}

/** Where live pictures come from: a track of the browser's, or a worker that posts buffers. */
export type LiveSupply = { readonly type: 'stream'; readonly readable: ReadableStream<VideoFrame> } | { readonly type: 'port'; readonly port: MessagePort }

export type ToEngine =
  | {
      readonly type: 'start'
      readonly wasmUrl: string
      readonly fonts: readonly FaceFile[]
      readonly assetUrlPrefix: string
      readonly personFiles: PersonFiles
      readonly pin: ExecutorPin
      /** Name of a lock that the worker holds as long as it lives: the browser gives it on when it is gone. */
      readonly lifeLock: string
    }
  /** A show, whole, or an edit of it. It is drawn once it is open, or a scene of it is on air. */
  | { readonly type: 'document'; readonly showId: string; readonly change: DocumentChange<Show> }
  | { readonly type: 'dropDocument'; readonly showId: string }
  | { readonly type: 'openShow'; readonly showId: string }
  /** Changes what is on air. */
  | { readonly type: 'programme'; readonly message: ProgrammeMessage }
  /** `setsBeat`: whether its pictures come so regularly that the feed may follow them. */
  | { readonly type: 'supply'; readonly inputId: string; readonly supply: LiveSupply; readonly serial: number; readonly setsBeat: boolean }
  | { readonly type: 'supplyGone'; readonly inputId: string }
  | { readonly type: 'openView'; readonly viewId: string; readonly canvas: OffscreenCanvas; readonly request: ViewRequest }
  | { readonly type: 'changeView'; readonly viewId: string; readonly request: ViewRequest }
  | { readonly type: 'closeView'; readonly viewId: string }
  | { readonly type: 'pageHidden'; readonly isHidden: boolean }
  | { readonly type: 'freeze'; readonly inputId: string; readonly isFrozen: boolean }
  | { readonly type: 'openOutput'; readonly order: OutputOrder; readonly writable: WritableStream<VideoFrame> }
  | { readonly type: 'closeOutput'; readonly id: OutputId }
  | { readonly type: 'pinExecutor'; readonly pin: ExecutorPin }
  /** Takes the graphics card away, or gives it back, as its driver may at any time; for measurements. */
  | { readonly type: 'simulateLoss'; readonly isLost: boolean }
  /** Tell what moves in a camera's pictures, for finding claps; null: no longer. */
  | { readonly type: 'watchMotion'; readonly inputId: string | null }
  /** Measure what the scopes show, a few times a second, until told otherwise. */
  | { readonly type: 'watch'; readonly inputId: string | null; readonly layer: LayerPlace | null }
  /** Ask for a whole picture of an input as it reaches a step (null: as it comes). */
  | { readonly type: 'grab'; readonly requestId: number; readonly inputId: string; readonly beforeStepId: string | null; readonly layer: LayerPlace | null }
  /** Ask for a still of a scene of any show, so wide; it is no use any more: say so. */
  | { readonly type: 'cover'; readonly requestId: number; readonly show: Show; readonly sceneId: string; readonly widthPx: number }
  | { readonly type: 'dropCover'; readonly requestId: number }
  /** Ask for the colour at (x, y), 0..1 across the untreated picture. */
  | {
      readonly type: 'pick'
      readonly requestId: number
      readonly inputId: string
      readonly x: number
      readonly y: number
      readonly beforeStepId: string | null
      /** A layer whose own treatment is added, as its scene shows it. */
      readonly layer: LayerPlace | null
    }

/** Figures of the last second or so. */
export interface EngineStats {
  readonly feed: OutputStats & {
    readonly widthPx: number
    readonly heightPx: number
    /** Whether only every second frame is made, because the machine cannot hold the rate. */
    readonly isHalved: boolean
  }
  /** Outputs beside the feed, by their ids. */
  readonly outputs: Readonly<Record<OutputId, OutputStats>>
  /** Mean time to make a frame. */
  readonly frameMs: number
  /** Of it, what the picture on air takes until it leaves; 0 before there was one. */
  readonly airMs: number
  /** The longest that words and forms held up one tick since the feed began. */
  readonly longestRasterMs: number
  /** VideoFrames made or received and not yet closed or handed over. */
  readonly liveFrames: number
  readonly inputs: Readonly<Record<string, { readonly fps: number; readonly widthPx: number; readonly heightPx: number; readonly frameNumber: number }>>
}

/** What the scopes show of a treated input. */
export interface Scopes {
  readonly histogram: Histogram
  readonly waveform: CountGrid
  readonly vectorscope: CountGrid
  readonly clipping: Clipping
  /** How good the key is; null for a chain without one. */
  readonly key: KeyFigures | null
}

export type FromEngine =
  | { readonly type: 'alive' }
  | { readonly type: 'ready' }
  /** Another executor makes the pictures from now on, or the same for another reason. */
  | { readonly type: 'executor'; readonly state: ExecutorState }
  | { readonly type: 'firstPicture' }
  | { readonly type: 'sources'; readonly infos: readonly (readonly [SourceId, SourceInfo])[] }
  | { readonly type: 'stats'; readonly stats: EngineStats }
  | { readonly type: 'picked'; readonly requestId: number; readonly colour: string | null }
  /** Null where the scene cannot be drawn. */
  | { readonly type: 'covered'; readonly requestId: number; readonly picture: RgbaPicture | null }
  | { readonly type: 'grabbed'; readonly requestId: number; readonly picture: RgbaPicture | null }
  | { readonly type: 'scopes'; readonly inputId: string; readonly scopes: Scopes }
  | { readonly type: 'motion'; readonly sample: SeenPicture }
  | { readonly type: 'personFailed'; readonly reason: string }
  | { readonly type: 'assetFailed'; readonly asset: string; readonly reason: string }
  /** `fault`: why its pictures cannot be read any more; null when the device or the window is simply gone. */
  | { readonly type: 'supplyEnded'; readonly inputId: string; readonly serial: number; readonly fault: string | null }
  /** A frame could not be made; the next ones are tried all the same. Told once for each reason. */
  | { readonly type: 'faulted'; readonly reason: string }
  | { readonly type: 'failed'; readonly reason: string }

/** What a stand-in or a clip posts through its port; the buffer comes back for reuse. */
export interface PortFrame {
  /** -1 where frames have none. */
  readonly frameNumber: number
  /** Of a clip: where in its file the picture begins. */
  readonly mediaUs?: number
  /** How its codes are meant; I420 of BT.709 in limited range, as stand-ins draw, when nothing is said. RGBA is straight. */
  readonly codes?: { readonly format: 'i420'; readonly matrix: YcbcrMatrix; readonly range: 'limited' | 'full' } | { readonly format: 'rgba' }
  readonly widthPx: number
  readonly heightPx: number
  readonly data: Uint8Array<ArrayBuffer>
}
