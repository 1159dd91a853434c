// Presets: what is asked for again and again, by a name.
import { Trash2 } from 'lucide-react'
import { useEffect, useState } from 'react'
import { engine } from '../engine/engine'
import type { Ask } from '../engine/types'
import { fail, useDesk } from '../project/desk'
import { deletePreset, listPresets, savePreset, type OwnPreset } from '../server/server'
import { Choice } from '../ui/Choice'
import { Button, Label, Sign } from '../ui/controls'
import { TextField } from '../ui/TextField'

const same = (a: Ask, b: Ask) => JSON.stringify(sorted(a)) === JSON.stringify(sorted(b))
const sorted = (a: Ask) =>
  Object.entries(a)
    .filter(([, v]) => v !== undefined && v !== 0)
    .toSorted()

/** A preset without a size has that which is offered first. */
const whole = (a: Ask): Ask => (a.width || a.height ? a : { ...a, height: engine.offered(a.format).first })

export function Presets({ ask, onUse }: { ask: Ask; onUse: (a: Ask) => void }) {
  const project = useDesk((d) => d.project)!
  const [own, setOwn] = useState<OwnPreset[]>([])
  const [naming, setNaming] = useState(false)
  const [name, setName] = useState('')
  const load = () => listPresets(project).then(setOwn).catch(fail)
  useEffect(() => void load(), [project])
  const brought = engine.choices().presets
  const bare = { ...ask, times: undefined } // frames timed by hand are those of one film
  const used = own.find((p) => same(whole(p.ask), bare))
  const value = used?.id ?? brought.find((p) => same(whole(p.ask), bare))?.name ?? ''
  const save = (all: boolean) => {
    if (!name.trim()) return
    savePreset(project, name.trim(), all, bare)
      .then(() => {
        setNaming(false)
        setName('')
        return load()
      })
      .catch(fail)
  }
  return (
    <div className="mb-3 grid grid-cols-[4.5rem_minmax(0,1fr)] items-center gap-x-2">
      <Label>Preset</Label>
      <span className="flex items-center gap-1.5">
        <Choice
          name="Preset"
          className="min-w-0 flex-1"
          value={value || 'none'}
          of={[
            ...(value ? [] : [{ value: 'none', label: 'as set below' }]),
            ...own.map((p) => ({ value: p.id, label: `${p.name}${p.project ? '' : ', in all projects'}` })),
            ...brought.map((p) => ({ value: p.name, label: `${p.name}: ${p.says}` })),
          ]}
          onSet={(v) => {
            const p = own.find((o) => o.id === v) ?? brought.find((b) => b.name === v)
            if (p) onUse(whole(p.ask))
          }}
        />
        {used && (
          <Sign
            name={`Delete the preset ${used.name}`}
            className="hover:bg-sailcloth-200"
            onClick={() => deletePreset(used.id).then(load).catch(fail)}
          >
            <Trash2 size={15} strokeWidth={1.5} />
          </Sign>
        )}
        {!naming && (
          <Button className="shrink-0" onClick={() => setNaming(true)}>
            Save as preset
          </Button>
        )}
      </span>
      {naming && (
        <span className="col-start-2 mt-1.5 flex items-center gap-1.5">
          <TextField name="Name of the preset" className="min-w-0 flex-1" value={name} onSet={setName} />
          <Button className="shrink-0" disabled={!name} onClick={() => save(false)}>
            In this project
          </Button>
          <Button className="shrink-0" disabled={!name} onClick={() => save(true)}>
            In all
          </Button>
          <Button look="quiet" className="shrink-0" onClick={() => setNaming(false)}>
            Cancel
          </Button>
        </span>
      )}
    </div>
  )
}
