// One column in the order of work: Look, Place, Moves. Nothing selected: the scene. Several: what they share.
import { clsx } from 'clsx'
import { useDeferredValue, useState } from 'react'
import { engine } from '../engine/engine'
import type { CaptionRow, Selected } from '../engine/types'
import { run } from '../project/commands'
import { desk, goToScene, select, useDesk } from '../project/desk'
import { NumberField } from '../ui/NumberField'
import { TextField } from '../ui/TextField'
import { Button } from '../ui/controls'
import { tints } from '../ui/tints'
import { CaptionPanel } from './CaptionPanel'
import { RecordPanel } from './RecordPanel'
import { SoundPanel } from './SoundPanel'
import { SpeakPanel } from './SpeakFields'
import { ScenePanel } from './ScenePanel'
import { Look } from './Look'
import { Place } from './Place'
import { Moves } from './Moves'
import { Strands } from './Strands'
import { CombinePanel } from './CombinePanel'
import { OutlinePanel } from './OutlinePanel'
import { PointsPanel } from './PointsPanel'
import { ViewFields } from './ViewFields'
import { TextPanel } from './TextPanel'
import { Timing } from './Timing'
import { AcrossScenes } from './AcrossScenes'
import { Part, Parts } from '../ui/Parts'

export function Inspector({ narrow }: { narrow: boolean }) {
  const selected = useDesk((d) => d.selected)
  const selection = useDesk((d) => d.selection)
  const editing = useDesk((d) => d.editing)
  const settled = useDeferredValue(selected)
  const inFilms =
    useDesk((d) => (d.film?.shown ?? 0) > 1 && !d.film!.scenes[d.scene]?.aside) ||
    selected.some((s) => s.strands.length > 0)
  const heard = useDesk((d) => d.heard)
  const sounds = useDesk((d) => d.sounds.rows)
  const caption = useDesk((d) => d.sounds.captions.find((c) => is(c, d.caption)))
  const speaking = useDesk((d) => d.speaking)
  if (speaking) return <Frame narrow={narrow}>{speaking === 'words' ? <SpeakPanel /> : <RecordPanel />}</Frame>
  if (heard.length > 0)
    return (
      <Frame narrow={narrow}>
        <SoundPanel rows={sounds.filter((r) => heard.includes(r.id))} />
      </Frame>
    )
  if (caption)
    return (
      <Frame narrow={narrow}>
        <CaptionPanel of={caption} key={`${caption.scene} ${caption.index}`} />
      </Frame>
    )
  if (selection.length === 0)
    return (
      <Frame narrow={narrow}>
        <ScenePanel />
      </Frame>
    )
  if (selected.length === 0) {
    return (
      <Frame narrow={narrow}>
        <Elsewhere threads={selection} />
      </Frame>
    )
  }
  // Of a thousand the lines on the page come first, and what they share a frame later.
  if (selected.length > 100 && settled.length !== selected.length)
    return (
      <Frame narrow={narrow}>
        <Several selected={selected} />
      </Frame>
    )
  const one = selected.length === 1 ? selected[0] : null
  const open = one?.layer.kind === 'path' && editing === one.layer.thread ? one : null
  const texts = selected.every((s) => s.layer.kind === 'text')
  const head = !one ? (
    <Several selected={selected} />
  ) : (
    <div className={heading}>
      <TextField
        key={one.layer.id}
        name="Layer name"
        value={one.layer.name}
        onSet={(name) => run('set.everywhere', { thread: one.layer.thread, patch: { name } })}
        className={clsx(
          '!w-auto flex-1 truncate !border-transparent !bg-transparent text-[0.875rem] font-semibold',
          'hover:!border-sailcloth-500 focus:!bg-paper',
        )}
      />
      <span className="shrink-0 text-[0.75rem] text-ink-500">
        {engine.fields().kinds[one.layer.kind]}
        {one.count > 0 ? ` · ${one.count} layers` : ''}
      </span>
      <Tint of={one} />
    </div>
  )
  const seen = one?.layer.kind === 'view' ? 'View' : 'Look'
  const names = [...(texts ? ['Text'] : []), seen, 'Place', 'Moves', ...(inFilms ? ['Scenes'] : [])]
  return (
    <Frame key={one ? 'one' : 'several'} parted narrow={narrow}>
      <Parts head={head} names={names} kind={one?.layer.kind ?? 'several'} still={desk().moves.length > 0}>
        {/* While its points are open they come first; what is done to them must not lie below the fold. */}
        {open && <PointsPanel selected={open} />}
        {selected.length > 1 && selected.every((s) => s.unites) && <CombinePanel />}
        {texts && (
          <Part name="Text">
            <TextPanel selected={selected} />
          </Part>
        )}
        {one?.layer.kind === 'view' ? (
          <Part name="View">
            <ViewFields of={one} />
          </Part>
        ) : (
          <Part name="Look">
            <Look selected={selected} />
          </Part>
        )}
        {one && !open && one.layer.kind === 'path' && <PointsPanel selected={one} />}
        <Part name="Place">
          <Place selected={selected} />
        </Part>
        <Part name="Moves">
          <Moves selected={selected} />
        </Part>
        <Timing selected={selected} />
        <Part name="Scenes">
          <Strands selected={selected} />
          {one?.layer.kind === 'marker' && (
            <p className="border-b border-sailcloth-300 px-4 py-2 text-[0.75rem] text-ink-600">
              It counts the scenes its thread lives in.{' '}
              <button
                type="button"
                className="font-semibold text-brass-700 underline"
                onClick={() => run('carry.all', { threads: [one.layer.thread] })}
              >
                Carry it to all scenes
              </button>
            </p>
          )}
          <AcrossScenes selected={selected} />
        </Part>
        {one && !open && <OutlinePanel selected={one} />}
      </Parts>
    </Frame>
  )
}

/** The selected row has no layer in the scene that is shown: where it is. */
function Elsewhere({ threads }: { threads: string[] }) {
  const rows = useDesk((d) => d.rows)
  const film = useDesk((d) => d.film)!
  const scenes = [
    ...new Set(
      rows
        .filter((r) => threads.includes(r.thread))
        .flatMap((r) => r.spans.filter((s) => !s.strand).map((s) => s.scene)),
    ),
  ]
  return (
    <div className="px-4 py-4">
      <p className="mb-2 text-ink-600">
        {threads.length === 1 ? 'This layer is' : 'These layers are'} not in this scene.{' '}
        {scenes.length > 0 && 'Go where it is:'}
      </p>
      <div className="grid gap-1.5">
        {scenes.slice(0, 8).map((i) => (
          <Button key={i} className="w-full !justify-start" onClick={() => goToScene(i)}>
            {i + 1} {film.scenes[i].name}
          </Button>
        ))}
      </div>
    </div>
  )
}

const is = (c: CaptionRow, name: { scene: string; index: number } | null) =>
  c.scene === name?.scene && c.index === name.index

const heading = 'flex h-10.25 shrink-0 items-center gap-2 border-b border-sailcloth-300 pl-2 pr-4'

const Tint = ({ of }: { of: Selected }) => (
  <span className="h-3 w-3 shrink-0 rounded-full" style={{ background: tints[(of.layer.tint ?? 0) & 7] }} aria-hidden />
)

/** 2nd, 3rd, 11th, 21st. */
const ordinal = (n: number) =>
  `${n}${n % 100 >= 11 && n % 100 <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th')}`

function Several({ selected }: { selected: Selected[] }) {
  const [nth, setNth] = useState(2)
  return (
    <div className={heading}>
      <h2 className="flex-1 pl-2 text-[0.875rem] font-semibold">{selected.length} layers</h2>
      {selected.length > 2 && (
        <span
          className="flex items-center gap-1 text-[0.75rem] text-ink-600"
          role="group"
          aria-label="Of these select some"
        >
          <span className="w-9.5">
            <NumberField
              quiet
              name="Every how many of them are selected"
              min={2}
              max={1000}
              value={nth}
              onSet={(v) => setNth(Math.round(v))}
            />
          </span>
          <Button
            className="whitespace-nowrap !px-2 text-[0.75rem]"
            title="Of these, from the first on, in the order they were selected in"
            onClick={() => select(desk().selection.filter((_, i) => i % nth === 0))}
          >
            Every {ordinal(nth)}
          </Button>
        </span>
      )}
      <Tint of={selected[0]} />
    </div>
  )
}

function Frame({ children, parted, narrow }: { children: React.ReactNode; parted?: boolean; narrow: boolean }) {
  return (
    <aside
      aria-label="Inspector"
      className={clsx(
        'w-70 shrink-0 border-l border-sailcloth-300 bg-paper',
        narrow ? 'absolute inset-y-0 right-0 z-30 max-w-full shadow-[0_8px_28px_rgb(12_37_35/0.3)]' : 'relative h-full',
        parted ? 'flex flex-col' : 'thin-scroll overflow-y-auto',
      )}
    >
      {children}
    </aside>
  )
}
