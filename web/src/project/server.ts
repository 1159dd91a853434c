// Calls to the server. Errors come as words for people.
import type { Export, Family, FontFile, ProjectRow } from '../engine/types'

/** An answer in words that is not what was hoped for. */
export class Refusal extends Error {
  constructor(message: string, readonly status: number, readonly code: string, readonly hint: string, readonly body: unknown) {
    super(message)
  }
}

async function ask(method: string, path: string, body?: BodyInit | object, keepalive = false): Promise<Response> {
  const json = body !== undefined && !(body instanceof Blob) && !(body instanceof ArrayBuffer)
  let r: Response
  try {
    r = await fetch(path, {
      method, keepalive,
      body: json ? JSON.stringify(body) : (body as BodyInit | undefined),
      headers: json ? { 'Content-Type': 'application/json' } : undefined,
    })
  } catch {
    throw new Refusal('Capstan’s server does not answer. Your work is kept in this window; start Capstan again.', 0, 'offline', '', null)
  }
  if (!r.ok) {
    const answer = await r.json().catch(() => null)
    const e = answer?.error
    throw new Refusal(e?.message ?? `Capstan answered ${r.status}.`, r.status, e?.code ?? '', e?.hint ?? '', answer)
  }
  return r
}

const get = async <T>(path: string) => (await (await ask('GET', path)).json()) as T
const post = async <T>(path: string, body: BodyInit | object) => (await (await ask('POST', path, body)).json()) as T

export const fetchBytes = async (path: string) => new Uint8Array(await (await ask('GET', path)).arrayBuffer())

export const hello = () => get<{ build: string; families: Family[]; fonts: FontFile[]; noVideo: string }>('/api/hello')
export const listProjects = () => get<{ projects: ProjectRow[]; bin: ProjectRow[] }>('/api/projects')
export const renameProject = (id: string, name: string) => ask('PATCH', `/api/projects/${id}`, { name })
export const createProject = (name: string, width: number, height: number) => post<ProjectRow>('/api/projects', { name, width, height })
export const duplicateProject = (id: string) => post<ProjectRow>(`/api/projects/${id}/duplicate`, {})
export const binProject = (id: string) => ask('DELETE', `/api/projects/${id}`)
export const restoreProject = (id: string) => ask('POST', `/api/projects/${id}/restore`)
/** Deletes a project that is in the bin. */
export const deleteForGood = (id: string) => ask('DELETE', `/api/projects/${id}?forgood=1`)
export const importBundle = (file: Blob) => post<ProjectRow>('/api/bundles', file)
export const uploadPicture = (file: File) =>
  post<{ hash: string; media: object }>(`/api/media?name=${encodeURIComponent(file.name)}`, file)
export const listExports = async (id: string) => (await get<{ exports: Export[] }>(`/api/projects/${id}/exports`)).exports
export const createExport = (id: string, o: { format: string; height: number; rate: { num: number; den: number }; once: boolean; at?: number }) =>
  post<Export>(`/api/projects/${id}/exports`, o)
export const cancelExport = (id: string) => ask('POST', `/api/exports/${id}/cancel`)
export const deleteExport = (id: string) => ask('DELETE', `/api/exports/${id}`)

/** The document as text: the engine reads it, the page does not. */
export async function loadDocument(id: string): Promise<{ revision: number; document: string }> {
  const text = await (await ask('GET', `/api/projects/${id}`)).text()
  // {"document":…,"revision":n}: only the envelope is read here.
  const at = text.lastIndexOf(',"revision":')
  return { revision: Number.parseInt(text.slice(at + 12), 10), document: text.slice('{"document":'.length, at) }
}

/** What was stored after a revision, and the revision it leads to. */
export interface Stored { revision: number; since: { revision: number; patch: unknown }[] }

export const changesSince = (project: string, revision: number) => get<Stored>(`/api/projects/${project}/changes?since=${revision}`)

export async function sendCommand(project: string, base: number, window: string, id: string, command: object): Promise<{ revision: number; known: boolean }> {
  const raw = JSON.stringify({ base, window, id, command })
  // Small ones outlive the tab; browsers allow 64 KB for that.
  const r = await ask('POST', `/api/projects/${project}/commands`, new Blob([raw], { type: 'application/json' }), raw.length < 60000)
  return (await r.json()) as { revision: number; known: boolean }
}
