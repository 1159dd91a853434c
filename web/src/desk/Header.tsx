// The header: the project, what the page shows, and export.
import { clsx } from 'clsx'
import { useEffect, useState } from 'react'
import { apply, closeProject } from '../project/commands'
import { ListFilter } from 'lucide-react'
import { editAfter, select, set, setOnNow, showAlone, setSolo, swapRest, useDesk } from '../project/desk'
import { TextField } from '../ui/TextField'
import { Button, Sign } from '../ui/controls'
import { filmTime } from '../time'
import { keyed } from '../ui/keymap'

export function Header({ narrow }: { narrow: boolean }) {
  const drawer = useDesk((d) => d.drawer)
  const room = useDesk((d) => d.room)
  const film = useDesk((d) => d.film)
  const scene = useDesk((d) => d.scene)
  if (!film) return null
  return (
    <header
      className={clsx(
        'flex min-h-9.25 shrink-0 flex-wrap items-center border-b border-sailcloth-300 bg-paper pl-3 pr-2',
        narrow && 'gap-y-0.5 py-0.5',
      )}
    >
      <div className="flex min-w-32 flex-1 items-center gap-2">
        <button
          type="button"
          className="flex h-7 w-7 shrink-0 items-center justify-center rounded-md hover:bg-sailcloth-200"
          title="All projects"
          aria-label="All projects"
          onClick={() => {
            closeProject()
            history.pushState(null, '', '/')
            window.dispatchEvent(new PopStateEvent('popstate'))
          }}
        >
          <img src="/mark.svg" alt="" className="h-5.5 w-5.5" />
        </button>
        <TextField
          key={film.name}
          name="Project name"
          value={film.name}
          onSet={(name) => apply({ op: 'project.rename', name })}
          className={clsx(
            '!w-auto max-w-90 truncate [field-sizing:content] !border-transparent !bg-transparent',
            'font-semibold hover:!border-sailcloth-500 focus:!bg-paper',
          )}
        />
        <Knot />
      </div>
      <div className={clsx('flex shrink-0 items-center gap-2 whitespace-nowrap', !narrow && 'px-4')}>
        <button
          type="button"
          className="h-6 rounded-md px-1.5 font-semibold hover:bg-sailcloth-200"
          title="Show the scene’s own settings"
          onClick={() => select([], '')}
        >
          {film.scenes[scene]?.name}
        </button>
        <Showing />
        <Alone />
      </div>
      <div className="flex flex-1 items-center justify-end gap-2 *:shrink-0 *:whitespace-nowrap">
        {room === 'timeline' && (
          <Button title={keyed('Show the desk again (T)')} onClick={() => showAlone('timeline')}>
            Desk and timeline
          </Button>
        )}
        {narrow && room !== 'timeline' && (
          <Button
            aria-expanded={drawer}
            className={drawer ? '!bg-brass-200' : ''}
            title={keyed('What is selected, in numbers (I)')}
            onClick={() => set({ drawer: !drawer })}
          >
            Inspector
          </Button>
        )}
        <Button
          onClick={() => set({ sheet: 'stages' })}
          title="Keep the project as it is now, and return to what it was"
        >
          Stages
        </Button>
        <Button
          onClick={() => set({ sheet: 'keys' })}
          title={keyed('Keyboard shortcuts (?)')}
          aria-label="Keyboard shortcuts"
          className="!px-2"
        >
          ?
        </Button>
        <Button look="main" onClick={() => set({ sheet: 'export' })}>
          Export film
        </Button>
      </div>
    </header>
  )
}

/** What the page shows, and the one key that swaps it. */
function Showing() {
  const rest = useDesk((d) => d.moment.rest)
  const onNow = useDesk((d) => d.onNow)
  const time = useDesk((d) => filmTime(d.moment.time))
  const after = useDesk((d) => d.after)
  const side = 'h-5.5 rounded-md px-2 text-[0.75rem]'
  if (after)
    return (
      <button
        type="button"
        data-after
        title="What is done to it now is what it becomes. Press, or Escape, when that is done."
        onClick={() => editAfter([])}
        className={clsx(side, 'flex items-center gap-2 bg-brass-400 font-semibold text-ink-900')}
      >
        {after.words}
        <span className="font-normal underline">done</span>
      </button>
    )
  return (
    <span className="flex items-center gap-1" role="group" aria-label="What the page shows">
      <button
        type="button"
        aria-pressed={!rest}
        title={keyed('The film at the playhead (A)')}
        onClick={() => rest && swapRest()}
        className={clsx(
          side,
          'font-mono font-semibold',
          rest ? 'text-ink-600 hover:bg-sailcloth-200' : 'bg-brass-200 text-ink-900',
        )}
      >
        at {time}
      </button>
      <button
        type="button"
        aria-pressed={rest}
        title={keyed('Every layer at its rest pose (A)')}
        onClick={() => !rest && swapRest()}
        className={clsx(side, rest ? 'bg-brass-200 font-semibold text-ink-900' : 'text-ink-600 hover:bg-sailcloth-200')}
      >
        at rest
      </button>
      <Sign
        name={onNow ? 'At rest, show all layers again (N)' : 'At rest, show only what is on at the playhead (N)'}
        pressed={onNow}
        className={onNow ? 'bg-brass-200' : 'text-ink-600 hover:bg-sailcloth-200'}
        onClick={() => setOnNow(!onNow)}
      >
        <ListFilter size={15} strokeWidth={1.5} />
      </Sign>
    </span>
  )
}

/** Says that some layers are looked at alone, and shows all again when it is pressed. */
function Alone() {
  const solo = useDesk((d) => d.solo)
  const name = useDesk((d) => d.rows.find((r) => r.thread === d.solo[0])?.name ?? 'A layer')
  if (solo.length === 0) return null
  return (
    <button
      type="button"
      title="Show all layers again"
      onClick={() => setSolo([])}
      className="flex h-6 items-center gap-1 rounded-md bg-brass-200 px-2 text-[0.75rem] font-semibold"
    >
      <span className="max-w-40 truncate">{solo.length === 1 ? name : `${solo.length} layers`}</span> alone
      <svg width="9" height="9" viewBox="0 0 9 9" aria-hidden>
        <path d="M1 1l7 7M8 1L1 8" stroke="currentColor" strokeWidth="1.5" />
      </svg>
    </button>
  )
}

/** A tied knot while all is stored; open, with words, while something is not. */
function Knot() {
  const pending = useDesk((d) => d.pending)
  const trouble = useDesk((d) => d.trouble)
  const [open, setOpen] = useState(false)
  const words = trouble ?? (pending > 0 ? 'Being stored …' : 'Everything is stored.')
  // It is said while storing takes longer than a moment.
  const [slow, setSlow] = useState(false)
  useEffect(() => {
    if (pending === 0) {
      setSlow(false)
      return
    }
    const t = setTimeout(() => setSlow(true), 250)
    return () => clearTimeout(t)
  }, [pending > 0])
  return (
    <span className="relative flex items-center">
      <button
        type="button"
        aria-label={words}
        title={words}
        onClick={() => setOpen(!open)}
        onBlur={() => setOpen(false)}
        data-knot={trouble ? 'open' : 'tied'}
        className="flex h-7 w-7 items-center justify-center rounded-md hover:bg-sailcloth-200"
      >
        <svg
          width="18"
          height="18"
          viewBox="0 0 18 18"
          fill="none"
          stroke={trouble ? '#AE3B21' : '#A8731A'}
          strokeWidth="1.6"
          strokeLinecap="round"
          aria-hidden
        >
          {trouble ? (
            <path d="M2 12c3 0 4-6 7-6M9 12c3 0 4-6 7-6" />
          ) : (
            <path d="M2 12c4 1 5-7 9-7 3 0 3 4 0 4-4 0-3-5 1-6M5 14c4 1 6-5 11-6" />
          )}
        </svg>
      </button>
      {!trouble && !open && (
        <span className={`text-[0.6875rem] text-ink-600 ${slow ? '' : 'max-[68.75rem]:hidden'}`}>
          {slow ? 'storing …' : 'stored'}
        </span>
      )}
      {(trouble || open) && (
        <span
          role="status"
          className={clsx(
            'absolute left-8 top-0.5 z-30 w-max max-w-105 rounded-md px-2 py-1 text-[0.75rem]',
            trouble ? 'bg-coral-700 text-paper' : 'bg-spruce-900 text-foam-100',
          )}
        >
          {words}
        </span>
      )}
    </span>
  )
}
