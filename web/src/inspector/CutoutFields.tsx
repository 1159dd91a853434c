// What of a picture is lifted off its ground: found by itself, by strokes, by colours, and how its edge is.
import { X } from 'lucide-react'
import { clsx } from 'clsx'
import { findForeground, leaveCutout, openCutout, recut, removeCutout, splitInTwo, stroke } from '../actions/cutout'
import { engine } from '../engine/engine'
import type { Cutout, Selected } from '../engine/types'
import { desk, set, useDesk, type CutForm, type CutHow, type CutView } from '../project/desk'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { Button, Label, Sign } from '../ui/controls'
import { NumberField } from '../ui/NumberField'
import { Fold } from '../ui/Section'

const hows: [CutHow, string, string][] = [
  ['keep', 'Keep', 'Draw over what stays; the border is found'],
  ['drop', 'Drop', 'Draw over the ground; the border is found'],
  ['within', 'Within', 'Draw around what stays: all outside is ground'],
  ['paint', 'Paint', 'By hand: what is painted stays'],
  ['rub', 'Rub out', 'By hand: what is rubbed goes'],
  ['key', 'Colour', 'Press the picture on a colour that goes'],
]

const forms: { value: CutForm; label: string }[] = [
  { value: '', label: 'Brush' },
  { value: 'box', label: 'Rectangle' },
  { value: 'area', label: 'Outline' },
]

const views: { value: CutView; label: string }[] = [
  { value: 'overlay', label: 'Ground hatched' },
  { value: 'chequers', label: 'Over checks' },
  { value: 'page', label: 'On the page' },
  { value: 'mask', label: 'Mask alone' },
]

const small = '!h-7 !px-1 text-[0.75rem]'

/** The cut-out of the one picture that is selected. */
export function CutoutFields({ one }: { one: Selected }) {
  const { cutting, cutTold, cutStands, cutBusy } = useDesk((d) => d)
  const { thread, picture, locked } = one.layer
  const cut = picture!.cut
  const lost = useDesk((d) => !!cut && d.missing.includes(cut.mask))
  const stale = cut && (lost || cut.of !== picture!.media)
  const open = cutting === thread
  return (
    // What is worked at comes first.
    <div className={open ? 'order-first' : ''}>
      <Fold key={open ? 1 : 0} title="Cut out" folded={!cut && !open}>
        <div className="flex flex-col gap-1.5 py-1" data-cutout>
          {stale && (
            <div className="rounded-md bg-brass-200 px-2 py-1 text-[0.75rem] text-ink-900" role="alert">
              <p>
                {lost
                  ? 'The mask of its cut-out is missing. The strokes are kept.'
                  : 'It was cut out when another picture was here. Nothing is cut now; the strokes are kept.'}
              </p>
              <Button className={clsx(small, 'mt-1 w-full')} onClick={() => recut((c) => ({ ...c }))}>
                {lost ? 'Make the mask again' : 'Cut this one out by them'}
              </Button>
            </div>
          )}
          <Button
            look={cut ? 'plain' : 'main'}
            className="!h-7 w-full text-[0.75rem]"
            disabled={cutBusy > 0 || locked}
            title="The foreground is looked for; strokes correct it"
            onClick={() => {
              openCutout(false)
              findForeground()
            }}
          >
            {cutBusy > 0 ? 'Looking …' : 'Find the foreground'}
          </Button>
          {cut?.ground && !stale && <Sides cut={cut} />}
          {open && cutStands && <p className="text-[0.75rem] text-ink-600">{cutStands}</p>}
          {open && cutTold && (
            <p className="rounded-md bg-brass-200 px-2 py-1 text-[0.75rem] text-ink-900" role="status">
              {cutTold}
            </p>
          )}
          {open && <Strokes thread={thread} />}
          {cut && !!cut.keys?.length && !stale && <Keys cut={cut} />}
          {cut && !stale && <Edge cut={cut} />}
          <div className="grid grid-cols-2 gap-1">
            <Button
              className={small}
              disabled={locked}
              onClick={() => (open ? leaveCutout() : openCutout())}
              aria-pressed={open}
            >
              {open ? 'Done' : 'On the page'}
            </Button>
            <Button className={small} disabled={!cut} onClick={() => removeCutout([thread])}>
              The whole picture
            </Button>
            <Button
              className={clsx(small, 'col-span-2')}
              disabled={!cut || stale || cutBusy > 0 || locked}
              title="In front what is kept, behind it the ground, its hole continued; what is added next goes between"
              onClick={splitInTwo}
            >
              Split in two
            </Button>
          </div>
        </div>
      </Fold>
    </div>
  )
}

/** Which sides of the picture are ground. */
function Sides({ cut }: { cut: Cutout }) {
  const names: [string, string, string][] = [
    ['l', 'Left', 'left'],
    ['t', 'Top', 'top'],
    ['r', 'Right', 'right'],
    ['b', 'Bottom', 'bottom'],
  ]
  return (
    <div role="group" aria-label="Sides of the picture that are ground">
      <Label>Ground reaches these sides</Label>
      <div className="mt-0.5 grid grid-cols-4 gap-1">
        {names.map(([side, label, name]) => {
          const on = cut.ground!.includes(side)
          return (
            <Button
              key={side}
              className={clsx(small, on && '!border-brass-700 !bg-brass-200')}
              aria-pressed={on}
              disabled={on && cut.ground!.length === 1}
              title={`The ${name} side is ${on ? '' : 'not '}ground`}
              onClick={() =>
                recut((c) => ({
                  ...c,
                  ground: [...'ltrb'].filter((s) => (s === side ? !on : c.ground?.includes(s))).join(''),
                }))
              }
            >
              {label}
            </Button>
          )
        })}
      </div>
    </div>
  )
}

/** What the next stroke says, and with what it is drawn. */
function Strokes({ thread }: { thread: string }) {
  const { cutHow, cutForm, cutWidth, cutSoft, cutView } = useDesk((d) => d)
  const hand = cutHow === 'paint' || cutHow === 'rub'
  const brush = cutHow !== 'key' && (cutForm === '' ? cutHow !== 'within' : false)
  return (
    <>
      <div className="grid grid-cols-3 gap-1" role="group" aria-label="What a stroke says">
        {hows.map(([how, label, title]) => (
          <Button
            key={how}
            className={clsx(small, cutHow === how && '!border-brass-700 !bg-brass-200')}
            aria-pressed={cutHow === how}
            title={title}
            onClick={() => set({ cutHow: how })}
          >
            {label}
          </Button>
        ))}
      </div>
      <div className="grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5">
        {cutHow !== 'key' && (
          <>
            <Label>Drawn as</Label>
            <Choice
              name="Drawn as"
              value={cutHow === 'within' && cutForm === '' ? 'area' : cutForm}
              of={cutHow === 'within' ? forms.slice(1) : forms}
              onSet={(v) => set({ cutForm: v })}
            />
          </>
        )}
        {brush && (
          <>
            <Label>Brush</Label>
            <div className="flex items-center gap-1.5">
              <input
                type="range"
                aria-label="Brush, slid"
                className="slide min-w-0 grow"
                min={1}
                max={200}
                value={Math.min(200, cutWidth)}
                onChange={(e) => set({ cutWidth: Number(e.target.value) })}
                onKeyDown={(e) => e.stopPropagation()}
              />
              <div className="w-16">
                <NumberField
                  quiet
                  name="Brush: width in px of the picture"
                  unit="px"
                  min={1}
                  max={2000}
                  value={cutWidth}
                  onSet={(v) => set({ cutWidth: v })}
                />
              </div>
            </div>
          </>
        )}
        {brush && hand && (
          <>
            <Label>Soft</Label>
            <NumberField
              quiet
              name="Brush: share of it that fades"
              unit="%"
              min={0}
              max={100}
              value={Math.round(cutSoft * 100)}
              onSet={(v) => set({ cutSoft: v / 100 })}
            />
          </>
        )}
        {cutHow !== 'key' && <ByLayer thread={thread} />}
        <Label>Shown</Label>
        <Choice name="Shown" value={cutView} of={views} onSet={(v) => set({ cutView: v })} />
      </div>
    </>
  )
}

/** A layer whose outline is a stroke. */
function ByLayer({ thread }: { thread: string }) {
  const rows = useDesk((d) => d.rows)
  const how = useDesk((d) => d.cutHow)
  const others = rows.filter((r) => r.here && r.thread !== thread && r.kind !== 'picture' && r.kind !== 'view')
  if (!others.length || how === 'key') return null
  return (
    <>
      <Label>Along</Label>
      <Choice
        name="The layer along whose outline it is drawn"
        value="none"
        of={[{ value: 'none', label: 'a layer …' }, ...others.map((r) => ({ value: r.thread, label: r.name }))]}
        onSet={(v) => {
          const points = engine.along(desk().moment, thread, v)
          if (points && points.length > 2) stroke({ how, form: 'area', points })
        }}
      />
    </>
  )
}

/** Colours that go. */
function Keys({ cut }: { cut: Cutout }) {
  return (
    <>
      <div className="flex flex-wrap items-center gap-1" role="group" aria-label="Colours that go">
        <Label className="w-14">Colours</Label>
        {cut.keys!.map((k, i) => (
          <Sign
            key={i}
            name={`Keep ${k.colour} again`}
            className="border border-sailcloth-500"
            style={{ background: k.colour }}
            onClick={() => recut((c) => ({ ...c, keys: c.keys?.filter((_, n) => n !== i) }))}
          >
            <X size={12} strokeWidth={2} color="#FFFDF8" style={{ filter: 'drop-shadow(0 0 1px #0C2523)' }} />
          </Sign>
        ))}
      </div>
      <div className="grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5">
        <Label>Near</Label>
        <NumberField
          quiet
          name="How near to one of them a colour goes"
          unit="%"
          digits={1}
          min={0}
          max={100}
          value={(cut.tolerance ?? 0) * 100}
          onSet={(v) => recut((c) => ({ ...c, tolerance: v / 100 }))}
        />
        <Label>Fading</Label>
        <NumberField
          quiet
          name="Over how much more it fades"
          unit="%"
          digits={1}
          min={0}
          max={100}
          value={(cut.softness ?? 0) * 100}
          onSet={(v) => recut((c) => ({ ...c, softness: v / 100 }))}
        />
        <Check
          name="Only what is joined to where it was picked"
          on={!!cut.joined}
          onSet={(joined) => recut((c) => ({ ...c, joined }))}
        />
      </div>
    </>
  )
}

/** How the edge is, and which side of it stays. */
function Edge({ cut }: { cut: Cutout }) {
  return (
    <div className="grid grid-cols-[2.75rem_1fr_2.75rem_1fr] items-center gap-x-1.5 gap-y-1.5">
      <NumberField
        quiet
        label="Spread"
        name="By how much the edge goes outwards; below 0: inwards"
        unit="px"
        digits={1}
        min={-50}
        max={50}
        value={cut.spread ?? 0}
        onSet={(spread) => recut((c) => ({ ...c, spread }))}
      />
      <NumberField
        quiet
        label="Soften"
        name="Over how much the edge fades"
        unit="px"
        digits={1}
        min={0}
        max={100}
        value={cut.soften ?? 0}
        onSet={(soften) => recut((c) => ({ ...c, soften }))}
      />
      <Check
        className="col-span-4"
        name="Turned round: what is kept goes, the rest stays"
        on={!!cut.inverted}
        onSet={(inverted) => recut((c) => ({ ...c, inverted }))}
      />
    </div>
  )
}
