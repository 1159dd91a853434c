// To a scene by its name, or its number.
import { clsx } from 'clsx'
import { useEffect, useRef, useState } from 'react'
import { goToScene, select, set, useDesk } from '../project/desk'
import { seconds } from '../time'
import { Sheet } from '../ui/Sheet'
import { SceneThumb } from './thumbs'

/** More than these need more letters. */
const most = 60

export function SceneFinder() {
  const film = useDesk((d) => d.film)!
  const here = useDesk((d) => d.scene)
  const [typed, setTyped] = useState('')
  const [at, setAt] = useState(here)
  const armed = useRef(false)
  const field = useRef<HTMLInputElement>(null)
  // Once the key that opened it is done with: it is none of the name.
  useEffect(() => {
    const timer = setTimeout(() => field.current?.focus(), 30)
    return () => clearTimeout(timer)
  }, [])
  const close = () => set({ sheet: 'none' })
  const words = typed.trim().toLowerCase()
  const found = film.scenes
    .map((scene, index) => ({ scene, index }))
    .filter(({ scene, index }) => !words || scene.name.toLowerCase().includes(words) || String(index + 1) === words)
    .slice(0, words ? most : undefined)
  const chosen = Math.max(0, Math.min(at, found.length - 1))
  const go = (index: number) => {
    close()
    goToScene(index)
    select([], '')
  }
  return (
    <Sheet title="To a scene" onClose={close}>
      <div className="px-5 pb-4 pt-3" data-scene-finder>
        <input
          ref={field}
          role="combobox"
          aria-expanded
          aria-controls="scene-list"
          aria-activedescendant={found[chosen] && `to-${found[chosen].scene.id}`}
          aria-label="Name or number of the scene"
          placeholder="Name or number"
          value={typed}
          className="h-8 w-full rounded-md border border-sailcloth-500 bg-paper px-2.5 text-[0.875rem]"
          onChange={(e) => {
            setTyped(e.target.value)
            setAt(0)
          }}
          onKeyDown={(e) => {
            const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }[e.key]
            if (by) setAt(Math.max(0, Math.min(chosen + by, found.length - 1)))
            else if (e.key === 'Enter') armed.current = true
            else return
            e.preventDefault()
            e.stopPropagation()
          }}
          // Not as the key goes down: what has the keyboard next would be pressed by the same key.
          onKeyUp={(e) => {
            if (e.key === 'Enter' && armed.current && found[chosen]) go(found[chosen].index)
          }}
        />
        <ul id="scene-list" role="listbox" aria-label="Scenes" className="thin-scroll mt-2 max-h-84 overflow-auto">
          {found.map((v, k) => (
            <li
              key={v.scene.id}
              id={`to-${v.scene.id}`}
              role="option"
              aria-selected={k === chosen}
              ref={k === chosen ? (el) => el?.scrollIntoView({ block: 'nearest' }) : undefined}
              onClick={() => go(v.index)}
              className={clsx(
                'flex h-9.5 cursor-pointer items-center gap-2.5 rounded-md px-1.5',
                k === chosen ? 'bg-brass-200' : 'hover:bg-sailcloth-200',
              )}
            >
              <span className="flex w-14 shrink-0 justify-center">
                <SceneThumb scene={v.index} height={30} width={Math.min(56, (30 * film.width) / film.height)} />
              </span>
              <span className="w-8 text-right font-mono text-[0.75rem] text-ink-500">
                {v.scene.aside ? '' : v.index + 1}
              </span>
              <span className="min-w-0 flex-1 truncate">{v.scene.name}</span>
              <span className="font-mono text-[0.75rem] text-ink-500">
                {v.scene.template ? 'template' : v.scene.aside ? 'aside' : seconds(v.scene.stay)}
              </span>
            </li>
          ))}
        </ul>
        <p className="mt-1.5 text-[0.6875rem] text-ink-500" role="status">
          {found.length === 0
            ? 'No scene is called like that.'
            : words && found.length === most
              ? `The first ${most} of these. Type more of the name.`
              : `${found.length === 1 ? 'One scene' : `${found.length} scenes`}. Arrow keys choose, Enter goes there.`}
        </p>
      </div>
    </Sheet>
  )
}
