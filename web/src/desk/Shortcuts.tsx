// The sheet of keys: what each does, and another key for it where one is wanted.
import { clsx } from 'clsx'
import { useState } from 'react'
import { fail, mended, set } from '../project/desk'
import { Button, Check, Sheet } from '../ui/controls'
import { changeKey, keyNow, keysAsTheyCame, nameOf, single, switchSingle, useKeymap } from '../ui/keymap'
import { fault } from '../words'
import { shortcuts, type Shortcut } from './keys'

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
      <div className="flex min-h-[42px] items-center gap-4 border-b border-sailcloth-300 px-5 py-2 text-[12px]">
        <span className="w-[250px]">
          <Check name="Keys of one character, without Ctrl" on={!off} onSet={switchSingle} />
        </span>
        <span className="flex-1 text-ink-600">
          They and the arrows work while the page, a row, a bar or a scene has the keyboard. Press a key below to give
          it another.
        </span>
        {changed && <Button onClick={keysAsTheyCame}>As they came</Button>}
      </div>
      <div className="columns-3 gap-8 px-5 py-4 text-[12px]">
        {groups.map((g) => (
          <section key={g} className="mb-4 break-inside-avoid">
            <h2 className="mb-1 text-[13px] font-semibold">{g}</h2>
            <dl className="grid grid-cols-[auto_1fr] gap-x-2 gap-y-0.5">
              {merge(shortcuts.filter((s) => s.group === g)).map(([does, list]) => [
                <dt key={`${does}k`} className="flex max-w-[112px] flex-wrap content-start">
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
                <dd key={does} className="pt-[3px] leading-[18px]">
                  {does}
                </dd>,
              ])}
            </dl>
          </section>
        ))}
        <section className="break-inside-avoid">
          <h2 className="mb-1 text-[13px] font-semibold">Pointer</h2>
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
        'min-h-6 whitespace-nowrap rounded-md px-1 font-mono text-[11px] font-semibold',
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
