// The sheet of keys: what each does, and another key for it where one is wanted.
import { clsx } from 'clsx'
import { Pin } from 'lucide-react'
import { useState } from 'react'
import { fail, mended, set } from '../project/desk'
import { Check } from '../ui/Check'
import { Sheet } from '../ui/Sheet'
import { Button, Sign } from '../ui/controls'
import { pin, usePins } from '../ui/pins'
import { changeKey, keyNow, keysAsTheyCame, nameOf, single, switchSingle, useKeymap } from '../ui/keymap'
import { fault } from '../words'
import { shortcuts, type Shortcut } from './shortcuts'

const words: Record<string, string> = {
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  PageUp: 'Page up',
  PageDown: 'Page down',
}

const more = [
  ['Shift, dragging', 'level or upright; equal sides; turns by 15 degrees'],
  ['Escape, dragging', 'everything goes back to where it was'],
  ['Wheel on the page', 'zoom at the pointer; with Shift, to the side'],
  ['Space and drag', 'move the page about'],
  ['Double click', 'into a group; into the words of a text'],
  ['Alt, dragging a bar', 'snaps to nothing'],
  ['Ctrl, letting go of a bar', 'hangs it on what it has snapped to'],
  ['From the ring beside a bar', 'drag a hitch to the bar that it follows'],
  ['Shift on rows', 'select from one to the other; Ctrl adds one, or takes it off'],
  ['Shift on bars, scenes', 'select several; drag a frame around bars'],
  ['Shift on the ruler', 'mark a stretch to play'],
  ['Twice on a bar', 'type its times; on a cue, its name'],
  ['On a bar: ← →', 'one frame; with Ctrl 0.1 s; with Shift its end; ↑ ↓ next bar, with Shift both'],
  ['On a scene: ← →', 'next scene; with Ctrl moves it; with Shift selects'],
  ['On a row: ↑ ↓ ← →', 'next row; fold and unfold; → to its bars'],
]

export function Shortcuts() {
  const groups = [...new Set(shortcuts.map((s) => s.group))]
  const { own, off } = useKeymap()
  const [asked, setAsked] = useState('') // the keys, as they came, that get others next
  const changed = off || Object.keys(own).length > 0
  return (
    <Sheet title="Keyboard and pointer" wide onClose={() => set({ sheet: 'none' })}>
      <div className="flex min-h-10.5 items-center gap-4 border-b border-sailcloth-300 px-5 py-2 text-[0.75rem]">
        <span className="w-62.5">
          <Check name="Keys of one character, without Ctrl" on={!off} onSet={switchSingle} />
        </span>
        <span className="flex-1 text-ink-600">
          They and the arrows work while the page, a row, a bar or a scene has the keyboard. Press a key below to give
          it another.
        </span>
        {changed && <Button onClick={keysAsTheyCame}>As they came</Button>}
      </div>
      <div className="columns-3 gap-8 px-5 py-4 text-[0.75rem]">
        {groups.map((g) => (
          <section key={g} className="mb-4 break-inside-avoid">
            <h2 className="mb-1 text-[0.8125rem] font-semibold">{g}</h2>
            <dl className="grid grid-cols-[auto_1fr] gap-x-2 gap-y-0.5">
              {merge(shortcuts.filter((s) => s.group === g)).map(([does, list]) => [
                <dt key={`${does}k`} className="flex max-w-28 flex-wrap content-start">
                  {list.map((s) => (
                    <Key
                      key={s.keys}
                      of={s}
                      asked={asked === s.keys}
                      off={off && single(own[s.keys] ?? s.keys)}
                      onAsk={(on) => setAsked(on ? s.keys : '')}
                    />
                  ))}
                </dt>,
                <dd key={does} className="group flex items-start gap-1 pt-[3px] leading-[1.125rem]">
                  <span className="min-w-0 flex-1">{does}</span>
                  <PinSign of={list[0]} />
                </dd>,
              ])}
            </dl>
          </section>
        ))}
        <section className="break-inside-avoid">
          <h2 className="mb-1 text-[0.8125rem] font-semibold">Pointer</h2>
          <dl className="grid gap-y-1">
            {more.map(([k, d]) => (
              <div key={k}>
                <dt className="inline font-semibold">{k}: </dt>
                <dd className="inline">{d}</dd>
              </div>
            ))}
          </dl>
        </section>
      </div>
    </Sheet>
  )
}

/** Pins a command to the rail, or takes it off. */
function PinSign({ of }: { of: Shortcut }) {
  const on = usePins((p) => p.pins.includes(of.keys))
  return (
    <Sign
      name={on ? `On the rail: ${of.does}. Take it off` : `Pin to the rail: ${of.does}`}
      pressed={on}
      className={clsx(
        '-my-1 !h-6 !w-6',
        on
          ? 'text-brass-700'
          : ['text-ink-500 opacity-0 hover:bg-sailcloth-200 focus-visible:opacity-100', 'group-hover:opacity-100'],
      )}
      onClick={() => pin(of.keys)}
    >
      <Pin size={13} strokeWidth={1.5} fill={on ? 'currentColor' : 'none'} />
    </Sign>
  )
}

/** One key. Pressed, it takes the next key that is pressed instead; Escape leaves it. */
function Key({ of, asked, off, onAsk }: { of: Shortcut; asked: boolean; off: boolean; onAsk: (on: boolean) => void }) {
  const { own } = useKeymap()
  const now = own[of.keys] ?? of.keys
  const take = (e: React.KeyboardEvent) => {
    if (!asked) return
    e.preventDefault()
    e.stopPropagation()
    const name = nameOf(e)
    if (!name) return
    onAsk(false)
    if (e.key === 'Escape') return
    const other = shortcuts.find((s) => s !== of && keyNow(s.keys) === name)
    if (other) fail(new Error(fault('keys.taken', shown(name), other.does)), 'keys')
    else {
      mended('keys')
      changeKey(of.keys, name)
    }
  }
  return (
    <button
      type="button"
      aria-label={`${shown(now)}: ${of.does}. Give it another key`}
      aria-pressed={asked}
      onClick={() => onAsk(!asked)}
      onKeyDown={take}
      onBlur={() => asked && onAsk(false)}
      className={clsx(
        'min-h-6 min-w-6 whitespace-nowrap rounded-md px-1 text-left font-mono text-[0.6875rem] font-semibold',
        asked
          ? 'bg-brass-200'
          : now !== of.keys
            ? 'bg-sailcloth-100 text-brass-700 hover:bg-sailcloth-200'
            : 'hover:bg-sailcloth-200',
        off ? 'line-through opacity-60' : '',
      )}
    >
      {asked ? 'press a key' : shown(now)}
    </button>
  )
}

const shown = (keys: string) =>
  keys
    .split(/\+(?=.)/)
    .map((k) => words[k] ?? k)
    .join(' ')

/** Keys that do the same stand in one line. */
function merge(list: Shortcut[]): [string, Shortcut[]][] {
  const out = new Map<string, Shortcut[]>()
  for (const s of list) out.set(s.does, [...(out.get(s.does) ?? []), s])
  return [...out]
}
