// Copies of what is selected, in a row, a grid or around a centre, shown while the numbers are chosen.
import { clsx } from 'clsx'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import { useEffect, useState } from 'react'
import type { Selected } from '../engine/types'
import { draftOnPage, run } from '../project/commands'
import { desk, dropDraft, selectNew } from '../project/desk'
import { Check } from '../ui/Check'
import { NumberField } from '../ui/NumberField'
import { Button } from '../ui/controls'
import { Signs } from './Signs'

const ways = [
  ['row', 'In a row', 'along row'],
  ['grid', 'In a grid', 'along grid'],
  ['ring', 'Around a centre', 'along ring'],
] as const

export function Copies({ selected }: { selected: Selected[] }) {
  return (
    <Popover className="mt-1.5">
      <PopoverButton
        className={clsx(
          'inline-flex h-6.5 w-full items-center justify-center gap-1.5 rounded-md border',
          'border-sailcloth-500 bg-paper px-3 font-semibold hover:bg-sailcloth-100',
        )}
      >
        Copies in a row, a grid, a ring …
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom end', gap: 6, padding: 8 }}
        className={clsx(
          'z-50 w-69 rounded-md border border-sailcloth-300 bg-paper p-3.5',
          'shadow-[0_8px_28px_rgb(12_37_35/0.25)]',
        )}
        onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
      >
        {({ close }) => <Panel selected={selected} close={close} />}
      </PopoverPanel>
    </Popover>
  )
}

function Panel({ selected, close }: { selected: Selected[]; close: () => void }) {
  const [w, h] = [selected[0].box[2], selected[0].box[3]]
  const [v, setV] = useState({
    along: 'row',
    n: 5,
    rows: 3,
    gapX: Math.round(w / 4),
    gapY: 0,
    radius: Math.round(Math.max(w, h)),
    sweep: 360,
    upright: false,
  })
  const args = { threads: selected.map((s) => s.layer.thread), ...v }
  const choose = (p: Partial<typeof v>) => setV({ ...v, ...p })
  useEffect(() => {
    draftOnPage('copies', args)
  }, [v]) // what is shown follows the numbers
  useEffect(
    () => () => {
      if (desk().project) dropDraft()
    },
    [],
  )
  const make = () => {
    dropDraft()
    const before = new Set(desk().rows.map((r) => r.thread))
    if (run('copies', args)) selectNew(before)
    close()
  }
  const grid = 'mt-2 grid grid-cols-[3rem_1fr_2.875rem_1fr] items-center gap-x-2 gap-y-1.5'
  return (
    <div>
      <Signs
        name="How copies lie"
        value={v.along}
        of={ways}
        onSet={(along) => choose({ along, gapY: along === 'grid' ? Math.round(h / 4) : 0 })}
      />
      <div className={grid}>
        <NumberField
          quiet
          label={v.along === 'grid' ? 'Across' : 'In all'}
          name="How many"
          min={1}
          max={500}
          value={v.n}
          onSet={(n) => choose({ n: Math.round(n) })}
        />
        {v.along === 'grid' && (
          <NumberField
            quiet
            label="Rows"
            name="Rows"
            min={1}
            max={500}
            value={v.rows}
            onSet={(rows) => choose({ rows: Math.round(rows) })}
          />
        )}
        {v.along === 'ring' && (
          <NumberField
            quiet
            label="Radius"
            name="Radius"
            unit="px"
            min={0}
            value={v.radius}
            onSet={(radius) => choose({ radius })}
          />
        )}
        {v.along === 'row' && (
          <NumberField quiet label="Gap" name="Gap" unit="px" value={v.gapX} onSet={(gapX) => choose({ gapX })} />
        )}
        {v.along === 'row' && (
          <NumberField
            quiet
            label="Down"
            name="Each so much lower"
            unit="px"
            value={v.gapY}
            onSet={(gapY) => choose({ gapY })}
          />
        )}
        {v.along === 'grid' && (
          <NumberField
            quiet
            label="Gap"
            name="Gap across"
            unit="px"
            value={v.gapX}
            onSet={(gapX) => choose({ gapX })}
          />
        )}
        {v.along === 'grid' && (
          <NumberField quiet label="down" name="Gap down" unit="px" value={v.gapY} onSet={(gapY) => choose({ gapY })} />
        )}
        {v.along === 'ring' && (
          <NumberField
            quiet
            label="Over"
            name="Over how many degrees"
            unit="°"
            min={-360}
            max={360}
            value={v.sweep}
            onSet={(sweep) => choose({ sweep })}
          />
        )}
      </div>
      {v.along === 'ring' && (
        <div className="mt-1.5">
          <Check name="Each stays as it is turned" on={v.upright} onSet={(upright) => choose({ upright })} />
          <p className="mt-1 text-[0.6875rem] text-ink-600">
            The centre lies below by the radius, or is the layer’s own pivot.
          </p>
        </div>
      )}
      <Button look="main" className="mt-3 w-full" onClick={make}>
        Lay out {v.along === 'grid' ? v.n * v.rows : v.n}
      </Button>
    </div>
  )
}
