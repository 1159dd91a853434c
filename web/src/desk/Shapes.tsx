// All shapes, by their outlines, and markers.
import { clsx } from 'clsx'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import { useMemo } from 'react'
import { engine } from '../engine/engine'
import { desk, selectNew, type Tool } from '../project/desk'
import { run } from '../project/commands'
import { pickTool } from '../actions/tools'
import { ShapeSign } from '../ui/ShapeSign'

/** All shapes, by their outlines. */
export function Shapes({ tool }: { tool: Tool }) {
  const shapes = useMemo(() => engine.shapes(), [])
  const picked = shapes.find((s) => s.kind === tool && tool !== 'rectangle' && tool !== 'ellipse')
  return (
    <Menu>
      <MenuButton
        aria-label={picked?.name ?? 'Shapes'}
        title="All shapes"
        className={clsx(
          'flex h-7 items-center gap-1.5 rounded-md px-1.5',
          picked ? 'bg-brass-200' : 'hover:bg-sailcloth-200',
        )}
      >
        <ShapeSign d={(picked ?? shapes.find((s) => s.kind === 'star')!).d} />
        <span className="@max-[43rem]:hidden">{picked?.name ?? 'Shapes'}</span>
        <svg width="9" height="9" viewBox="0 0 10 10" aria-hidden>
          <path d="M1 3l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.5" />
        </svg>
      </MenuButton>
      <MenuItems
        anchor={{ to: 'top start', gap: 6, padding: 8 }}
        // It is a grid: to the sides, too.
        onKeyDown={(e: React.KeyboardEvent) => {
          const key = { ArrowRight: 'ArrowDown', ArrowLeft: 'ArrowUp' }[e.key]
          if (key) e.currentTarget.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
        }}
        className={clsx(
          'z-50 grid grid-cols-4 gap-1 rounded-md border border-sailcloth-300 bg-paper p-2',
          'shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:outline-none',
        )}
      >
        {shapes.map((s) => (
          <MenuItem key={s.kind}>
            <button
              type="button"
              aria-label={s.name}
              onClick={() => pickTool(s.kind)}
              className={clsx(
                'flex h-14.5 w-19 flex-col items-center justify-center gap-1 rounded-md text-[0.6875rem]',
                'data-focus:bg-brass-200',
              )}
            >
              <svg
                width="30"
                height="30"
                viewBox="-10 -10 20 20"
                fill="none"
                stroke="currentColor"
                strokeWidth="1"
                strokeLinejoin="round"
                aria-hidden
              >
                <path d={s.d} />
              </svg>
              {s.name}
            </button>
          </MenuItem>
        ))}
        <div className="col-span-4 mt-1 border-t border-sailcloth-300 pt-1 text-[0.6875rem] text-ink-600">
          Which scene this is
        </div>
        {(
          [
            ['dots', 'Dots', 'M-7 0a1.5 1.500 0 1 0 .01 0M0 0a1.500 1.500 0 1 0 .01 0M7 0a1.500 1.500 0 1 0 .01 0'],
            ['bars', 'Bars', 'M-9 0h4M-2 0h4M5 0h4'],
            ['count', '2 of 4', 'M-7 -3h3v3h-3v3h3M4 -3v3h4M7 -3v6'],
          ] as const
        ).map(([style, name, d]) => (
          <MenuItem key={style}>
            <button
              type="button"
              aria-label={`Marker: ${name}`}
              onClick={() => {
                const before = new Set(desk().rows.map((r) => r.thread))
                if (run('add.marker', { style })) selectNew(before)
              }}
              className={clsx(
                'flex h-12.5 w-19 flex-col items-center justify-center gap-1 rounded-md text-[0.6875rem]',
                'data-focus:bg-brass-200',
              )}
            >
              <svg
                width="30"
                height="20"
                viewBox="-10 -7 20 14"
                fill="none"
                stroke="currentColor"
                strokeWidth="1.500"
                aria-hidden
              >
                <path d={d} />
              </svg>
              {name}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  )
}
