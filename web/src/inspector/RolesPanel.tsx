// Colour roles of a scene: colours by their job. What uses a role follows it, through morphs too.
import { pictureFiles } from '../server/server'
import { Image as ImageIcon, Plus, X } from 'lucide-react'
import { useRef, useState } from 'react'
import type { Heading } from '../engine/types'
import { draft, run } from '../project/commands'
import { fail, useDesk } from '../project/desk'
import { apply } from '../project/commands'
import { Section } from '../ui/Section'
import { Button, Sign } from '../ui/controls'
import { ColourField, Swatch } from '../ui/ColourField'

export function RolesPanel({ scene }: { scene: Heading }) {
  const sets = useDesk((d) => d.film!.roleSets)
  const [adding, setAdding] = useState<string | null>(null)
  const picture = useRef<HTMLInputElement>(null)
  const set = (name: string, colour: string | null) => run('roles.set', { name, colour })
  const begun = scene.roles.length > 0
  return (
    <Section title="Colour roles" folded={!begun}>
      {!begun && (
        <p className="mb-2 text-[0.75rem] text-ink-600">
          Roles let a scene change its colours as one: layers take theirs from the ground, the accent, the words, or
          roles of your own.
        </p>
      )}
      {!begun && (
        <Button className="w-full" onClick={() => run('roles.begin')}>
          Give this scene roles
        </Button>
      )}
      <ul className="flex flex-col gap-1">
        {scene.roles.map((r) => (
          <li key={r.name} className="group flex items-center gap-2" data-role={r.name}>
            <span className="min-w-0 flex-1 truncate text-[0.75rem]" title={r.name}>
              {r.name}
            </span>
            <span className="text-[0.6875rem] text-ink-600">{r.uses ? `${r.uses} ×` : ''}</span>
            <ColourField
              name={`Role ${r.name}`}
              value={{ colour: r.colour }}
              compact
              plain
              onDraft={(v) => draft('roles.set', { name: r.name, colour: v.colour.slice(0, 7) })}
              onSet={(v) => v && set(r.name, v.colour.slice(0, 7))}
            />
            <Sign
              name={`Take the role ${r.name} away`}
              className="!w-6 opacity-60 hover:bg-sailcloth-200 hover:opacity-100"
              onClick={() => set(r.name, null)}
            >
              <X size={14} strokeWidth={1.5} />
            </Sign>
          </li>
        ))}
      </ul>
      {begun && (
        <div className="mt-2 flex flex-wrap items-center gap-1.5">
          {adding === null ? (
            <Button onClick={() => setAdding('')}>
              <Plus size={14} strokeWidth={1.5} />
              Own role
            </Button>
          ) : (
            <input
              autoFocus
              aria-label="Name of the role"
              placeholder="name"
              maxLength={40}
              value={adding}
              onChange={(e) => setAdding(e.target.value)}
              onBlur={() => setAdding(null)}
              className="h-6.5 w-27.5 rounded-md border border-brass-600 bg-paper px-2 focus:outline-none"
              onKeyDown={(e) => {
                e.stopPropagation()
                if (e.key === 'Enter' && adding.trim()) {
                  set(adding.trim(), '#a8731a')
                  setAdding(null)
                }
                if (e.key === 'Escape') setAdding(null)
              }}
            />
          )}
          <Button
            onClick={() => run('roles.save', { name: scene.name })}
            title="Keeps these colours in the project, to give them to other scenes"
          >
            Save as a set
          </Button>
        </div>
      )}
      <div className="mt-1.5">
        <Button onClick={() => picture.current?.click()} title="Proposes five roles from the colours of a picture">
          <ImageIcon size={14} strokeWidth={1.5} />
          From a picture …
        </Button>
        <input
          ref={picture}
          type="file"
          accept={pictureFiles}
          hidden
          data-roles-input
          aria-label="Picture to take colours from"
          onChange={(e) => {
            const file = e.target.files?.[0]
            if (file)
              pixelsOf(file)
                .then((rgba) => run('roles.propose', { rgba }))
                .catch(fail)
            e.target.value = ''
          }}
        />
      </div>
      {sets.length > 0 && (
        <ul className="mt-2.5 flex flex-col gap-1" aria-label="Saved sets of roles">
          {sets.map((s) => (
            <li key={s.id} className="flex items-center gap-1">
              <button
                type="button"
                onClick={() => run('roles.apply', { roles: s.roles })}
                title={`Give this scene the colours of “${s.name}”`}
                className="flex h-7 min-w-0 flex-1 items-center gap-1 rounded-md px-1 hover:bg-sailcloth-200"
              >
                {['ground', 'ground tone', 'accent', 'accent tone', 'words']
                  .filter((n) => s.roles[n])
                  .map((n) => (
                    <Swatch key={n} colour={s.roles[n]} size={16} />
                  ))}
                <span className="ml-1 truncate text-[0.75rem]">{s.name}</span>
              </button>
              <Sign
                name={`Delete the set ${s.name}`}
                className="!w-6 opacity-60 hover:bg-sailcloth-200 hover:opacity-100"
                onClick={() =>
                  apply({
                    op: 'project.set',
                    patch: { roleSets: sets.length > 1 ? sets.filter((o) => o.id !== s.id) : null },
                  })
                }
              >
                <X size={14} strokeWidth={1.5} />
              </Sign>
            </li>
          ))}
        </ul>
      )}
    </Section>
  )
}

/** The pixels of a picture file, made small, in base 64: enough to find its colours. */
async function pixelsOf(file: File): Promise<string> {
  const bitmap = await createImageBitmap(file)
  const k = Math.min(1, 96 / Math.max(bitmap.width, bitmap.height))
  const c = document.createElement('canvas')
  c.width = Math.max(1, Math.round(bitmap.width * k))
  c.height = Math.max(1, Math.round(bitmap.height * k))
  const x = c.getContext('2d')!
  x.drawImage(bitmap, 0, 0, c.width, c.height)
  let s = ''
  for (const v of x.getImageData(0, 0, c.width, c.height).data) s += String.fromCharCode(v)
  return btoa(s)
}
