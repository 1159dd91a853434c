// Stages: the project as it was, kept under names, looked at beside what it is now, and returned to.
import { clsx } from 'clsx'
import { useEffect, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import { paint } from '../engine/painter'
import { run } from '../project/commands'
import { desk, fail, say, set, useDesk } from '../project/desk'
import { deleteStage, keepStage, listStages, projectOfStage, stageDocument, type Stage } from '../server/server'
import { go } from '../go'
import { Sheet } from '../ui/Sheet'
import { Button, Label } from '../ui/controls'
import { day, filmTime } from '../time'
import { notice } from '../words'
import { counted } from '../words'

export function StagesSheet() {
  const project = useDesk((d) => d.project)!
  const film = useDesk((d) => d.film)!
  const pending = useDesk((d) => d.pending)
  const [list, setList] = useState<Stage[] | null>(null)
  const [shown, setShown] = useState<string | null>(null)
  const [name, setName] = useState('')
  const [time, setTime] = useState(() => {
    // At rest the page shows a scene with all in place: its end comes nearest to that.
    const { moment, scene } = desk()
    const s = film.scenes[scene]
    return Math.round(moment.rest ? s.start + s.into + s.stay : moment.time)
  })
  const load = () =>
    listStages(project)
      .then(setList)
      .catch((e) => {
        fail(e)
        setList((l) => l ?? [])
      })
  useEffect(() => {
    void load()
  }, [project])
  const stage = list?.find((s) => s.id === shown) ?? list?.[0]
  const close = () => set({ sheet: 'none' })
  const keep = () =>
    keepStage(project, name)
      .then((s) => {
        say(notice('stage.kept', s.name))
        setName('')
        setShown(s.id)
        return load()
      })
      .catch(fail)
  const comeBack = (s: Stage) =>
    stageDocument(s.id)
      .then((document) => {
        if (run('stage.return', { document })) say(notice('stage.returned', s.name))
        close()
      })
      .catch(fail)
  const box = sizeOf(film)
  const longest = Math.max(film.length, stage?.length ?? 0)
  return (
    <Sheet title="Stages" wide onClose={close}>
      <form
        className="flex items-center gap-2 border-b border-sailcloth-300 px-5 py-3"
        onSubmit={(e) => {
          e.preventDefault()
          void keep()
        }}
      >
        <input
          data-autofocus
          aria-label="Name of the stage"
          placeholder="for example: before the colours"
          maxLength={200}
          value={name}
          onChange={(e) => setName(e.target.value)}
          onKeyDown={(e) => e.key !== 'Escape' && e.key !== 'Tab' && e.stopPropagation()}
          className={clsx(
            'h-8 w-75 rounded-md border border-sailcloth-500 bg-sailcloth-100 px-2',
            'focus:border-brass-600 focus:bg-paper focus:outline-none',
          )}
        />
        <Button type="submit" look="main" className="!h-8" disabled={!name.trim() || pending > 0}>
          Keep as a stage
        </Button>
        <span className="text-[0.75rem] text-ink-600">
          {pending > 0
            ? 'Waiting until the last change is stored.'
            : 'Keeps the project as it is now, to come back to.'}
        </span>
      </form>
      {list?.length === 0 && (
        <p className="px-5 py-6 text-ink-600">
          No stages yet. Keep one before you try something: you can look at both side by side and come back.
        </p>
      )}
      {list === null && (
        <p className="px-5 py-6 text-ink-600" role="status">
          Looking for stages …
        </p>
      )}
      {stage && (
        <div className="grid grid-cols-[13.75rem_minmax(0,1fr)]">
          <ul
            className="thin-scroll max-h-107.5 overflow-auto border-r border-sailcloth-300 p-2"
            aria-label="Stages of this project"
          >
            {list!.map((s) => (
              <li key={s.id}>
                <button
                  type="button"
                  aria-pressed={s.id === stage.id}
                  onClick={() => setShown(s.id)}
                  data-stage={s.name}
                  className={clsx(
                    'flex w-full items-center gap-2.5 rounded-md p-1.5 text-left',
                    s.id === stage.id ? 'bg-brass-200' : 'hover:bg-sailcloth-100',
                  )}
                >
                  <span className="flex h-11 w-16 shrink-0 items-center justify-center">
                    <img
                      src={`/api/stages/${s.id}/frame.png`}
                      alt=""
                      className="max-h-full max-w-full rounded-[3px] border border-sailcloth-300 bg-paper"
                    />
                  </span>
                  <span className="min-w-0">
                    <span className="block truncate font-semibold" title={s.name}>
                      {s.name}
                    </span>
                    <span className="block text-[0.75rem] text-ink-600">{day(s.createdAt)}</span>
                  </span>
                </button>
              </li>
            ))}
          </ul>
          <div className="min-w-0 px-5 py-4">
            <div className="grid grid-cols-2 gap-4">
              <Pane title={stage.name} says={`${counted(stage.scenes, 'scene')}, ${filmTime(stage.length)}`}>
                <img
                  src={`/api/stages/${stage.id}/frame.png?at=${Math.min(time, stage.length)}`}
                  alt={`${stage.name} at ${filmTime(time)}`}
                  style={{ width: box.width * box.scale, height: box.height * box.scale }}
                  className="rounded-[3px] border border-sailcloth-300 bg-paper object-contain"
                />
              </Pane>
              <Pane title="Now" says={`${counted(film.shown, 'scene')}, ${filmTime(film.length)}`}>
                <Now time={time} />
              </Pane>
            </div>
            <div className="mt-3 flex items-center gap-3">
              <Label>At</Label>
              <input
                type="range"
                aria-label="Time to look at"
                min={0}
                max={longest}
                step={10}
                value={Math.min(time, longest)}
                onChange={(e) => setTime(Number(e.target.value))}
                onKeyDown={(e) => e.key !== 'Escape' && e.key !== 'Tab' && e.stopPropagation()}
                className="min-w-0 flex-1 accent-brass-600"
              />
              <span className="w-15 text-right font-mono text-[0.75rem]">{filmTime(Math.min(time, longest))}</span>
            </div>
            <div className="mt-4 flex items-center gap-2">
              <Button look="main" onClick={() => comeBack(stage)}>
                Return to this stage
              </Button>
              <Button
                onClick={() =>
                  projectOfStage(stage.id)
                    .then((p) => go(p.id))
                    .catch(fail)
                }
              >
                Open as a project of its own
              </Button>
              <span className="flex-1" />
              <Delete key={stage.id} onDelete={() => deleteStage(stage.id).then(load).catch(fail)} />
            </div>
            <p className="mt-2 text-[0.75rem] text-ink-600">
              Returning is a step like any other: undo brings back what is there now.
            </p>
          </div>
        </div>
      )}
    </Sheet>
  )
}

/** How large a film is shown here. */
const sizeOf = (f: { width: number; height: number }) => ({
  width: f.width,
  height: f.height,
  scale: Math.min(288 / f.width, 300 / f.height),
})

function Pane({ title, says, children }: { title: string; says: string; children: React.ReactNode }) {
  return (
    <figure className="min-w-0">
      <figcaption className="mb-1.5 flex items-baseline gap-2">
        <span className="truncate font-semibold" title={title}>
          {title}
        </span>
        <span className="shrink-0 text-[0.75rem] text-ink-600">{says}</span>
      </figcaption>
      {children}
    </figure>
  )
}

/** The film as it is now, at a time. */
function Now({ time }: { time: number }) {
  const ref = useRef<HTMLCanvasElement>(null)
  const film = useDesk((d) => d.film)!
  const version = useDesk((d) => d.version)
  const { scale } = sizeOf(film)
  useEffect(() => {
    const c = ref.current!
    const dpr = window.devicePixelRatio || 1
    c.width = Math.round(film.width * scale * dpr)
    c.height = Math.round(film.height * scale * dpr)
    const ctx = c.getContext('2d')!
    ctx.fillStyle = '#fff'
    ctx.fillRect(0, 0, c.width, c.height)
    paint(ctx, engine.frame({ rest: false, scene: 0, time: Math.min(time, film.length) }, scale * dpr), {
      scale: scale * dpr,
      x: 0,
      y: 0,
    })
  }, [time, film, version, scale])
  return (
    <canvas
      ref={ref}
      role="img"
      aria-label={`Now at ${filmTime(time)}`}
      style={{ width: film.width * scale }}
      className="rounded-[3px] border border-sailcloth-300"
    />
  )
}

/** Deleting cannot be undone, so it takes a second press. */
function Delete({ onDelete }: { onDelete: () => void }) {
  const [sure, setSure] = useState(false)
  if (!sure) return <Button onClick={() => setSure(true)}>Delete</Button>
  return (
    <>
      <Button onClick={() => setSure(false)}>Keep it</Button>
      <Button look="danger" autoFocus onClick={onDelete}>
        Delete for good
      </Button>
    </>
  )
}
