// A project on the start screen, in its true proportions; its name is changed where it stands.
import { clsx } from 'clsx'
import { Copy, Pencil, Trash2 } from 'lucide-react'
import { useState } from 'react'
import type { ProjectRow } from '../engine/types'
import { Sign } from '../ui/controls'
import { filmTime } from '../time'
import { go } from '../go'

const height = 168

/** How wide a project's picture is at the cards' height. */
export const widthOf = (p: ProjectRow, h = height) => Math.min(2.5 * h, Math.max(0.57 * h, (p.width / p.height) * h))

export function Card({
  project: p,
  onRename,
  onCopy,
  onBin,
}: {
  project: ProjectRow
  onRename: (name: string) => void
  onCopy: () => void
  onBin: () => void
}) {
  const [name, setName] = useState<string | null>(null)
  const w = widthOf(p)
  const settle = (keep: boolean) => {
    if (keep && name !== null && name.trim() && name.trim() !== p.name) onRename(name.trim())
    setName(null)
  }
  return (
    <li className="group relative" style={{ width: Math.max(w, 190) }} data-project={p.name}>
      <a
        href={`/p/${p.id}`}
        onClick={(e) => {
          if (!e.metaKey && !e.ctrlKey) {
            e.preventDefault()
            go(p.id)
          }
        }}
        className="block rounded-md"
        aria-label={`Open ${p.name}`}
      >
        <img
          src={`/api/projects/${p.id}/thumbnail.png?revision=${p.revision}`}
          alt=""
          width={w}
          height={height}
          className="rounded-md border border-sailcloth-300 bg-paper object-cover group-hover:border-brass-600"
          style={{ width: w, height }}
        />
        {name === null && (
          <span className="mt-1.5 block truncate font-semibold" title={p.name}>
            {p.name}
          </span>
        )}
      </a>
      {name !== null && (
        <input
          aria-label="Name of the project"
          autoFocus
          value={name}
          maxLength={200}
          onFocus={(e) => e.currentTarget.select()}
          className={clsx(
            'mt-1 h-5.5 w-full rounded-md border border-brass-600 bg-paper px-1.5 font-semibold',
            'focus:outline-none',
          )}
          onChange={(e) => setName(e.target.value)}
          onBlur={() => settle(true)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') settle(true)
            if (e.key === 'Escape') settle(false)
          }}
        />
      )}
      <span className="relative flex h-6.5 items-center text-[0.75rem] text-ink-600">
        <span className="whitespace-nowrap">
          {p.width} × {p.height} · {filmTime(p.length)}
        </span>
        <span
          className={clsx(
            'absolute right-0 flex rounded-md bg-sailcloth-200 opacity-0 focus-within:opacity-100',
            'group-hover:opacity-100',
          )}
        >
          <Sign name={`Rename ${p.name}`} className="hover:bg-sailcloth-300" onClick={() => setName(p.name)}>
            <Pencil size={15} strokeWidth={1.5} />
          </Sign>
          <Sign name={`Duplicate ${p.name}`} className="hover:bg-sailcloth-300" onClick={onCopy}>
            <Copy size={15} strokeWidth={1.5} />
          </Sign>
          <Sign name={`Put ${p.name} into the bin`} className="hover:bg-sailcloth-300" onClick={onBin}>
            <Trash2 size={15} strokeWidth={1.5} />
          </Sign>
        </span>
      </span>
    </li>
  )
}
