// For which scenes a change is: this one, those selected, or all. Scenes that were set by themselves are asked about.
import { useState } from 'react'
import { engine } from '../engine/engine'
import { desk, useDesk } from '../project/desk'
import { Button } from '../ui/controls'

type Scope = 'this' | 'selected' | 'all'

interface Asked {
  ids: string[]
  own: string[]
  run: (ids: string[]) => unknown
}

export interface Scoped {
  scope: Scope
  setScope: (s: Scope) => void
  asked: Asked | null
  answer: (all: boolean) => void
  change: (run: (ids: string[]) => unknown) => void
}

/** A change to several scenes waits for an answer when some of them differ from the others. */
export function useScope(what: 'stay' | 'transition'): Scoped {
  const [scope, setScope] = useState<Scope>('this')
  const [asked, setAsked] = useState<Asked | null>(null)
  const change = (run: (ids: string[]) => unknown) => {
    const { film, scene, scenes } = desk()
    const here = film!.scenes[scene].id
    const now = scope === 'selected' && scenes.length === 0 ? 'this' : scope
    const ids =
      now === 'all' ? film!.scenes.slice(0, film!.shown).map((s) => s.id) : now === 'selected' ? scenes : [here]
    const own = ids.length > 1 ? engine.ownScenes(ids, what).filter((id) => id !== here) : []
    if (own.length) setAsked({ ids, own, run })
    else {
      setAsked(null)
      run(ids)
    }
  }
  const answer = (all: boolean) => {
    if (asked) asked.run(all ? asked.ids : asked.ids.filter((id) => !asked.own.includes(id)))
    setAsked(null)
  }
  return { scope, setScope, asked, answer, change }
}

export function ForScenes({ scope, what }: { scope: Scoped; what: string }) {
  const film = useDesk((d) => d.film)
  const selected = useDesk((d) => d.scenes.length)
  if (!film || film.shown < 2) return null
  const now = scope.scope === 'selected' && selected === 0 ? 'this' : scope.scope
  const names = scope.asked?.own.map((id) => film.scenes.find((s) => s.id === id)?.name).filter(Boolean) ?? []
  const side = 'h-6 rounded-md px-2 text-[0.75rem] disabled:opacity-40'
  return (
    <div className="mt-2">
      <div
        className="flex items-center gap-1 text-[0.75rem]"
        role="group"
        aria-label={`For which scenes the ${what} is set`}
      >
        <span className="mr-1 text-ink-600">for</span>
        {(
          [
            ['this', 'this scene'],
            ['selected', selected > 0 ? `${selected} selected` : 'selected'],
            ['all', 'all'],
          ] as const
        ).map(([v, word]) => (
          <button
            key={v}
            type="button"
            aria-pressed={now === v}
            disabled={v === 'selected' && selected === 0}
            onClick={() => scope.setScope(v)}
            aria-label={`Set the ${what} for ${word}`}
            title={v === 'selected' ? 'Select scenes in the timeline with Shift or Ctrl' : undefined}
            className={`${side} ${now === v ? 'bg-brass-200 font-semibold' : 'hover:bg-sailcloth-200'}`}
          >
            {word}
          </button>
        ))}
      </div>
      {scope.asked && (
        <div
          className="mt-1.5 rounded-md border border-brass-400 bg-brass-200/55 px-2 py-1.5 text-[0.75rem]"
          role="alert"
        >
          <p>
            {names.length === 1
              ? `“${names[0]}” has a ${what} of its own.`
              : `${names.length} scenes have a ${what} of their own: ${names
                  .slice(0, 3)
                  .map((n) => `“${n}”`)
                  .join(', ')}${names.length > 3 ? ' …' : ''}`}
          </p>
          <div className="mt-1.5 flex gap-1.5">
            <Button className="!px-2 text-[0.75rem]" onClick={() => scope.answer(false)}>
              Leave {names.length === 1 ? 'it' : 'them'}
            </Button>
            <Button className="!px-2 text-[0.75rem]" onClick={() => scope.answer(true)}>
              Set {names.length === 1 ? 'it' : 'them'} too
            </Button>
          </div>
        </div>
      )}
    </div>
  )
}
