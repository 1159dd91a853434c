import { set } from '../project/desk'
import { Sheet } from '../ui/controls'
import { shortcuts } from './keys'

const words: Record<string, string> = { ArrowLeft: '←', ArrowRight: '→', ArrowUp: '↑', ArrowDown: '↓', PageUp: 'Page up', PageDown: 'Page down' }

const more = [
  ['Shift, dragging', 'level or upright; equal sides; turns by 15 degrees'],
  ['Wheel on the page', 'zoom at the pointer; with Shift, to the side'],
  ['Space and drag', 'move the page about'],
  ['Double click', 'into a group; into the words of a text'],
  ['Alt, dragging a bar', 'snaps to nothing'],
  ['Ctrl, letting go of a bar', 'hangs it on what it has snapped to'],
  ['From the ring beside a bar', 'drag a hitch to another bar’s end'],
  ['Shift on bars, scenes', 'select several; drag a frame around bars'],
  ['Shift on the ruler', 'mark a stretch to play'],
  ['Twice on a bar', 'type its times; on a cue, its name'],
  ['On a bar: ← →', 'one frame; with Ctrl 0.1 s; with Shift its end; ↑ ↓ next bar, with Shift both'],
  ['On a scene: ← →', 'next scene; with Ctrl moves it; with Shift selects'],
  ['On a row: ↑ ↓ ← →', 'next row; fold and unfold; → to its bars'],
]

export function Shortcuts() {
  const groups = [...new Set(shortcuts.map((s) => s.group))]
  return (
    <Sheet title="Keyboard and pointer" wide onClose={() => set({ sheet: 'none' })}>
      <div className="columns-3 gap-8 px-5 py-4 text-[12px]">
        {groups.map((g) => (
          <section key={g} className="mb-4 break-inside-avoid">
            <h2 className="mb-1 text-[13px] font-semibold">{g}</h2>
            <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
              {merge(shortcuts.filter((s) => s.group === g)).map(([keys, does]) => [
                <dt key={`${does}k`} className="font-mono text-[11px] font-semibold leading-[18px]">{keys}</dt>, <dd key={does}>{does}</dd>,
              ])}
            </dl>
          </section>
        ))}
        <section className="break-inside-avoid">
          <h2 className="mb-1 text-[13px] font-semibold">Pointer</h2>
          <dl className="grid gap-y-1">
            {more.map(([k, d]) => <div key={k}><dt className="inline font-semibold">{k}: </dt><dd className="inline">{d}</dd></div>)}
          </dl>
        </section>
      </div>
    </Sheet>
  )
}

// Keys that do the same stand in one line.
function merge(list: { keys: string; does: string }[]): [string, string][] {
  const out = new Map<string, string[]>()
  for (const s of list) {
    const name = s.keys.split('+').map((k) => words[k] ?? k).join(' ')
    out.set(s.does, [...(out.get(s.does) ?? []), name])
  }
  return [...out].map(([does, keys]) => [keys.length > 2 ? keys.map((k) => k.replace('Shift ', '')).join(' ') : keys.join(', '), does.includes('10 px') ? `${does}, with Shift` : does])
}
