// A scene in sentences, in the order of time: for those who hear or read it, and for print.
import { Printer } from 'lucide-react'
import { useMemo } from 'react'
import { createPortal } from 'react-dom'
import { engine } from '../engine/engine'
import { set, useDesk } from '../project/desk'
import { Sheet } from '../ui/Sheet'
import { Button } from '../ui/controls'

export function WordsSheet() {
  const film = useDesk((d) => d.film)
  const scene = useDesk((d) => d.scene)
  const version = useDesk((d) => d.version)
  const lists = useMemo(() => film?.scenes.slice(0, film.shown).map((_, i) => engine.summary(i)) ?? [], [film, version])
  if (!film) return null
  return (
    <Sheet title={`${film.scenes[scene].name} in words`} onClose={() => set({ sheet: 'none' })}>
      <div className="px-5 py-4">
        <ol
          className="list-none space-y-1 focus:!outline-none"
          data-autofocus
          tabIndex={-1}
          aria-label="What happens, in the order of time"
        >
          {lists[scene].map((t, i) => (
            <li key={i} className={i === 0 ? 'mb-2 font-semibold' : ''}>
              {t}
            </li>
          ))}
        </ol>
        <div className="mt-4 flex justify-end print:hidden">
          <Button onClick={() => window.print()}>
            <Printer size={16} strokeWidth={1.5} />
            Print all scenes
          </Button>
        </div>
      </div>
      {createPortal(
        <div className="printed hidden">
          <h1>{film.name}</h1>
          {lists.map((list, i) => (
            <section key={film.scenes[i].id}>
              {list.map((t, k) => (
                <p key={k} className={k === 0 ? 'font-semibold' : ''}>
                  {t}
                </p>
              ))}
            </section>
          ))}
        </div>,
        document.body,
      )}
    </Sheet>
  )
}
