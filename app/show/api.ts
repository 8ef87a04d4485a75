import type { DeviceOutWays } from '../../webcam/device-out.ts'
import type { Patch } from '../../core/patch/patch.ts'
import type { ChainFile } from '../../core/show/schema.ts'
import type { MovingColours } from '../../core/backgrounds/moving.ts'
import type { MovingBackground } from '../../core/inputs/clip.ts'
import type { KeptGraphic } from '../../core/show/kept-graphic.ts'
import type { Show } from '../../core/show/show.ts'
import { sendFile, type Sending } from './send-file.ts'

export interface ShowSummary {
  readonly id: string
  readonly name: string
  readonly revision: number
  readonly updatedAt: string
  readonly sceneCount: number
  /** Its scenes in order, without graphics. */
  readonly scenes: readonly { readonly id: string; readonly name: string }[]
  readonly canvas: { readonly widthPx: number; readonly heightPx: number }
  /** Why the stored show cannot be read; null when it can. */
  readonly unreadable: string | null
}

export interface StoredShow {
  readonly id: string
  readonly revision: number
  /** The id of the save that made this revision. */
  readonly saveId: string | null
  readonly updatedAt: string
  readonly show: Show
}

/** As the server has it. */
const LONGEST_LABEL = 160

/** A show that was deleted and can still be brought back. */
export interface DeletedShow {
  readonly id: string
  readonly name: string
  readonly deletedAt: string
  readonly keptUntil: string
}

export interface ShowVersion {
  readonly revision: number
  readonly savedAt: string
  /** The edit that led to it; null where it is not known. */
  readonly label: string | null
  readonly sceneCount: number
  readonly layerCount: number
  readonly isReadable: boolean
}

export interface Asset {
  readonly hash: string
  readonly widthPx: number
  readonly heightPx: number
  readonly fileName: string
  readonly mimeType: string
  readonly byteLength: number
  /** Whether it has more than one picture, one after the other. */
  readonly isMoving: boolean
}

/** A named chain of steps. */
export interface Preset {
  readonly id: string
  readonly name: string
  readonly chain: ChainFile
}

/** A graphic that is kept for any show. */
export interface SavedGraphic {
  readonly id: string
  readonly name: string
  readonly graphic: KeptGraphic
}

/** What was decided for a site that asked for the feed. */
export interface Site {
  readonly origin: string
  readonly decision: 'always' | 'never'
  readonly decidedAt: string
}

/** One kept under a name that cannot be read any more. */
export interface UnreadableNamed {
  readonly id: string
  readonly name: string
  readonly reason: string
}

/** What slides say beside their pictures. */
export interface SlideFacts {
  readonly notes: readonly string[]
  readonly missingFamilies: readonly string[] | null
}

/** A picture of a page that the server keeps. */
export interface KeptPage {
  readonly hash: string
  readonly widthPx: number
  readonly heightPx: number
}

/** A refusal by the server, in its words. */
export class ApiError extends Error {
  readonly status: number
  readonly code: string

  constructor(status: number, code: string, message: string) {
    super(message)
    this.status = status
    this.code = code
  }
}

/** A server that does not answer a short request for this long counts as unreachable. */
const ANSWER_MS = 15_000

async function call<T>(path: string, init: RequestInit = {}): Promise<T> {
  const response = await fetch(`/api${path}`, init)
  if (response.status === 204) return undefined as T
  return answered<T>(response.status, await response.json().catch(() => null))
}

/** The body of an answer that is none of refusal. */
function answered<T>(status: number, body: unknown): T {
  if (status >= 200 && status < 300) return body as T
  const error = (body as { error?: { code: string; message: string } } | null)?.error
  throw new ApiError(status, error?.code ?? 'unknown', error?.message ?? `The server answered ${status}.`)
}

function sending(method: string, body: unknown): RequestInit {
  return { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body), signal: AbortSignal.timeout(ANSWER_MS) }
}

const deckPath = (what: 'pdf' | 'facts' | 'pages', fileName: string) => `/api/decks/${what}?name=${encodeURIComponent(fileName.slice(0, 200))}`

/** How many files there are, then each with its length before it; as server/decks/page-stream.ts reads them. */
function framed(files: readonly Blob[]): BlobPart[] {
  const number = (value: number) => {
    const bytes = new DataView(new ArrayBuffer(4))
    bytes.setUint32(0, value, true)
    return bytes.buffer
  }
  return [number(files.length), ...files.flatMap((file) => [number(file.size), file])]
}

/** The server's calls. All throw an ApiError when refused and a TypeError when unreachable. */
export const api = {
  deviceOutWays: () => call<DeviceOutWays>('/device-out'),
  /** Where the extension's folder is on this computer. */
  extensionFolder: async () => (await call<{ readonly folder: string }>('/extension')).folder,
  listSites: () => call<Site[]>('/sites'),
  decideSite: (origin: string, decision: Site['decision']) => call<Site[]>('/sites', sending('PUT', { origin, decision })),
  forgetSite: (origin: string) => call<Site[]>('/sites', sending('DELETE', { origin })),
  listShows: async () => (await call<{ shows: ShowSummary[] }>('/shows')).shows,
  /** Draws a moving background in these colours. */
  makeBackground: (name: MovingBackground, colours: MovingColours) => call<Asset>('/backgrounds', { ...sending('POST', { name, colours }), signal: null }),
  /** A show as one archive: where it is fetched from. */
  packageUrl: (id: string) => `/api/packages/${encodeURIComponent(id)}`,
  /** Makes a show of an archive. */
  importShow: async (file: Blob, progress: Sending = {}): Promise<StoredShow> => {
    const { status, body } = await sendFile('/api/packages', file, progress)
    return answered<StoredShow>(status, body)
  },
  unusedFiles: async () => (await call<{ files: Asset[] }>('/unused-files')).files,
  removeUnusedFiles: async (hashes: readonly string[]) => (await call<{ removed: string[] }>('/unused-files/remove', sending('POST', { hashes }))).removed,
  getShow: (id: string) => call<StoredShow>(`/shows/${encodeURIComponent(id)}`),
  /** With an `id`, asking twice makes one show. */
  createShow: (show: Show, id?: string) => call<StoredShow>('/shows', sending('POST', id === undefined ? { show } : { show, id })),
  /** `label`: what was changed, for the list of versions. */
  saveShow: (id: string, baseRevision: number, show: Show, saveId: string, label: string | null = null) =>
    call<{ revision: number }>(
      `/shows/${encodeURIComponent(id)}`,
      sending('PUT', { baseRevision, show, saveId, ...(label === null ? {} : { label: label.slice(0, LONGEST_LABEL) }) }),
    ),
  /** The same by what was changed since `baseRevision`. Refused with "patch-does-not-fit" when the server has another state. */
  patchShow: (id: string, baseRevision: number, patch: Patch, saveId: string, label: string | null = null) =>
    call<{ revision: number }>(
      `/shows/${encodeURIComponent(id)}`,
      sending('PATCH', { baseRevision, patch, saveId, ...(label === null ? {} : { label: label.slice(0, LONGEST_LABEL) }) }),
    ),
  /** Whether this computer can read slides that are no PDF. */
  isOfficeThere: async () => (await call<{ isThere: boolean }>('/decks/office')).isThere,
  /** Slides of another program as a PDF. */
  slidesAsPdf: async (file: File, signal: AbortSignal): Promise<ArrayBuffer> => {
    const response = await fetch(deckPath('pdf', file.name), { method: 'POST', body: file, signal })
    return response.ok ? response.arrayBuffer() : answered<ArrayBuffer>(response.status, await response.json().catch(() => null))
  },
  /** Notes of its pages, and typefaces that this computer does not have; null where that cannot be told. */
  slideFacts: async (file: File, signal: AbortSignal): Promise<SlideFacts> => {
    const response = await fetch(deckPath('facts', file.name), { method: 'POST', body: file, signal })
    return answered<SlideFacts>(response.status, await response.json().catch(() => null))
  },
  /** Keeps pictures of pages, all of them or none; throws an AbortError when it is given up on the way. */
  addPages: async (name: string, pages: readonly Blob[], sending?: Sending): Promise<readonly KeptPage[]> => {
    const { status, body } = await sendFile(deckPath('pages', name), new Blob(framed(pages)), sending)
    return answered<{ pages: KeptPage[] }>(status, body).pages
  },
  listDeleted: async () => (await call<{ shows: DeletedShow[] }>('/shows/deleted')).shows,
  deleteShow: (id: string) => call<void>(`/shows/${encodeURIComponent(id)}`, { method: 'DELETE' }),
  undeleteShow: (id: string) => call<void>(`/shows/${encodeURIComponent(id)}/undelete`, { method: 'POST' }),
  listVersions: async (id: string) => (await call<{ versions: ShowVersion[] }>(`/shows/${encodeURIComponent(id)}/versions`)).versions,
  getVersion: async (id: string, revision: number) => (await call<{ show: Show }>(`/shows/${encodeURIComponent(id)}/versions/${revision}`)).show,
  restoreVersion: (id: string, revision: number) => call<StoredShow>(`/shows/${encodeURIComponent(id)}/restore`, sending('POST', { revision })),
  /** Where a show's stored text can be had, readable or not. */
  documentUrl: (id: string) => `/api/shows/${encodeURIComponent(id)}/document`,
  listPresets: () => call<{ presets: Preset[]; unreadable: UnreadableNamed[] }>('/presets'),
  savePreset: (name: string, chain: ChainFile) => call<Preset>('/presets', sending('POST', { name, chain })),
  deletePreset: (id: string) => call<void>(`/presets/${encodeURIComponent(id)}`, { method: 'DELETE' }),
  listGraphics: () => call<{ graphics: SavedGraphic[]; unreadable: UnreadableNamed[] }>('/graphics'),
  saveGraphic: (name: string, graphic: KeptGraphic) => call<SavedGraphic>('/graphics', sending('POST', { name, graphic })),
  deleteGraphic: (id: string) => call<void>(`/graphics/${encodeURIComponent(id)}`, { method: 'DELETE' }),
  /** Keeps a file; throws an AbortError when it is given up on the way. */
  addAsset: async (file: File, sending?: Sending) => {
    const { status, body } = await sendFile(`/api/assets?name=${encodeURIComponent(file.name.slice(0, 200))}`, file, sending)
    return answered<Asset>(status, body)
  },
}
