// Calls to the server. Errors come as words for people.
import type {
  Ask,
  Change,
  Command,
  Cutout,
  Export,
  Family,
  FontFile,
  Layer,
  Level,
  Media,
  ProjectRow,
  Spoken,
} from '../engine/types'
import { fault } from '../words'

/** An answer in words that is not what was hoped for. */
export class Refusal extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly code: string,
    readonly body: unknown,
  ) {
    super(message)
  }
}

async function ask(
  method: string,
  path: string,
  body?: BodyInit | object,
  keepalive = false,
  signal?: AbortSignal,
): Promise<Response> {
  const json = body !== undefined && !(body instanceof Blob) && !(body instanceof ArrayBuffer)
  let r: Response
  try {
    r = await fetch(path, {
      method,
      keepalive,
      signal,
      body: json ? JSON.stringify(body) : (body as BodyInit | undefined),
      headers: json ? { 'Content-Type': 'application/json' } : undefined,
    })
  } catch (e) {
    if (signal?.aborted) throw e
    throw new Refusal(fault('offline'), 0, 'offline', null)
  }
  if (!r.ok) {
    const answer = await r.json().catch(() => null)
    const e = answer?.error
    throw new Refusal(e ? `${e.message} ${e.hint}`.trim() : fault('internal'), r.status, e?.code ?? '', answer)
  }
  return r
}

export const get = async <T>(path: string) => (await (await ask('GET', path)).json()) as T
const post = async <T>(path: string, body: BodyInit | object) => (await (await ask('POST', path, body)).json()) as T

/** Sends a text as it is. */
export const postText = async <T>(path: string, text: string) =>
  (await (await ask('POST', path, new Blob([text], { type: 'text/plain' }))).json()) as T

export const fetchBytes = async (path: string) => new Uint8Array(await (await ask('GET', path)).arrayBuffer())

export const hello = () =>
  get<{ build: string; families: Family[]; fonts: FontFile[]; lacks: Record<string, string> }>('/api/hello')
/** How much of the quota is used, in bytes; near: it is time to make room. */
export interface Space {
  used: number
  quota: number
  near: boolean
}

export const listProjects = () => get<{ projects: ProjectRow[]; bin: ProjectRow[]; space: Space }>('/api/projects')
export const renameProject = (id: string, name: string) => ask('PATCH', `/api/projects/${id}`, { name })
export const createProject = (name: string, width: number, height: number, clear = false) =>
  post<ProjectRow>('/api/projects', { name, width, height, clear })
export const duplicateProject = (id: string) => post<ProjectRow>(`/api/projects/${id}/duplicate`, {})
export const binProject = (id: string) => ask('DELETE', `/api/projects/${id}`)
export const restoreProject = (id: string) => ask('POST', `/api/projects/${id}/restore`)
/** Deletes a project that is in the bin. */
export const deleteForGood = (id: string) => ask('DELETE', `/api/projects/${id}?forgood=1`)
export const importBundle = (file: Blob) => post<ProjectRow & { named: number }>('/api/bundles', file)
/** What a cut-out becomes: its mask is worked out, and stored. Asked to propose, its ground is found first. */
export const cutoutOf = (hash: string, cut: Partial<Cutout>, propose: boolean) =>
  post<{ cut: Cutout; media: Media; told?: string; stands?: string }>(`/api/media/${hash}/cutout`, { cut, propose })
/** How well the foreground of a picture stands out, in words. */
export const standsOf = async (hash: string) =>
  (await post<{ stands: string }>(`/api/media/${hash}/cutout`, { look: true })).stands
/** What lies behind a cut-out: a picture whose hole is continued from around it. */
export const groundOf = async (hash: string, mask: string, name: string, signal: AbortSignal) =>
  (await (await ask('POST', `/api/media/${hash}/ground`, { mask, name }, false, signal)).json()) as {
    hash: string
    media: Media
  }
/** What of a drawing could not be kept, how often, and where first. */
export interface Loss {
  what: string
  where: string
  count: number
}
/** Makes a group of layers of an SVG, as large as it lands on a film's page. */
export const uploadDrawing = async (project: string, film: string, file: Blob, name: string, signal?: AbortSignal) =>
  (await (
    await ask(
      'POST',
      `/api/projects/${project}/drawings?film=${film}&name=${encodeURIComponent(name)}`,
      file,
      false,
      signal,
    )
  ).json()) as { layer: Layer; media: Record<string, Media>; width: number; height: number; lost: Loss[] }
/** A moment of a film, or some layers of it, as an SVG; without at the scene at rest. */
export const drawingOf = async (
  project: string,
  of: { film: string; scene: number; at?: number; threads: string[]; words: boolean },
  signal?: AbortSignal,
) => (await ask('POST', `/api/projects/${project}/svg`, of, false, signal)).blob()
/** The files that the server takes in as pictures and drawings. */
export const pictureFiles =
  'image/svg+xml,.svg,.svgz,' +
  'image/png,image/apng,image/jpeg,image/webp,image/gif,image/tiff,image/bmp,image/avif,.tif,.tiff,.avif'
/** Hands a picture over; signal takes that back. */
export const uploadPicture = async (file: File, signal?: AbortSignal) =>
  (await (await ask('POST', `/api/media?name=${encodeURIComponent(file.name)}`, file, false, signal)).json()) as {
    hash: string
    media: Media
    space: Space
  }
/** The files that the server takes sound from. */
export const soundFiles = 'audio/*,video/*,.mp3,.wav,.aif,.aiff,.flac,.ogg,.opus,.m4a,.aac,.mp4,.mov,.webm,.mkv'
/** Hands a file with sound over, which is decoded there; signal takes that back. */
export const uploadSound = async (file: File, signal?: AbortSignal) =>
  (await (await ask('POST', `/api/sounds?name=${encodeURIComponent(file.name)}`, file, false, signal)).json()) as {
    hash: string
    media: Media
    space: Space
  }
/** A language, or a kind of voice, as the speech engine calls it. */
export interface Voice {
  id: string
  name: string
}
/** The voices that texts can be spoken by; why: there are none. */
export const listVoices = () => get<{ why: string; voices: Voice[]; variants: Voice[] }>('/api/speech')
/** Has a text spoken. */
export const speak = async (how: Spoken, signal?: AbortSignal) =>
  (await (await ask('POST', '/api/speech', how, false, signal)).json()) as {
    hash: string
    media: Media
    spoken: Spoken
  }
/** The beats of a recording, ms into it. */
export const beatsOf = async (hash: string) => (await post<{ beats: number[] }>(`/api/media/${hash}/beats`, {})).beats
/** How loud a film is, and by what it is brought to how loud it is to be. */
export const loudnessOf = async (project: string, film: string, signal: AbortSignal) =>
  (await (await ask('GET', `/api/projects/${project}/loudness?film=${film}`, undefined, false, signal)).json()) as {
    loudness: number
    level: Level
    revision: number
  }
/** Reads a picture again, as pictures are read now. */
export const pictureAnew = (hash: string) => post<{ hash: string; media: Media }>(`/api/media/${hash}/anew`, {})
export const uploadFont = (file: File) =>
  post<{ hash: string; media: Media; space: Space }>(`/api/fonts?name=${encodeURIComponent(file.name)}`, file)
/** Paints layers of a scene into a picture of its own; box is where it lies on the page. */
export const mergePicture = (project: string, scene: string, layers: string[]) =>
  post<{ hash: string; media: Media; box: [number, number, number, number] }>(`/api/projects/${project}/pictures`, {
    scene,
    layers,
  })
/** The media of a project whose files are not there, by hash. */
export const missingMedia = async (id: string) =>
  (await get<{ missing: string[] }>(`/api/projects/${id}/missing`)).missing

export interface Stage {
  id: string
  name: string
  revision: number
  length: number
  scenes: number
  createdAt: string
}

export const listStages = async (project: string) =>
  (await get<{ stages: Stage[] }>(`/api/projects/${project}/stages`)).stages
export const keepStage = (project: string, name: string) => post<Stage>(`/api/projects/${project}/stages`, { name })
export const deleteStage = (id: string) => ask('DELETE', `/api/stages/${id}`)
export const projectOfStage = (id: string) => post<ProjectRow>(`/api/stages/${id}/project`, {})
export const stageDocument = async (id: string) => (await get<{ document: object }>(`/api/stages/${id}`)).document

export const listExports = async (id: string) =>
  (await get<{ exports: Export[] }>(`/api/projects/${id}/exports`)).exports
export const createExport = (id: string, o: Ask) => post<Export>(`/api/projects/${id}/exports`, o)
/** How many bytes a file will have; signal stops working it out. */
/** How many bytes a file will have, 0: not known; alone: its frames are so large that it is made by itself. */
export const estimateExport = async (id: string, o: Ask, signal: AbortSignal) =>
  (await (await ask('POST', `/api/projects/${id}/exports/estimate`, o, false, signal)).json()) as {
    bytes: number
    packed: number
    parts: { words: string; bytes: number }[]
    alone: boolean
  }
/** Cancels an export, lets it rest or go on, or puts it in front of others that wait. */
export const turnExport = (id: string, how: 'cancel' | 'pause' | 'resume' | 'first') =>
  ask('POST', `/api/exports/${id}/${how}`)
/** A frame of a file beside the page's, as PNGs in base64. */
export const compareExport = (id: string, frame: number) =>
  get<{ at: number; ssim: number; file: string; page: string }>(`/api/exports/${id}/compare?frame=${frame}`)

/** A preset of somebody's own; project is empty in those for all. */
export interface OwnPreset {
  id: string
  project: string
  name: string
  ask: Ask
}

export const listPresets = async (id: string) =>
  (await get<{ presets: OwnPreset[] }>(`/api/projects/${id}/presets`)).presets
export const savePreset = (id: string, name: string, all: boolean, o: Ask) =>
  post<OwnPreset>(`/api/projects/${id}/presets`, { name, all, ask: o })
export const deletePreset = (id: string) => ask('DELETE', `/api/presets/${id}`)
/** Makes a file anew with the film’s sound as it is now, its pictures as they are. */
export const resoundExport = (id: string) => post<Export>(`/api/exports/${id}/sound`, {})
export const deleteExport = (id: string) => ask('DELETE', `/api/exports/${id}`)

/** The document and its revision as the server sends them: the engine reads it, the page does not. */
export const loadDocument = async (id: string) => (await ask('GET', `/api/projects/${id}`)).text()

/** What was stored after a revision, and the revision it leads to. */
export interface Stored {
  revision: number
  since: { revision: number; patch: Change[] }[]
  /** These are too many to be told: the document is to be loaded anew. */
  more?: boolean
}

export const changesSince = (project: string, revision: number) =>
  get<Stored>(`/api/projects/${project}/changes?since=${revision}`)

/** What became of a command; with what was stored beside it where others had been quicker. */
export interface Answer {
  revision: number
  known: boolean
  since?: Stored['since']
  more?: boolean
}

/** Asks for the page again, which gives a session to a browser that may have one. */
export const renewSession = () => fetch('/', { cache: 'no-store' }).catch(() => null)

export async function sendCommand(
  project: string,
  base: number,
  window: string,
  id: string,
  command: Command,
  build: string,
): Promise<Answer> {
  const raw = JSON.stringify({ base, window, id, command, build })
  // Small ones outlive the tab; browsers allow 64 KB for that.
  const r = await ask(
    'POST',
    `/api/projects/${project}/commands`,
    new Blob([raw], { type: 'application/json' }),
    raw.length < 60000,
  )
  return (await r.json()) as Answer
}
