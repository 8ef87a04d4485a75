import type { ChainFile } from '../../core/show/schema.ts'
import type { Show } from '../../core/show/show.ts'

export interface ShowSummary {
  readonly id: string
  readonly name: string
  readonly revision: number
  readonly updatedAt: string
  readonly sceneCount: number
}

export interface StoredShow {
  readonly id: string
  readonly revision: number
  readonly updatedAt: string
  readonly show: Show
}

export interface ShowVersion {
  readonly revision: number
  readonly savedAt: string
  readonly sceneCount: number
  readonly layerCount: number
}

export interface Asset {
  readonly hash: string
  readonly widthPx: number
  readonly heightPx: number
  readonly fileName: string
}

/** A named chain of steps. */
export interface Preset {
  readonly id: string
  readonly name: string
  readonly chain: ChainFile
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

async function call<T>(path: string, init: RequestInit = {}): Promise<T> {
  const response = await fetch(`/api${path}`, init)
  if (response.status === 204) return undefined as T
  const body = (await response.json().catch(() => null)) as { error?: { code: string; message: string } } | null
  if (!response.ok) {
    throw new ApiError(response.status, body?.error?.code ?? 'unknown', body?.error?.message ?? `The server answered ${response.status}.`)
  }
  return body as T
}

function sending(method: string, body: unknown): RequestInit {
  return { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }
}

/** The server's calls. All throw an ApiError when refused and a TypeError when unreachable. */
export const api = {
  listShows: async () => (await call<{ shows: ShowSummary[] }>('/shows')).shows,
  getShow: (id: string) => call<StoredShow>(`/shows/${encodeURIComponent(id)}`),
  createShow: (show: Show) => call<StoredShow>('/shows', sending('POST', { show })),
  saveShow: (id: string, baseRevision: number, show: Show) =>
    call<{ revision: number }>(`/shows/${encodeURIComponent(id)}`, sending('PUT', { baseRevision, show })),
  deleteShow: (id: string) => call<void>(`/shows/${encodeURIComponent(id)}`, { method: 'DELETE' }),
  undeleteShow: (id: string) => call<StoredShow>(`/shows/${encodeURIComponent(id)}/undelete`, { method: 'POST' }),
  listVersions: async (id: string) => (await call<{ versions: ShowVersion[] }>(`/shows/${encodeURIComponent(id)}/versions`)).versions,
  restoreVersion: (id: string, revision: number) => call<StoredShow>(`/shows/${encodeURIComponent(id)}/restore`, sending('POST', { revision })),
  listPresets: async () => (await call<{ presets: Preset[] }>('/presets')).presets,
  savePreset: (name: string, chain: ChainFile) => call<Preset>('/presets', sending('POST', { name, chain })),
  deletePreset: (id: string) => call<void>(`/presets/${encodeURIComponent(id)}`, { method: 'DELETE' }),
  addAsset: (file: File) =>
    call<Asset>(`/assets?name=${encodeURIComponent(file.name.slice(0, 200))}`, {
      method: 'POST',
      body: file,
      headers: { 'content-type': 'application/octet-stream' },
    }),
}
