// A column in parts: their names stand in its head and lead to them. It opens where one last was for what it is about.
import { clsx } from 'clsx'
import { createContext, useContext, useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react'
import { isRecord, isText, recall, remember } from '../remember'

const key = 'capstan.inspector'

// By what a column is about: the part that was looked at last.
const last: Record<string, unknown> = recall(key, isRecord, {})

/** How often a part was gone to; its sections unfold then. */
const GoneTo = createContext(0)
export const useGoneTo = () => useContext(GoneTo)

const Goings = createContext<{ part: string; n: number }>({ part: '', n: 0 })

export function Part({ name, children }: { name: string; children: ReactNode }) {
  const to = useContext(Goings)
  return (
    <div data-part={name}>
      <GoneTo value={to.part === name ? to.n : 0}>{children}</GoneTo>
    </div>
  )
}

/**
 * A column with a head that stays: the names of its parts, each of which is gone to in one press. Kind is what it is
 * about.
 */
export function Parts({
  head,
  names,
  kind,
  still,
  children,
}: {
  head: ReactNode
  names: string[]
  kind: string
  still: boolean
  children: ReactNode
}) {
  const column = useRef<HTMLDivElement>(null)
  const [at, setAt] = useState<string>(names[0])
  const [going, setGoing] = useState({ part: '', n: 0 })
  // The last part cannot come up to the top: what was pressed stays marked until the column is scrolled by hand.
  const held = useRef(false)
  const parts = () => [...(column.current?.querySelectorAll<HTMLElement>('[data-part]') ?? [])]
  const come = (name: string) => {
    const c = column.current
    const p = parts().find((e) => e.dataset.part === name)
    if (!c || !p) return
    const before = c.scrollTop
    // What stands before the first part belongs to it.
    c.scrollTop = name === names[0] ? 0 : c.scrollTop + p.getBoundingClientRect().top - c.getBoundingClientRect().top
    held.current = c.scrollTop !== before // the scrolling that is told of next is this one
    setAt(name)
  }
  const go = (name: string) => {
    setGoing({ part: name, n: going.n + 1 })
    last[kind] = name
    remember(key, last)
  }
  useLayoutEffect(() => {
    if (going.n) requestAnimationFrame(() => come(going.part))
  }, [going]) // once its sections have unfolded
  // About something else: where one last was with that. While it is to stand still, something else brings itself into
  // view.
  useEffect(() => {
    const name = isText(last[kind]) ? last[kind] : at
    if (!still) come(names.includes(name) ? name : names[0])
  }, [kind])
  const scrolled = () => {
    if (held.current) {
      held.current = false
      return
    }
    const c = column.current!
    const top = c.getBoundingClientRect().top + 48
    const end = c.scrollTop > 0 && c.scrollTop + c.clientHeight >= c.scrollHeight - 1
    const now =
      (end ? names.at(-1) : parts().findLast((e) => e.getBoundingClientRect().top <= top)?.dataset.part) ?? names[0]
    if (now === at) return
    setAt(now)
    last[kind] = now
    remember(key, last)
  }
  return (
    <>
      {head}
      <nav aria-label="Parts of the inspector" className="flex shrink-0 gap-0.5 border-b border-sailcloth-300 px-2">
        {names.map((n) => (
          <button
            key={n}
            type="button"
            aria-current={n === at ? 'true' : undefined}
            onClick={() => go(n)}
            className={clsx(
              '-mb-px h-7 flex-1 border-b-2 text-[0.75rem] font-semibold',
              n === at ? 'border-brass-600 text-ink-900' : 'border-transparent text-ink-600 hover:text-ink-900',
            )}
          >
            {n}
          </button>
        ))}
      </nav>
      <div ref={column} onScroll={scrolled} className="thin-scroll relative min-h-0 flex-1 overflow-y-auto">
        <Goings value={going}>{children}</Goings>
      </div>
    </>
  )
}
