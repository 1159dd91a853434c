// The bin: projects to be taken back, or deleted for good after a question.
import { clsx } from 'clsx'
import { Trash2, Undo2 } from 'lucide-react'
import { useState } from 'react'
import type { ProjectRow } from '../engine/types'
import { Button } from '../ui/controls'
import { widthOf } from './Card'
import { counted } from '../words'

/** Opens the bin, where there is something in it. */
export function BinButton({ n, open, onOpen }: { n: number; open: boolean; onOpen: (open: boolean) => void }) {
  if (n === 0) return null
  return (
    <button
      type="button"
      aria-expanded={open}
      className="flex h-7 items-center gap-2 rounded-md px-1.5 text-ink-600 hover:bg-sailcloth-300 hover:text-ink-900"
      onClick={() => onOpen(!open)}
    >
      <Trash2 size={16} strokeWidth={1.5} />
      Bin: {counted(n, 'project')}
      <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden className={open ? '' : '-rotate-90'}>
        <path d="M1 3l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.5" />
      </svg>
    </button>
  )
}

export function Bin({
  projects,
  onRestore,
  onDelete,
}: {
  projects: ProjectRow[]
  onRestore: (p: ProjectRow) => void
  onDelete: (p: ProjectRow) => void
}) {
  const [going, setGoing] = useState<string | null>(null)
  if (projects.length === 0) return null
  return (
    <section className="mb-5 border-y border-sailcloth-300 py-3" aria-label="Bin">
      <ul className="flex flex-col gap-1.5">
        {projects.map((p) => (
          <li
            key={p.id}
            className={clsx(
              'flex min-h-11 items-center gap-3 rounded-md border border-sailcloth-300 bg-sailcloth-100',
              'px-2 py-1',
            )}
            data-binned={p.name}
          >
            <span className="flex w-18 justify-center">
              <img
                src={`/api/projects/${p.id}/thumbnail.png?revision=${p.revision}`}
                alt=""
                className="rounded-[3px] bg-paper object-cover opacity-70"
                style={{ height: 32, width: Math.min(72, widthOf(p, 32)) }}
              />
            </span>
            <span className="min-w-0 flex-1 truncate font-semibold" title={p.name}>
              {p.name}
            </span>
            {going === p.id ? (
              <span className="flex items-center gap-2" role="alertdialog" aria-label={`Delete ${p.name} for good?`}>
                <span className="text-[0.75rem] text-ink-600">
                  With all its scenes and exports. This cannot be undone.
                </span>
                <Button
                  look="danger"
                  autoFocus
                  onClick={() => {
                    setGoing(null)
                    onDelete(p)
                  }}
                >
                  Delete for good
                </Button>
                <Button onClick={() => setGoing(null)}>Keep</Button>
              </span>
            ) : (
              <span className="flex items-center gap-2">
                <span className="text-[0.75rem] text-ink-600">
                  {new Date(p.binnedAt!).toLocaleDateString(undefined, { day: 'numeric', month: 'long' })}
                </span>
                <Button aria-label={`Restore ${p.name}`} onClick={() => onRestore(p)}>
                  <Undo2 size={15} strokeWidth={1.5} />
                  Restore
                </Button>
                <Button aria-label={`Delete ${p.name} for good`} look="quiet" onClick={() => setGoing(p.id)}>
                  Delete …
                </Button>
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
