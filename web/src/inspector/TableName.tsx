// What a text or picture is called in tables that variants are made of.
import type { Selected } from '../engine/types'
import { run } from '../project/commands'
import { TextField } from '../ui/TextField'
import { Label } from '../ui/controls'
import { shared } from './shared'

export function TableName({ selected }: { selected: Selected[] }) {
  const name = shared(selected.map((s) => s.layer.column ?? ''))
  return (
    <>
      <Label>In tables</Label>
      <TextField
        clears
        name="Name for tables: a column of this name fills it in variants"
        className="mb-1.5"
        value={name ?? ''}
        onSet={(v) => run('table.name', { threads: selected.map((s) => s.layer.thread), name: v })}
      />
    </>
  )
}
