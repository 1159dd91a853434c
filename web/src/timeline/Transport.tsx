// Transport at the timeline's head, where the playhead is; what the timeline shows.
import { clsx } from 'clsx'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import {
  ChevronDown,
  CornerUpLeft,
  Expand,
  Film as FilmIcon,
  MoveHorizontal,
  Pause,
  Play,
  Redo2,
  Search,
  SkipBack,
  Undo2,
  VolumeX,
  X,
} from 'lucide-react'
import { useRef, useState } from 'react'
import { engine } from '../engine/engine'
import { redo, undo } from '../project/commands'
import { desk, fail, goToTime, set, swapZoomed, useDesk } from '../project/desk'
import { mark, playFilm, playLarge, playMarks, playScene, playSelection, stop, toggle } from '../project/play'
import { setHushed } from '../sound/listening'
import { Sign } from '../ui/controls'
import { filmTime } from '../time'
import { keyed } from '../ui/keymap'

const sign = '!w-6 hover:bg-spruce-700 text-foam-100'

export function Transport({
  all,
  onAll,
  onFit,
  fitted,
  sought,
  onSeek,
}: {
  all: boolean
  onAll: (v: boolean) => void
  onFit: () => void
  fitted: boolean
  sought: string
  onSeek: (v: string) => void
}) {
  const playing = useDesk((d) => d.playing)
  const played = useDesk((d) => d.playedFrom !== null)
  const canUndo = useDesk((d) => d.canUndo)
  const canRedo = useDesk((d) => d.canRedo)
  const zoomed = useDesk((d) => d.zoomed)
  return (
    <div className="flex h-full flex-col justify-center gap-1 pl-2.5 pr-0.5">
      <div className="flex items-center">
        <button
          type="button"
          aria-label={playing ? 'Pause' : 'Play'}
          title={playing ? keyed('Pause (Space)') : keyed('Play from the playhead (Space)')}
          onClick={toggle}
          className={clsx(
            'flex h-8.5 w-8.5 shrink-0 items-center justify-center rounded-full bg-brass-400',
            'text-spruce-950 hover:bg-brass-200',
          )}
        >
          {playing ? (
            <Pause size={17} fill="currentColor" strokeWidth={0} />
          ) : (
            <Play size={17} fill="currentColor" strokeWidth={0} className="ml-0.5" />
          )}
        </button>
        <PlayMenu />
        <Sign name="To the start (Home)" className={sign} onClick={() => goToTime(0)}>
          <SkipBack size={16} strokeWidth={1.5} />
        </Sign>
        <Sign name="Stop: back to where play began (Shift+Space)" className={sign} disabled={!played} onClick={stop}>
          <CornerUpLeft size={16} strokeWidth={1.5} />
        </Sign>
        <Sign name="Large view (L)" className={sign} onClick={playLarge}>
          <Expand size={15} strokeWidth={1.5} />
        </Sign>
        <span className="flex-1" />
        <Sign
          name={zoomed === 'scene' ? 'Show the whole film (Z)' : 'Show this scene alone, on its clock (Z)'}
          className={`${sign} ${zoomed === 'scene' ? '!bg-spruce-700' : ''}`}
          pressed={zoomed === 'scene'}
          onClick={swapZoomed}
        >
          <FilmIcon size={15} strokeWidth={1.5} />
        </Sign>
        <Sign
          name={zoomed === 'scene' ? 'Fit the scene into the timeline' : 'Fit the film into the timeline'}
          className={`${sign} disabled:opacity-40`}
          disabled={fitted}
          onClick={onFit}
        >
          <MoveHorizontal size={16} strokeWidth={1.5} />
        </Sign>
        <Sign name="Undo (Ctrl+Z)" className={sign} disabled={!canUndo} onClick={undo}>
          <Undo2 size={16} strokeWidth={1.5} />
        </Sign>
        <Sign name="Redo (Ctrl+Shift+Z)" className={sign} disabled={!canRedo} onClick={redo}>
          <Redo2 size={16} strokeWidth={1.5} />
        </Sign>
      </div>
      <div className="flex h-6 items-center justify-between pl-0.5 pr-1">
        <span className="min-w-0 overflow-hidden whitespace-nowrap font-mono text-[0.8125rem]">
          <Now />
        </span>
        <span className="flex shrink-0 items-center">
          <Hush />
          <Seek sought={sought} onSeek={onSeek} />
          <button
            type="button"
            onClick={() => onAll(!all)}
            title={
              all ? 'Rows of the whole film; press for this scene only' : 'Rows of this scene; press for the whole film'
            }
            className="h-6 whitespace-nowrap rounded-md px-1 text-[0.6875rem] text-foam-300 hover:bg-spruce-700"
          >
            {all ? 'all scenes' : 'this scene'}
          </button>
        </span>
      </div>
    </div>
  )
}

/** Where the film is played in silence: that it is, and back. */
function Hush() {
  const hushed = useDesk((d) => d.hushed)
  if (!hushed) return null
  return (
    <Sign
      name="Play with sound again"
      className="!h-6 !w-6 text-brass-400 hover:bg-spruce-700"
      onClick={() => setHushed(false)}
    >
      <VolumeX size={14} strokeWidth={1.5} />
    </Sign>
  )
}

/** Film time, or, with one scene shown, that scene's clock beside it. */
function Now() {
  const zoomed = useDesk((d) => d.zoomed)
  const speed = useDesk((d) => d.speed)
  const dropped = useDesk((d) => d.dropped)
  const length = useDesk((d) => d.film?.length ?? 0)
  const clock = useDesk((d) => {
    const s = d.film?.scenes[d.scene]
    return s ? ((d.moment.time - s.start - s.into) / 1000).toFixed(2) : ''
  })
  const time = useDesk((d) => filmTime(d.moment.time))
  return (
    <>
      <Playhead time={time} />
      {zoomed === 'scene' ? (
        <span className="text-sea-500" title="On this scene’s clock" data-clock>
          {' '}
          · {clock} s
        </span>
      ) : (
        <span className="text-foam-500"> / {filmTime(length)}</span>
      )}
      {speed !== 1 && (
        <span className="ml-1 rounded-sm bg-spruce-700 px-1 text-[0.6875rem] text-brass-200">× {speed}</span>
      )}
      {dropped > 0 && (
        <span
          className="ml-1 text-[0.6875rem] text-brass-400"
          title="Frames of the film that were passed over, to keep its time, since play was pressed"
          data-dropped
        >
          {dropped} skipped
        </span>
      )}
    </>
  )
}

/** The playhead's time; pressed, another can be typed. It is met to the frame. */
function Playhead({ time }: { time: string }) {
  const [typing, setTyping] = useState(false)
  if (!typing)
    return (
      <button
        type="button"
        data-time
        aria-label={`The playhead is at ${time}: type another time`}
        title="Press to type a time"
        className="h-6 rounded-sm font-semibold hover:bg-spruce-700"
        onClick={() => setTyping(true)}
      >
        {time}
      </button>
    )
  const end = (raw: string | null) => {
    setTyping(false)
    if (raw === null || raw.trim() === '' || raw === time) return
    try {
      goToTime(engine.step(engine.time(raw), 0))
    } catch (e) {
      fail(e)
    }
  }
  return (
    <input
      autoFocus
      aria-label="Time of the playhead"
      defaultValue={time}
      className="h-6 w-18 rounded-sm bg-spruce-800 px-1 font-mono text-[0.8125rem]"
      onFocus={(e) => e.currentTarget.select()}
      onBlur={(e) => end(e.currentTarget.value)}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Enter') {
          end(e.currentTarget.value)
          document.querySelector<HTMLElement>('[data-desk]')?.focus()
        }
        if (e.key === 'Escape') {
          e.currentTarget.value = time
          e.currentTarget.blur()
        }
      }}
    />
  )
}

/** Finds rows by name. */
function Seek({ sought, onSeek }: { sought: string; onSeek: (v: string) => void }) {
  const field = useRef<HTMLInputElement>(null)
  const open = sought !== ''
  return (
    <span className="relative flex items-center">
      <Search
        size={14}
        strokeWidth={1.5}
        aria-hidden
        className="pointer-events-none absolute left-1.25 text-foam-300"
      />
      <input
        ref={field}
        aria-label="Find rows"
        value={sought}
        placeholder=""
        title="Find rows by name"
        onChange={(e) => onSeek(e.target.value)}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Escape') {
            onSeek('')
            e.currentTarget.blur()
          }
        }}
        className={clsx(
          'h-6 rounded-md bg-transparent pl-5.5 text-[0.75rem] text-foam-100 hover:bg-spruce-700',
          'focus:w-21 focus:bg-spruce-800',
          open ? 'w-21 bg-spruce-800' : 'w-6 cursor-pointer',
        )}
      />
      {open && (
        <button
          type="button"
          aria-label="Show all rows again"
          onClick={() => {
            onSeek('')
            field.current?.blur()
          }}
          className="absolute right-0 flex h-6 w-5 items-center justify-center text-foam-300"
        >
          <X size={12} />
        </button>
      )}
    </span>
  )
}

function PlayMenu() {
  const speed = useDesk((d) => d.speed)
  const marks = useDesk((d) => d.marks)
  const hushed = useDesk((d) => d.hushed)
  const sounds = useDesk((d) => d.sounds.rows.length > 0)
  const some = useDesk((d) => d.moves.length + d.selection.length + d.scenes.length > 0)
  const item = 'flex h-7 w-full items-center rounded-md px-2 text-left data-focus:bg-brass-200 data-disabled:opacity-45'
  const entry = (word: string, key: string, run: () => void, disabled = false) => (
    <MenuItem disabled={disabled}>
      <button type="button" className={item} onClick={run}>
        {word}
        <span className="ml-auto font-mono text-[0.6875rem] text-ink-500">{key}</span>
      </button>
    </MenuItem>
  )
  return (
    <Menu>
      <MenuButton
        aria-label="Ways to play"
        title="Ways to play, and how fast"
        className={clsx(
          'flex h-6.5 w-6 shrink-0 items-center justify-center rounded-md text-foam-300',
          'hover:bg-spruce-700',
        )}
      >
        <ChevronDown size={13} strokeWidth={1.5} />
      </MenuButton>
      <MenuItems
        anchor={{ to: 'top start', gap: 6, padding: 8 }}
        className={clsx(
          'z-50 w-61 rounded-md border border-sailcloth-300 bg-paper p-1 text-ink-900',
          'shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:outline-none',
        )}
      >
        {entry('From the playhead', 'space', () => !desk().playing && toggle())}
        {entry('The film', 'F', playFilm)}
        {entry('This scene', 'S', playScene)}
        {entry('What is selected', 'V', playSelection, !some)}
        {entry('Between the marks', 'B', playMarks, marks[0] === null)}
        {entry(
          marks[0] === null
            ? 'Set the first mark here'
            : marks[1] === null
              ? 'Set the second mark here'
              : 'Take the marks away',
          'M',
          mark,
        )}
        <div className="mx-2 my-1 h-px bg-sailcloth-300" />
        {sounds && entry(hushed ? 'With sound again' : 'In silence', '', () => setHushed(!hushed))}
        <div className="flex items-center gap-1 px-2 py-1" role="group" aria-label="Speed">
          <span className="flex-1">Speed</span>
          {[0.25, 0.5, 1, 2].map((v) => (
            <button
              key={v}
              type="button"
              aria-pressed={speed === v}
              aria-label={`Speed ${v}`}
              onClick={() => set({ speed: v })}
              className={clsx(
                'h-6.5 min-w-7.5 rounded-md px-1 font-mono text-[0.75rem]',
                speed === v ? 'bg-brass-200 font-semibold' : 'hover:bg-sailcloth-200',
              )}
            >
              {v}
            </button>
          ))}
        </div>
      </MenuItems>
    </Menu>
  )
}
