// A menu where the pointer is, or, by the menu key, at what has the keyboard.
import { clsx } from 'clsx'
import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import { create } from 'zustand'

export interface Entry {
  word: string
  key?: string
  run: () => void
  disabled?: boolean
}

interface Open {
  x: number
  y: number
  name: string
  up: boolean
  entries: (Entry | null)[]
  back: HTMLElement | null
}

const useMenu = create<{ open: Open | null }>()(() => ({ open: null }))

/** Opens a menu for a right press; null stands for a line between entries. */
export function openMenu(e: React.MouseEvent, name: string, list: (Entry | null)[]) {
  e.preventDefault()
  e.stopPropagation()
  openMenuAt(e.clientX, e.clientY, name, list)
}

/** Opens a menu at a place of the window: down from there, or up. */
export function openMenuAt(x: number, y: number, name: string, list: (Entry | null)[], up = false) {
  // No two lines in a row.
  const entries = list.filter((item, i) => item !== null || (i > 0 && i < list.length - 1 && list[i - 1] !== null))
  useMenu.setState({ open: { x, y, name, up, entries, back: document.activeElement as HTMLElement | null } })
}

export function ContextMenu() {
  const open = useMenu((m) => m.open)
  const ref = useRef<HTMLDivElement>(null)
  const [at, setAt] = useState({ x: 0, y: 0 })
  useLayoutEffect(() => {
    if (!open || !ref.current) return
    const r = ref.current.getBoundingClientRect()
    setAt({
      x: Math.max(4, Math.min(open.x, window.innerWidth - r.width - 6)),
      y: Math.max(4, Math.min(open.up ? open.y - r.height : open.y, window.innerHeight - r.height - 6)),
    })
    ref.current.querySelector<HTMLElement>('button:not(:disabled)')?.focus()
  }, [open])
  useEffect(() => {
    if (!open) return
    const away = (e: PointerEvent) => {
      if (!ref.current?.contains(e.target as Node)) close(false)
    }
    window.addEventListener('pointerdown', away, true)
    return () => window.removeEventListener('pointerdown', away, true)
  }, [open])
  if (!open) return null
  const close = (focus: boolean) => {
    useMenu.setState({ open: null })
    if (focus) open.back?.focus()
  }
  const items = () => [...ref.current!.querySelectorAll<HTMLElement>('button:not(:disabled)')]
  // A long list stands in columns, one for what lies between two lines.
  const wide = open.entries.length > 32
  const columns: (Entry | null)[][] = [[]]
  for (const item of open.entries) {
    if (wide && item === null) columns.push([])
    else columns.at(-1)!.push(item)
  }
  const step = (by: number) => {
    const all = items()
    all[(all.indexOf(document.activeElement as HTMLElement) + by + all.length) % all.length]?.focus()
  }
  return (
    <div
      ref={ref}
      role="menu"
      aria-label={open.name}
      className={clsx(
        'thin-scroll fixed z-50 max-h-[calc(100vh-8px)] min-w-52.5 overflow-y-auto rounded-md',
        wide && 'flex flex-wrap items-start gap-1',
        'border border-sailcloth-300 bg-paper p-1 text-ink-900 shadow-[0_8px_28px_rgb(12_37_35/0.25)]',
      )}
      style={{ left: at.x, top: at.y }}
      onContextMenu={(e) => e.preventDefault()}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Escape' || e.key === 'Tab') {
          e.preventDefault()
          close(true)
        }
        if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
          e.preventDefault()
          step(e.key === 'ArrowDown' ? 1 : -1)
        }
        const column = document.activeElement?.closest('[data-column]')
        const beside =
          e.key === 'ArrowRight'
            ? column?.nextElementSibling
            : e.key === 'ArrowLeft'
              ? column?.previousElementSibling
              : null
        if (column && beside) {
          e.preventDefault()
          const at = [...column.children].indexOf(document.activeElement!)
          ;(beside.children[Math.min(at, beside.children.length - 1)] as HTMLElement).focus()
        }
        if (e.key === 'Home' || e.key === 'End') {
          e.preventDefault()
          items()
            .at(e.key === 'Home' ? 0 : -1)
            ?.focus()
        }
        // A letter goes to the next entry that begins with it.
        if (e.key.length === 1 && e.key !== ' ') {
          const all = items()
          const at = all.indexOf(document.activeElement as HTMLElement) + 1
          const from = [...all.slice(at), ...all.slice(0, at)]
          from.find((i) => i.innerText.toLowerCase().startsWith(e.key.toLowerCase()))?.focus()
        }
      }}
    >
      {columns.map((list, n) => (
        <div key={n} data-column={wide || undefined}>
          {list.map((item, i) =>
            item === null ? (
              <div key={i} className="mx-2 my-1 h-px bg-sailcloth-300" />
            ) : (
              <button
                key={item.word}
                type="button"
                role="menuitem"
                disabled={item.disabled}
                onPointerEnter={(e) => e.currentTarget.focus()}
                onClick={() => {
                  close(true)
                  item.run()
                }}
                className={clsx(
                  'flex h-6.5 w-full items-center gap-4 rounded-md px-2 text-left focus:bg-brass-200',
                  'focus:!outline-none disabled:opacity-45',
                )}
              >
                {item.word}
                <span className="ml-auto font-mono text-[0.6875rem] text-ink-600">{item.key}</span>
              </button>
            ),
          )}
        </div>
      ))}
    </div>
  )
}
