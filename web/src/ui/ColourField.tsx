// A colour: the scene's roles and the document's own colours first, then its tones, what was put aside and used last, a
// plane with strips, the code, and a pick from the page.
import { clsx } from 'clsx'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import { Pipette, Plus, X } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { HexAlphaColorPicker, HexColorPicker } from 'react-colorful'
import { engine } from '../engine/engine'
import { run } from '../project/commands'
import { desk, set, useDesk } from '../project/desk'
import { Sign } from './controls'
import { recent, used } from './recent'
import { counted } from '../words'

/** A colour that may be a tone of a role of the scene. */
export interface Ink {
  colour: string
  role?: string
  tone?: number
}

/** The fields of a patch that give something an ink. */
export const inkPatch = (v: Ink) => ({ colour: v.colour, role: v.role ?? null, tone: v.tone || null })

/** A small chequered ground that shows through what is see-through, as a CSS background. */
export const chequers = 'repeating-conic-gradient(#d8ceba 0 25%, #fffdf8 0 50%) 0 0 / 8px 8px'

/** What an ink is called: its code, or its role and the step from it. */
export const inkName = (v: Ink) =>
  v.role ? `${v.role}${v.tone ? ` ${v.tone > 0 ? '+' : '−'}${Math.abs(v.tone)}` : ''}` : v.colour

export function ColourField({
  name,
  value,
  none,
  alpha,
  compact,
  plain,
  onDraft,
  onSet,
}: {
  name: string
  value: Ink | null
  none?: boolean
  alpha?: boolean
  compact?: boolean
  plain?: boolean
  onDraft?: (v: Ink) => void
  onSet: (v: Ink | null) => void
}) {
  // Where there is always a colour, several that differ have none in common.
  const says = value ? inkName(value) : none ? 'none' : 'mixed'
  return (
    <Popover className="relative">
      <PopoverButton
        aria-label={`${name}: ${says}`}
        title={compact ? `${name}: ${value ? inkName(value) : 'mixed'}` : name}
        className={clsx(
          'flex h-6.5 items-center gap-2 rounded-md border border-sailcloth-500 bg-sailcloth-100',
          'pl-1 hover:border-ink-500',
          compact ? 'w-11 pr-1' : 'max-w-full pr-2',
        )}
      >
        {compact ? (
          <Swatch colour={value?.colour ?? null} size={18} wide role={!!value?.role} />
        ) : (
          <Swatch colour={value?.colour ?? null} role={!!value?.role} />
        )}
        {!compact && <span className={`truncate text-[0.75rem] ${value?.role ? '' : 'font-mono'}`}>{says}</span>}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom start', gap: 6, padding: 8 }}
        className={clsx(
          'thin-scroll z-50 w-64 overflow-x-hidden! rounded-md border border-sailcloth-300',
          'bg-paper p-3.5 shadow-[0_8px_28px_rgb(12_37_35/0.25)]',
        )}
        onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
      >
        {({ close }) => (
          <Panel value={value} none={none} alpha={alpha} plain={plain} onDraft={onDraft} onSet={onSet} close={close} />
        )}
      </PopoverPanel>
    </Popover>
  )
}

export function Swatch({
  colour,
  size = 18,
  wide,
  role,
}: {
  colour: string | null
  size?: number
  wide?: boolean
  role?: boolean
}) {
  return (
    <span
      className="relative inline-block shrink-0 overflow-hidden rounded-[4px] border border-ink-900/20"
      style={{
        width: wide ? '100%' : size,
        height: size,
        background: colour ? `linear-gradient(${colour}, ${colour}), ${chequers}` : '#fffdf8',
      }}
    >
      {colour === null && (
        <svg viewBox="0 0 18 18" className="absolute inset-0" aria-hidden>
          <path d="M1 17L17 1" stroke="#AE3B21" strokeWidth="1.5" />
        </svg>
      )}
      {role && (
        <svg viewBox="0 0 8 8" width="8" height="8" className="absolute bottom-0 right-0" aria-hidden>
          <path d="M8 0V8H0Z" fill="#FFFDF8" />
          <path d="M8 2.500V8H2.500Z" fill="#A8731A" />
        </svg>
      )}
    </span>
  )
}

function Panel({
  value,
  none,
  alpha,
  plain,
  onDraft,
  onSet,
  close,
}: {
  value: Ink | null
  none?: boolean
  alpha?: boolean
  plain?: boolean
  onDraft?: (v: Ink) => void
  onSet: (v: Ink | null) => void
  close: () => void
}) {
  const colours = useDesk((d) => d.colours)
  const roles = useDesk((d) => d.film?.scenes[d.scene]?.roles ?? [])
  const palette = useDesk((d) => d.film?.palette ?? [])
  const Picker = alpha ? HexAlphaColorPicker : HexColorPicker
  const [now, setNow] = useState<Ink>(value ?? { colour: '#d8573a' })
  const [typed, setTyped] = useState(now.colour)
  const [changed, setChanged] = useState(false)
  // Tones are those of the role, or else of the colour itself; clear colours have none.
  const base = now.role ? (roles.find((r) => r.name === now.role)?.colour ?? now.colour) : now.colour.slice(0, 7)
  const tones = useMemo(() => engine.tones(base), [base])
  const choose = (v: Ink | null, stay = false) => {
    if (v) {
      used(v.colour)
      setNow(v)
    }
    onSet(v)
    if (!stay) close()
  }
  // A drag over the plane is shown as a draft; letting go sets it, as one step to undo.
  const settle = () => {
    if (changed) choose(now, true)
    setChanged(false)
  }
  useEffect(() => setTyped(now.colour), [now])
  const one = (v: Ink, label: string, on = false) => (
    <button
      type="button"
      key={label}
      aria-label={label}
      title={label}
      aria-pressed={on}
      className={`h-6 w-6 rounded-md ${on ? 'ring-2 ring-brass-600' : ''}`}
      onClick={() => choose(v, true)}
    >
      <Swatch colour={v.colour} size={22} role={!!v.role} />
    </button>
  )
  const saved = palette.includes(now.colour)
  return (
    <div>
      {roles.length > 0 && !plain && (
        <Row title="Roles of this scene">
          {roles.map((r) => one({ colour: r.colour, role: r.name }, r.name, now.role === r.name && !now.tone))}
        </Row>
      )}
      <Row title="In this film">
        {none && (
          <button
            type="button"
            aria-label="None"
            title="None"
            className="h-6 w-6 rounded-md"
            onClick={() => choose(null)}
          >
            <Swatch colour={null} size={22} />
          </button>
        )}
        {colours.map((c) => one({ colour: c }, `Colour ${c}`, !now.role && now.colour === c))}
      </Row>
      <Row title={now.role ? `Tones of ${now.role}` : 'Tones'}>
        <span className="flex overflow-hidden rounded-[4px] border border-ink-900/20">
          {tones.map((c, i) => {
            const step = i - 5
            const on = now.role ? (now.tone ?? 0) === step : step === 0
            const label =
              step === 0 ? 'As it is' : `${counted(Math.abs(step), 'step')} ${step > 0 ? 'lighter' : 'darker'}`
            return (
              <button
                type="button"
                key={step}
                aria-label={label}
                title={`${label}: ${c}`}
                aria-pressed={on}
                onClick={() => choose(now.role ? { colour: c, role: now.role, tone: step } : { colour: c }, true)}
                className={`relative h-6 w-5 ${on ? 'z-10 ring-2 ring-brass-600' : ''}`}
                style={{ background: c }}
              />
            )
          })}
        </span>
      </Row>
      <Row title="Put aside">
        {palette.map((c) => one({ colour: c }, `Put aside: ${c}`))}
        <Sign
          name={saved ? 'Take this colour out of what is put aside' : 'Put this colour aside'}
          className="!h-6 !w-6 border border-sailcloth-500 hover:bg-sailcloth-200"
          onClick={() => run('palette.set', { colour: now.colour, gone: saved })}
        >
          {saved ? <X size={14} strokeWidth={1.5} /> : <Plus size={14} strokeWidth={1.5} />}
        </Sign>
      </Row>
      {recent().length > 0 && <Row title="Used last">{recent().map((c) => one({ colour: c }, `Used last: ${c}`))}</Row>}
      <div onPointerUp={settle} onKeyUp={(e) => e.key.startsWith('Arrow') && settle()}>
        <Picker
          color={now.colour}
          style={{ width: '100%', height: alpha ? 150 : 128 }}
          onChange={(c) => {
            setNow({ colour: c })
            setChanged(true)
            onDraft?.({ colour: c })
          }}
        />
      </div>
      <div className="mt-2.5 flex items-center gap-2 text-[0.75rem] text-ink-600">
        <label className="flex min-w-0 flex-1 items-center gap-2">
          Code
          <input
            className={clsx(
              'h-6.5 w-full min-w-0 rounded-md border border-sailcloth-500 bg-sailcloth-100 px-2',
              'font-mono text-[0.75rem] text-ink-900',
            )}
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onKeyDown={(e) => {
              if (e.key !== 'Enter') return
              e.preventDefault() // else the button, which has the focus then, opens the panel again
              const hex = typed.trim().replace(/^#?/, '#').toLowerCase()
              if (/^#([0-9a-f]{3}|[0-9a-f]{6}|[0-9a-f]{8})$/.test(hex)) choose({ colour: hex })
            }}
          />
        </label>
        <Sign
          name="Pick a colour from the page"
          className="border border-sailcloth-500 hover:bg-sailcloth-200"
          onClick={() => {
            set({
              picking: (c) => {
                used(c)
                onSet({ colour: c })
              },
            })
            close()
            desk()
          }}
        >
          <Pipette size={15} strokeWidth={1.5} />
        </Sign>
      </div>
    </div>
  )
}

function Row({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <>
      <p className="mb-1 text-[0.6875rem] text-ink-600">{title}</p>
      <div className="mb-2.5 flex flex-wrap gap-1">{children}</div>
    </>
  )
}
