// The heading of the timeline: scenes along time, each as wide as it lasts, with their transitions between them.
import { clsx } from 'clsx'
import { useRef, useState } from 'react'
import type { Film, Heading } from '../engine/types'
import { sceneMenu } from '../actions/menus'
import { apply } from '../project/commands'
import { desk, goToScene, select, set, useDesk } from '../project/desk'
import { seconds } from '../time'
import { asideWide, px, type Scale } from './scale'
import { SceneThumb } from './thumbs'
import { hold, letGo } from '../ui/drags'
import { Edge } from './Edge'
import { AddScene } from './AddScene'
import { Transition, Closing } from './Transitions'

/** Narrower than this, neighbouring scenes gather into one tile, in px. */
const narrow = 22

/** A tile of many is no wider than this, so that what it opens can be told apart, in px. */
const broad = 120

type Part = { kind: 'scene'; index: number } | { kind: 'tile'; from: number; to: number }

/** Scenes as they are shown: those too narrow to be told apart are gathered. */
function partsOf(film: Film, scale: Scale): Part[] {
  const out: Part[] = []
  const slim = (s: Heading) => (s.into + s.stay) * scale.perMs < narrow
  for (let i = 0; i < film.shown; i++) {
    let j = i
    const first = film.scenes[i].start
    const fits = (s: Heading) => (s.start + s.into + s.stay - first) * scale.perMs <= broad
    while (j + 1 < film.shown && slim(film.scenes[j]) && slim(film.scenes[j + 1]) && fits(film.scenes[j + 1])) j++
    if (j > i) {
      out.push({ kind: 'tile', from: i, to: j })
      i = j
    } else out.push({ kind: 'scene', index: i })
  }
  return out
}

export function Scenes({
  film,
  scale,
  top,
  height,
  onOpen,
}: {
  film: Film
  scale: Scale
  top: number
  height: number
  onOpen: (from: number, to: number) => void
}) {
  const scene = useDesk((d) => d.scene)
  const zoomed = useDesk((d) => d.zoomed)
  const chosen = useDesk((d) => d.scenes)
  const [gap, setGap] = useState<{ index: number; x: number } | null>(null)
  const one = zoomed === 'scene'
  const parts: Part[] = one ? [{ kind: 'scene', index: scene }] : partsOf(film, scale)
  const end = px(
    scale,
    one ? film.scenes[scene].start + film.scenes[scene].into + film.scenes[scene].stay : film.length,
  )
  return (
    <div className="absolute inset-x-0" style={{ top, height }}>
      {parts.map((p) =>
        p.kind === 'tile' ? (
          <Tile
            key={film.scenes[p.from].id}
            film={film}
            from={p.from}
            to={p.to}
            scale={scale}
            height={height}
            current={scene >= p.from && scene <= p.to}
            onOpen={onOpen}
          />
        ) : (
          <Scene
            key={film.scenes[p.index].id}
            film={film}
            index={p.index}
            scale={scale}
            height={height}
            current={p.index === scene}
            chosen={chosen.includes(film.scenes[p.index].id)}
            onGap={setGap}
          />
        ),
      )}
      {gap && (
        <div
          className="pointer-events-none absolute -top-1 z-20 w-[3px] rounded bg-brass-400"
          style={{ left: gap.x - 2, height: height + 8 }}
          data-gap={gap.index}
        />
      )}
      {zoomed === 'film' && film.closing && film.closing.kind !== 'cut' && (
        <Closing film={film} closing={film.closing} scale={scale} height={height} />
      )}
      <AddScene left={end + 8} height={height} />
      {film.scenes.slice(film.shown).map((s, k) => (
        <AsideCard
          key={s.id}
          film={film}
          index={film.shown + k}
          left={end + 50 + k * (asideWide + 8)}
          height={height}
          current={scene === film.shown + k}
        />
      ))}
    </div>
  )
}

/** Chooses a scene: alone, or with Shift or Ctrl together with others. */
function choose(index: number, e: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) {
  const { film, scenes, scene } = desk()
  const id = film!.scenes[index].id
  if (e.shiftKey || e.ctrlKey || e.metaKey) {
    const now = scenes.length ? scenes : film!.scenes[scene].aside ? [id] : [film!.scenes[scene].id]
    goToScene(index)
    select([], '')
    if (e.shiftKey) {
      const first = film!.scenes.findIndex((s) => s.id === now[0])
      const [a, b] = [Math.min(first, index), Math.max(first, index)]
      set({ scenes: film!.scenes.slice(a, b + 1).map((s) => s.id) })
    } else set({ scenes: now.includes(id) ? now.filter((s) => s !== id) : [...now, id] })
    return
  }
  goToScene(index)
  select([], '')
}

function Scene({
  film,
  index,
  scale,
  height,
  current,
  chosen,
  onGap,
}: {
  film: Film
  index: number
  scale: Scale
  height: number
  current: boolean
  chosen: boolean
  onGap: (g: { index: number; x: number } | null) => void
}) {
  const press = useRef<{ x: number; far: boolean; to: number } | null>(null)
  const s = film.scenes[index]
  const x = px(scale, s.start + s.into)
  const w = Math.max(2, s.stay * scale.perMs - 1)
  const ids = () => (desk().scenes.includes(s.id) ? desk().scenes : [s.id])
  const cancel = () => {
    press.current = null
    letGo()
    onGap(null)
  }
  // Where a dragged scene would go: among the scenes that stay, before the first whose middle is right of the pointer.
  const dropAt = (clientX: number, el: HTMLElement) => {
    const left = el.parentElement!.getBoundingClientRect().left
    const moving = ids()
    const staying = film.scenes.filter((o) => !o.aside && !moving.includes(o.id))
    let to = staying.findIndex((o) => px(scale, o.start + o.into + o.stay / 2) > clientX - left)
    if (to < 0) to = staying.length
    const after = staying[to]
    const line = after ? px(scale, after.start + after.into) - 3 : px(scale, film.length) + 3
    return { index: to, x: line }
  }
  return (
    <>
      {index > 0 && (
        <Transition
          film={film}
          index={index}
          x={px(scale, s.start)}
          w={s.into * scale.perMs}
          height={height}
          scale={scale}
        />
      )}
      <button
        type="button"
        data-scene={index}
        aria-current={current}
        aria-pressed={chosen}
        aria-label={w > 100 ? undefined : `${index + 1} ${s.name} ${seconds(s.stay)}${says(s)}`}
        title={`${s.name}, ${seconds(s.stay)}. Drag it elsewhere; Shift and Ctrl select several; twice: its name`}
        onPointerDown={(e) => {
          if (e.button !== 0) return
          press.current = { x: e.clientX, far: false, to: -1 }
          hold(cancel)
          e.currentTarget.setPointerCapture(e.pointerId)
        }}
        onPointerMove={(e) => {
          const p = press.current
          if (!p || (!p.far && Math.abs(e.clientX - p.x) < 6)) return
          p.far = true
          const at = dropAt(e.clientX, e.currentTarget)
          p.to = at.index
          onGap(at)
        }}
        onPointerUp={(e) => {
          const p = press.current
          press.current = null
          letGo()
          onGap(null)
          if (!p?.far) return
          e.preventDefault()
          const moving = ids()
          if (p.to >= 0 && apply({ op: 'scene.order', ids: moving, index: p.to })) {
            goToScene(desk().film!.scenes.findIndex((o) => o.id === s.id))
          }
        }}
        onPointerCancel={cancel}
        onClick={(e) => choose(index, e)}
        onDoubleClick={nameScene}
        onContextMenu={(e) => sceneMenu(e, index)}
        onKeyDown={(e) => {
          if (e.key === 'Delete' || e.key === 'Backspace') {
            apply({ op: 'scene.delete', ids: ids() })
          } else if (e.key === 'F2') {
            choose(index, e)
            nameScene()
          } else if ((e.key === 'ArrowRight' || e.key === 'ArrowLeft') && (e.ctrlKey || e.metaKey)) {
            const to = index + (e.key === 'ArrowRight' ? 1 : -1)
            if (apply({ op: 'scene.order', ids: [s.id], index: to }))
              goToScene(Math.min(Math.max(to, 0), film.shown - 1))
          } else if (e.key === 'ArrowRight' || e.key === 'ArrowLeft') {
            const to = document.querySelector<HTMLElement>(
              `[data-scene="${index + (e.key === 'ArrowRight' ? 1 : -1)}"]`,
            )
            to?.focus()
            if (to) choose(index + (e.key === 'ArrowRight' ? 1 : -1), e)
          } else return
          e.preventDefault()
          e.stopPropagation()
        }}
        className={clsx(
          'absolute top-0 flex items-center gap-2 overflow-hidden rounded-md p-[3px] text-left',
          'ring-inset',
          current ? 'bg-spruce-700' : 'bg-spruce-800 hover:bg-spruce-700',
          chosen ? 'ring-2 ring-brass-200' : current ? 'ring-1 ring-brass-400' : '',
        )}
        style={{ left: x, width: w, height }}
      >
        {w > 30 && (
          <SceneThumb
            scene={index}
            height={height - 6}
            width={Math.min(((height - 6) * film.width) / film.height, w - 6)}
          />
        )}
        {w > 100 && (
          <span className="min-w-0 leading-tight">
            <span className="block truncate font-semibold">
              {index + 1} {s.name}
            </span>
            <span className="whitespace-nowrap font-mono text-[0.75rem] text-foam-300">
              {seconds(s.stay)}
              {says(s)}
            </span>
          </span>
        )}
      </button>
      <Edge
        name={`Stay of ${s.name}`}
        left={x + w}
        room={Math.min(w, (film.scenes[index + 1]?.into || s.stay) * scale.perMs)}
        height={height}
        scale={scale}
        value={s.stay}
        intent="scene.stay"
        args={(stay) => ({ ids: [s.id], stay })}
      />
    </>
  )
}

/** What is set aside: a scene that is not in the film. */
function AsideCard({
  film,
  index,
  left,
  height,
  current,
}: {
  film: Film
  index: number
  left: number
  height: number
  current: boolean
}) {
  const s = film.scenes[index]
  return (
    <button
      type="button"
      data-aside
      aria-current={current}
      title={`${s.name}: what lies here is not in the film`}
      onClick={() => choose(index, { shiftKey: false, ctrlKey: false, metaKey: false })}
      onContextMenu={(e) => sceneMenu(e, index)}
      onKeyDown={(e) => {
        if (e.key !== 'Delete' && e.key !== 'Backspace') return
        apply({ op: 'scene.delete', ids: [s.id] })
        e.preventDefault()
        e.stopPropagation()
      }}
      className={clsx(
        'absolute top-0 flex flex-col items-center justify-center gap-0.5 overflow-hidden rounded-md',
        'border border-dashed p-[3px] leading-tight',
        current ? 'border-brass-400 bg-spruce-700' : 'border-foam-500/60 hover:bg-spruce-800',
      )}
      style={{ left, width: asideWide, height }}
    >
      <SceneThumb scene={index} height={28} width={Math.min((28 * film.width) / film.height, asideWide - 8)} />
      <span className="max-w-full truncate text-[0.6875rem] text-foam-300">{s.name}</span>
    </button>
  )
}

/** Puts the caret into the name of the scene that is shown. */
function nameScene() {
  requestAnimationFrame(() => {
    const el = document.querySelector<HTMLInputElement>('[aria-label="Scene name"]')
    el?.focus()
    el?.select()
  })
}

/** Several scenes too narrow to be shown each; a press opens them. */
function Tile({
  film,
  from,
  to,
  scale,
  height,
  current,
  onOpen,
}: {
  film: Film
  from: number
  to: number
  scale: Scale
  height: number
  current: boolean
  onOpen: (from: number, to: number) => void
}) {
  const [a, b] = [film.scenes[from], film.scenes[to]]
  const [begin, end] = [a.start, b.start + b.into + b.stay]
  const x = px(scale, begin)
  const w = Math.max(26, (end - begin) * scale.perMs - 1)
  const words = `${to - from + 1} scenes, ${seconds(end - begin)}`
  return (
    <button
      type="button"
      data-tile={`${from} ${to}`}
      aria-label={`${words}: open`}
      title={`${words}. Press to open them.`}
      onClick={() => onOpen(begin, end)}
      className={clsx(
        'absolute top-0 z-[1] flex items-center justify-center overflow-hidden rounded-md px-1',
        'text-center',
        current ? 'bg-spruce-700 ring-1 ring-inset ring-brass-400' : 'bg-spruce-800 hover:bg-spruce-700',
      )}
      style={{ left: x, width: w, height }}
    >
      <span aria-hidden className="absolute inset-x-1 top-1.25 h-px bg-foam-500/60" />
      <span aria-hidden className="absolute inset-x-2 top-2 h-px bg-foam-500/40" />
      <span className="text-[0.6875rem] leading-tight">{w > 70 ? words : to - from + 1}</span>
    </button>
  )
}

/** What a scene's stay follows, if anything. */
const says = (s: Film['scenes'][number]) => (s.endsAtCue ? ' · to a cue' : s.autoStay ? ' · auto' : '')
