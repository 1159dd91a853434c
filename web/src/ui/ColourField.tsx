// A colour: the document's own colours first, then a wheel-free plane with a hue strip, and the code.
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import { useEffect, useState } from 'react'
import { HexAlphaColorPicker, HexColorPicker } from 'react-colorful'
import { useDesk } from '../project/desk'

/** A small chequered ground that shows through what is see-through, as a CSS background. */
export const chequers = 'repeating-conic-gradient(#d8ceba 0 25%, #fffdf8 0 50%) 0 0 / 8px 8px'

export function ColourField({ name, value, none, alpha, compact, onDraft, onSet }: {
  name: string; value: string | null; none?: boolean; alpha?: boolean; compact?: boolean; onDraft?: (v: string) => void; onSet: (v: string | null) => void
}) {
  return (
    <Popover className="relative">
      <PopoverButton
        aria-label={`${name}: ${value ?? 'none'}`} title={compact ? `${name}: ${value ?? 'mixed'}` : name}
        className={`flex h-[26px] items-center gap-2 rounded-md border border-sailcloth-300 bg-sailcloth-100 pl-1 hover:border-ink-500 ${compact ? 'w-[44px] pr-1' : 'pr-2'}`}
      >
        {compact ? <Swatch colour={value} size={18} wide /> : <Swatch colour={value} />}
        {!compact && <span className="font-mono text-[12px]">{value ?? 'none'}</span>}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom start', gap: 6, padding: 8 }}
        className="z-50 w-[248px] overflow-x-hidden! rounded-md border border-sailcloth-300 bg-paper p-4 shadow-[0_8px_28px_rgb(12_37_35/0.25)]"
        onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
      >
        {({ close }) => <Panel value={value} none={none} alpha={alpha} onDraft={onDraft} onSet={onSet} close={close} />}
      </PopoverPanel>
    </Popover>
  )
}

export function Swatch({ colour, size = 18, wide }: { colour: string | null; size?: number; wide?: boolean }) {
  return (
    <span className="relative inline-block shrink-0 overflow-hidden rounded-[4px] border border-ink-900/20" style={{ width: wide ? '100%' : size, height: size, background: colour ? `linear-gradient(${colour}, ${colour}), ${chequers}` : '#fffdf8' }}>
      {colour === null && <svg viewBox="0 0 18 18" className="absolute inset-0" aria-hidden><path d="M1 17L17 1" stroke="#AE3B21" strokeWidth="1.5" /></svg>}
    </span>
  )
}

function Panel({ value, none, alpha, onDraft, onSet, close }: {
  value: string | null; none?: boolean; alpha?: boolean; onDraft?: (v: string) => void; onSet: (v: string | null) => void; close: () => void
}) {
  const colours = useDesk((d) => d.colours)
  const Picker = alpha ? HexAlphaColorPicker : HexColorPicker
  const [now, setNow] = useState(value ?? '#d8573a')
  const [typed, setTyped] = useState(now)
  const [changed, setChanged] = useState(false)
  // A drag over the plane is shown as a draft; letting go sets it, as one step to undo.
  const settle = () => {
    if (changed) onSet(now)
    setChanged(false)
  }
  useEffect(() => setTyped(now), [now])
  return (
    <div>
      <p className="mb-1 text-[11px] text-ink-500">In this film</p>
      <div className="mb-3 flex flex-wrap gap-1">
        {none && (
          <button type="button" aria-label="No fill" title="No fill" className="h-6 w-6 rounded-md" onClick={() => { onSet(null); close() }}><Swatch colour={null} size={22} /></button>
        )}
        {colours.map((c) => (
          <button type="button" key={c} aria-label={`Colour ${c}`} title={c} className="h-6 w-6 rounded-md" onClick={() => { onSet(c); close() }}>
            <Swatch colour={c} size={22} />
          </button>
        ))}
      </div>
      <div onPointerUp={settle} onKeyUp={(e) => e.key.startsWith('Arrow') && settle()}>
        <Picker
          color={now} style={{ width: '100%', height: alpha ? 164 : 140 }}
          onChange={(c) => { setNow(c); setChanged(true); onDraft?.(c) }}
        />
      </div>
      <label className="mt-3 flex items-center gap-2 text-[12px] text-ink-600">
        Code
        <input
          className="h-[26px] w-full rounded-md border border-sailcloth-300 bg-sailcloth-100 px-2 font-mono text-[12px] text-ink-900"
          value={typed} onChange={(e) => setTyped(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== 'Enter') return
            const hex = typed.trim().replace(/^#?/, '#').toLowerCase()
            if (/^#([0-9a-f]{3}|[0-9a-f]{6}|[0-9a-f]{8})$/.test(hex)) { onSet(hex); close() }
          }}
        />
      </label>
    </div>
  )
}
