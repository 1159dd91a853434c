// The start screen: projects as cards in their true proportions, and new ones by format.
import { clsx } from 'clsx'
import { isText, recall, remember } from '../remember'
import { FolderOpen } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import type { ProjectRow } from '../engine/types'
import { onProjects } from '../project/events'
import { fail, mended, say } from '../project/desk'
import {
  binProject,
  createProject,
  deleteForGood,
  duplicateProject,
  importBundle,
  listProjects,
  renameProject,
  restoreProject,
  type Space,
} from '../server/server'
import { chequers } from '../ui/ColourField'
import { Choice } from '../ui/Choice'
import { Button } from '../ui/controls'
import { Bin, BinButton } from './Bin'
import { Card } from './Card'
import { go } from '../go'
import { projectOf } from '../actions/pictures'
import { Notices } from '../ui/Notices'
import { bytes } from '../time'
import { notice } from '../words'

// Each has a width of its own: as the page's font comes in, nothing moves under the pointer.
const formats = [
  { name: 'Wide', w: 1920, h: 1080, says: 'slides, film', clear: false, room: 'w-40' },
  { name: 'Square', w: 1080, h: 1080, says: 'posts', clear: false, room: 'w-32' },
  { name: 'Upright', w: 1080, h: 1920, says: 'reels, stories', clear: false, room: 'w-40' },
  { name: 'Sticker', w: 512, h: 512, says: 'clear', clear: true, room: 'w-25' },
]

type Order = 'changed' | 'name' | 'newest' | 'longest'

const isOrder = (v: unknown): v is Order => isText(v) && v in orders

const orders: Record<Order, { label: string; by: (a: ProjectRow, b: ProjectRow) => number }> = {
  changed: { label: 'last change', by: (a, b) => b.updatedAt.localeCompare(a.updatedAt) },
  name: { label: 'name', by: (a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }) },
  newest: { label: 'newest', by: (a, b) => b.createdAt.localeCompare(a.createdAt) },
  longest: { label: 'length', by: (a, b) => b.length - a.length },
}

export function Start() {
  const [list, setList] = useState<ProjectRow[] | null>(null)
  const [bin, setBin] = useState<ProjectRow[]>([])
  const [binned, setBinned] = useState(false)
  const [space, setSpace] = useState<Space | null>(null)
  const [sought, setSought] = useState('')
  const [order, setOrder] = useState<Order>(() => recall('capstan-order', isOrder, 'changed'))
  const [own, setOwn] = useState({ w: '1200', h: '628' })
  const load = () =>
    listProjects()
      .then((l) => {
        mended('edit')
        setList(l.projects)
        setBin(l.bin)
        setSpace(l.space)
      })
      .catch((e) => {
        fail(e)
        setList((l) => l ?? [])
      })
  const and = (done: Promise<unknown>) => done.then(load).catch(fail)
  useEffect(() => {
    void load()
    return onProjects(() => void load())
  }, [])
  /** A name that no project has yet. */
  const freeName = (base: string) => {
    const taken = new Set([...(list ?? []), ...bin].map((p) => p.name))
    for (let n = 1, name = base; ; name = `${base} ${++n}`) if (!taken.has(name)) return name
  }
  const make = (name: string, w: number, h: number, clear = false) =>
    createProject(name, w, h, clear)
      .then((p) => go(p.id))
      .catch(fail)
  const bundle = useRef<HTMLInputElement>(null)
  const take = (file?: File) => {
    if (file)
      importBundle(file)
        .then((p) => {
          say(notice(p.named > 1 ? 'bundle.here-too' : 'bundle.here', p.name))
          go(p.id)
        })
        .catch(fail)
  }
  /** Bundles are opened; of a picture a project of its size is made. */
  const drop = (file?: File) => {
    if (!file || file.name.endsWith('.capstan')) take(file)
    else
      projectOf(file, freeName)
        .then(go)
        .catch((e) => fail(e, 'intake'))
  }
  const shown = list?.filter((p) => p.name.toLowerCase().includes(sought.trim().toLowerCase())).sort(orders[order].by)
  const side = (v: string) => Math.round(Number(v))
  const ownOK = [own.w, own.h].every((v) => side(v) >= 16 && side(v) <= 8192)
  return (
    <div
      className="thin-scroll h-full overflow-auto bg-sailcloth-200"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        drop(e.dataTransfer.files[0])
      }}
    >
      <header
        className={clsx(
          'sticky top-0 z-10 flex h-12 items-center gap-3 border-b border-sailcloth-300 bg-paper',
          'px-6',
        )}
      >
        <img src="/mark.svg" alt="" className="h-7 w-7" />
        <h1 className="text-[1.0625rem] font-semibold">Capstan</h1>
        <span className="text-ink-600">animated scenes for slides and posts</span>
        <span className="flex-1" />
        <input
          ref={bundle}
          type="file"
          accept=".capstan"
          hidden
          aria-label="Bundle file"
          data-bundle-input
          onChange={(e) => {
            take(e.target.files?.[0])
            e.target.value = ''
          }}
        />
        <Button onClick={() => bundle.current?.click()}>
          <FolderOpen size={16} strokeWidth={1.5} />
          Open a bundle
        </Button>
      </header>
      <main className="mx-auto max-w-295 px-6 pb-10 pt-6">
        <h2 className="mb-3 text-[0.9375rem] font-semibold">New project</h2>
        <div className="flex items-end gap-8">
          {formats.map((f) => (
            <button
              key={f.name}
              type="button"
              onClick={() => make(freeName(`${f.name} project`), f.w, f.h, f.clear)}
              className={`group shrink-0 text-left ${f.room}`}
            >
              <span
                className={clsx(
                  'flex items-center justify-center rounded-md border border-sailcloth-300 bg-paper',
                  'text-ink-500 group-hover:border-brass-600 group-hover:text-brass-700',
                )}
                style={{
                  width: f.w / 12,
                  height: f.h / 12,
                  ...(f.clear && { background: chequers, width: f.w / 6, height: f.h / 6 }),
                }}
              >
                <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden>
                  <path d="M11 3v16M3 11h16" stroke="currentColor" strokeWidth="1.5" />
                </svg>
              </span>
              <span className="mt-1.5 block font-semibold">{f.name}</span>
              <span className="block whitespace-nowrap text-[0.75rem] text-ink-600">
                {f.w} × {f.h} · {f.says}
              </span>
            </button>
          ))}
          <form
            className="self-end"
            onSubmit={(e) => {
              e.preventDefault()
              if (ownOK) make(freeName(`${side(own.w)} × ${side(own.h)} project`), side(own.w), side(own.h))
            }}
          >
            <span className="flex items-center gap-2">
              {(['w', 'h'] as const).map((k, i) => (
                <span key={k} className="flex items-center gap-2">
                  {i === 1 && <span className="text-ink-600">×</span>}
                  <input
                    aria-label={k === 'w' ? 'Width in pixels' : 'Height in pixels'}
                    inputMode="numeric"
                    value={own[k]}
                    onChange={(e) => setOwn({ ...own, [k]: e.target.value })}
                    className={clsx(
                      'h-7 w-19 rounded-md border bg-paper px-2 text-right font-mono text-[0.75rem]',
                      side(own[k]) >= 16 && side(own[k]) <= 8192 ? 'border-sailcloth-500' : 'border-coral-700',
                    )}
                  />
                </span>
              ))}
              <Button type="submit" disabled={!ownOK}>
                Make
              </Button>
            </span>
            <span className="mt-1.5 block font-semibold">Own size</span>
            <span className={`block text-[0.75rem] ${ownOK ? 'text-ink-600' : 'text-coral-700'}`}>
              16 to 8,192 px a side
            </span>
          </form>
        </div>
        <div className="mb-3 mt-8 flex items-center gap-4">
          <h2 className="text-[0.9375rem] font-semibold">Projects</h2>
          <input
            type="search"
            aria-label="Search projects"
            placeholder="Search"
            value={sought}
            onChange={(e) => setSought(e.target.value)}
            className="h-7 w-55 rounded-md border border-sailcloth-500 bg-paper px-2"
          />
          <span className="flex items-center gap-2 text-[0.75rem] text-ink-600">
            Sorted by
            <span className="w-32.5">
              <Choice
                name="Sort projects"
                value={order}
                of={(Object.keys(orders) as Order[]).map((o) => ({ value: o, label: orders[o].label }))}
                onSet={(o) => {
                  setOrder(o)
                  remember('capstan-order', o)
                }}
                className="!bg-paper"
              />
            </span>
          </span>
          <span className="flex-1" />
          <BinButton n={bin.length} open={binned} onOpen={setBinned} />
        </div>
        {binned && (
          <Bin projects={bin} onRestore={(p) => and(restoreProject(p.id))} onDelete={(p) => and(deleteForGood(p.id))} />
        )}
        {list === null && <p className="text-ink-600">Looking for projects …</p>}
        {list?.length === 0 && <p className="text-ink-600">No projects yet. Make one above.</p>}
        {shown && list!.length > 0 && shown.length === 0 && (
          <p className="text-ink-600">No project has “{sought}” in its name.</p>
        )}
        <ul className="flex flex-wrap gap-5">
          {shown?.map((p) => (
            <Card
              key={p.id}
              project={p}
              onRename={(name) => and(renameProject(p.id, name))}
              onCopy={() => and(duplicateProject(p.id))}
              onBin={() =>
                binProject(p.id)
                  .then(() => {
                    say(notice('project.binned', p.name), 'said', {
                      act: { word: 'Undo', run: () => void and(restoreProject(p.id)) },
                    })
                    return load()
                  })
                  .catch(fail)
              }
            />
          ))}
        </ul>
        {space && (
          <p
            className={clsx(
              'mt-8 flex items-center gap-2 text-[0.75rem]',
              space.near ? 'font-semibold text-coral-700' : 'text-ink-600',
            )}
            data-space
          >
            <span className="h-1.5 w-30 overflow-hidden rounded bg-sailcloth-300" aria-hidden>
              <span
                className={`block h-full ${space.near ? 'bg-coral-700' : 'bg-brass-600'}`}
                style={{ width: `${Math.min(100, Math.max(1, (100 * space.used) / space.quota))}%` }}
              />
            </span>
            {space.near
              ? notice('quota.near', bytes(space.used), bytes(space.quota))
              : `${bytes(space.used)} of ${bytes(space.quota)} used by projects, pictures and exports`}
          </p>
        )}
      </main>
      <Notices />
    </div>
  )
}
