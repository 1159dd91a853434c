// Variants: a table whose rows fill texts, pictures and colour roles, seen side by side, then exported in one press.
import { Plus, X } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { apply } from '../project/commands'
import { fail, set, useDesk } from '../project/desk'
import { Choice } from '../ui/Choice'
import { Check } from '../ui/Check'
import { Sheet } from '../ui/Sheet'
import { Button, Sign } from '../ui/controls'
import { counted } from '../words'
import { Cell } from './Cell'
import { framesOf, readTable, variantsOf, type Table, type Variants } from './server'

const most = 24 // rows that the server tells at once

export function VariantsSheet() {
  const project = useDesk((d) => d.project)!
  const film = useDesk((d) => d.film)!
  const pending = useDesk((d) => d.pending)
  const [told, setTold] = useState<Variants | null>(null)
  const [from, setFrom] = useState(0)
  const [scene, setScene] = useState(0)
  const [left, setLeft] = useState<number[]>([]) // rows that are not exported
  const [pasting, setPasting] = useState(false)
  const input = useRef<HTMLInputElement>(null)
  useEffect(() => {
    if (pending > 0) return
    let gone = false
    variantsOf(project, film.film ?? '', from).then((v) => !gone && setTold(v), fail)
    return () => {
      gone = true
    }
  }, [project, film, pending, from])
  const keep = (table: Table) => {
    setLeft([])
    setFrom(0)
    setPasting(false)
    apply({ op: 'table.set', table })
  }
  const take = (text: string) => readTable(text).then(keep, fail)
  const table = told?.table ?? null
  const chosen = table ? table.rows.map((_, i) => i + 1).filter((row) => !left.includes(row)) : []
  const without = told?.without ?? []
  const frame = framesOf(project, film.film ?? '', told?.revision ?? 0)
  return (
    <Sheet title="Variants from a table" wide onClose={() => set({ sheet: 'none' })}>
      <div
        className="flex flex-wrap items-center gap-2 border-b border-sailcloth-300 px-5 py-3"
        data-variants={told?.revision}
      >
        <Button data-autofocus aria-expanded={pasting} onClick={() => setPasting(!pasting)}>
          Paste a table …
        </Button>
        <Button onClick={() => input.current?.click()}>Open CSV …</Button>
        {table && (
          <>
            <span className="ml-auto w-52">
              <Choice
                name="Scene that is shown"
                value={String(scene)}
                of={film.scenes.slice(0, film.shown).map((s, i) => ({ value: String(i), label: s.name }))}
                onSet={(v) => setScene(Number(v))}
              />
            </span>
            <Button look="danger" onClick={() => apply({ op: 'table.set' })}>
              Delete table
            </Button>
          </>
        )}
        <input
          ref={input}
          type="file"
          accept=".csv,.tsv,.txt,text/csv,text/tab-separated-values,text/plain"
          hidden
          aria-label="File of a table"
          data-table-input
          onChange={(e) => {
            const file = e.target.files?.[0]
            if (file) void file.text().then(take)
            e.target.value = ''
          }}
        />
      </div>
      {pasting && <Paste onTake={take} />}
      {told && !table && !pasting && <NoTable told={told} onStart={() => keep(told.starts)} />}
      {told && table && (
        <>
          <ul className="grid grid-cols-4 gap-3 px-5 pt-4 max-[54rem]:grid-cols-2" aria-label="Variants side by side">
            {told.rows.map((v) => (
              <li key={v.row} data-variant={v.row} className={left.includes(v.row) ? 'opacity-50' : ''}>
                <img
                  src={frame(v.row, scene)}
                  alt={`Variant ${v.row}, ${v.name}`}
                  className="w-full rounded-[4px] border border-sailcloth-300"
                  style={{ aspectRatio: film.width / film.height }}
                />
                <span className="mt-1 flex items-center gap-1.5 text-[0.75rem] font-semibold">
                  <Check
                    className="min-w-0"
                    name={`Export variant ${v.row}, ${v.name}`}
                    on={!left.includes(v.row)}
                    onSet={(on) => setLeft(on ? left.filter((r) => r !== v.row) : [...left, v.row])}
                  >
                    <span className="truncate" title={v.name}>
                      {v.row} {v.name}
                    </span>
                  </Check>
                </span>
                {v.troubles.map((t, i) => (
                  <p key={i} className="mt-0.5 text-[0.75rem] text-coral-700">
                    {t.column && `${t.column}: `}
                    {t.says}
                  </p>
                ))}
              </li>
            ))}
          </ul>
          {table.rows.length > most && (
            <p className="flex items-center gap-2 px-5 pt-2 text-[0.75rem] text-ink-600">
              Rows {from + 1} to {Math.min(from + most, table.rows.length)} of {table.rows.length}
              <Button disabled={from === 0} onClick={() => setFrom(from - most)}>
                Earlier
              </Button>
              <Button disabled={from + most >= table.rows.length} onClick={() => setFrom(from + most)}>
                Later
              </Button>
            </p>
          )}
          <Grid table={table} fills={told.fills} from={from} onTable={keep} />
          {without.length > 0 && (
            <p className="flex flex-wrap items-center gap-1.5 px-5 pt-2 text-[0.75rem] text-ink-600">
              Without a column:
              {without.map((n) => (
                <button
                  key={n.kind + n.name}
                  type="button"
                  className="h-5.5 rounded-full border border-sailcloth-500 px-2 hover:bg-sailcloth-100"
                  onClick={() =>
                    keep({ columns: [...table.columns, n.name], rows: table.rows.map((r) => [...r, n.says]) })
                  }
                >
                  {n.name}
                </button>
              ))}
            </p>
          )}
          <div className="mt-3 flex items-center gap-3 border-t border-sailcloth-300 px-5 py-3">
            <Button
              look="main"
              className="!h-8"
              disabled={chosen.length === 0 || pending > 0}
              onClick={() => set({ sheet: 'export', variants: chosen })}
            >
              Export {counted(chosen.length, 'variant')} …
            </Button>
            <Button disabled={left.length === 0} onClick={() => setLeft([])}>
              All
            </Button>
            <Button disabled={chosen.length === 0} onClick={() => setLeft(table.rows.map((_, i) => i + 1))}>
              None
            </Button>
          </div>
        </>
      )}
    </Sheet>
  )
}

function Paste({ onTake }: { onTake: (text: string) => Promise<void> }) {
  const [text, setText] = useState('')
  return (
    <form
      className="border-b border-sailcloth-300 bg-sailcloth-100 px-5 py-3"
      onSubmit={(e) => {
        e.preventDefault()
        void onTake(text)
      }}
    >
      <textarea
        autoFocus
        rows={6}
        aria-label="Table as text"
        placeholder="Rows from a spreadsheet, or CSV"
        className="w-full rounded-md border border-sailcloth-500 bg-paper p-2 font-mono text-[0.75rem]"
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
      />
      <Button type="submit" look="main" className="mt-1.5" disabled={!text.trim()}>
        Take over
      </Button>
    </form>
  )
}

function NoTable({ told, onStart }: { told: Variants; onStart: () => void }) {
  const named = told.names.filter((n) => n.kind !== 'role')
  return (
    <div className="max-w-150 px-5 py-5 text-ink-600">
      <p>
        Each row of a table becomes a variant: its cells come in the place of texts, pictures and colours that have the
        name of their column{told.names.length > 0 && `, here ${told.names.map((n) => n.name).join(', ')}`}.
        {named.length === 0 && ' Give texts and pictures theirs in the inspector, “In tables”.'}
      </p>
      {told.names.length > 0 && (
        <Button className="mt-3" onClick={onStart}>
          Start from what the project has
        </Button>
      )}
    </div>
  )
}

function Grid({
  table,
  fills,
  from,
  onTable,
}: {
  table: Table
  fills: string[]
  from: number
  onTable: (t: Table) => void
}) {
  const cell = (row: number, column: number) => (text: string) => apply({ op: 'table.cell', row, column, text })
  return (
    <div className="thin-scroll mx-5 mt-4 overflow-x-auto">
      <table className="w-full border-collapse text-[0.75rem]" aria-label="Table of the variants">
        <thead>
          <tr className="text-left align-top">
            <th className="w-7" />
            {table.columns.map((c, k) => (
              <th key={k} className="min-w-28 p-0.5 font-normal">
                <Cell head name={`Name of column ${k + 1}`} value={c} onSet={cell(-1, k)} />
                <span className={`block truncate px-1.5 ${fills[k] ? 'text-ink-600' : 'text-coral-700'}`}>
                  {fills[k] || 'fills nothing'}
                </span>
              </th>
            ))}
            <th className="w-7" />
          </tr>
        </thead>
        <tbody>
          {table.rows.slice(from, from + most).map((r, i) => (
            <tr key={from + i} className="align-top">
              <td className="pt-1.5 text-right text-ink-500">{from + i + 1}</td>
              {r.map((v, k) => (
                <td key={k} className="p-0.5">
                  <Cell name={`${table.columns[k]}, row ${from + i + 1}`} value={v} onSet={cell(from + i, k)} />
                </td>
              ))}
              <td>
                <Sign
                  name={`Delete row ${from + i + 1}`}
                  className="hover:bg-sailcloth-200"
                  onClick={() => onTable({ ...table, rows: table.rows.filter((_, n) => n !== from + i) })}
                >
                  <X size={14} strokeWidth={1.5} />
                </Sign>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button
        look="quiet"
        className="mt-1"
        onClick={() => onTable({ ...table, rows: [...table.rows, table.rows.at(-1) ?? table.columns.map(() => '')] })}
      >
        <Plus size={14} strokeWidth={1.5} />
        Row
      </Button>
    </div>
  )
}
